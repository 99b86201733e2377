import { leastSteps } from './leastSteps';
import { openUpLog, type OpenUpLog } from './openUpLog';
import { screwBalance } from './screwBalance';
import {
  addLayer,
  editLayer,
  addScrew,
  addStep,
  editScrew,
  editStep,
  removeLayer,
  removeScrew,
  removeStep,
  turnScrew,
  withLayer,
} from './logEdits';

const empty = openUpLog.parse({ format: 'zugluft-openup', formatVersion: 1 });
const ready = (): OpenUpLog => {
  let log = withLayer(empty, { widthMm: 340, depthMm: 240 });
  log = addStep(log, 'Base cover');
  log = addScrew(log, 'base', 'A', { xMm: 10.4, yMm: 10.6 }, 'step1');
  log = addScrew(log, 'base', 'A', { xMm: 330, yMm: 10 }, 'step1');
  return addScrew(log, 'base', 'B', { xMm: 170, yMm: 230 }, 'step1');
};

test('what is logged is a log that the server takes, groups made as they are met', () => {
  const log = ready();
  expect(openUpLog.safeParse(log).success).toBe(true);
  expect(log.groups.map((g) => g.letter)).toEqual(['A', 'B']);
  expect(log.steps[0]!.screws).toEqual(['s1', 's2', 's3']);
  expect(log.screws[0]).toMatchObject({ xMm: 10, yMm: 11, group: log.groups[0]!.id });
  expect(withLayer(log, { widthMm: 1, depthMm: 1 })).toBe(log);
  const deeper = addLayer(log, 'mid-frame');
  expect(deeper.layers[1]).toMatchObject({ name: 'mid-frame', widthMm: 340 });
  expect(openUpLog.safeParse(deeper).success).toBe(true);
});

test('one key: out, back, as it was; a missing one stays where it is not', () => {
  let log = turnScrew(ready(), 's1');
  expect(screwBalance(log).groups[0]).toMatchObject({ taken: 1, leftOver: ['s1'] });
  log = turnScrew(log, 's1');
  expect(screwBalance(log)).toMatchObject({ even: true });
  log = turnScrew(log, 's1');
  expect(log.screws[0]).toMatchObject({ out: false });
  const missing = editScrew(log, 's2', { onArrival: 'missing' });
  expect(turnScrew(missing, 's2')).toBe(missing);
});

test('a removed hole is in no step, and no screw says it went there', () => {
  const log = removeScrew(editScrew(turnScrew(ready(), 's1'), 's1', { back: 's2' }), 's2');
  expect(log.steps[0]!.screws).toEqual(['s1', 's3']);
  expect(log.screws[0]!.back).toBeUndefined();
  expect(addScrew(log, 'base', 'A', { xMm: 1, yMm: 1 }, undefined).screws.at(-1)!.id).not.toBe(
    's3',
  );
});

test('a step remembered late stands between, and what followed now waits for it; removed, all is as before', () => {
  let log = addStep(addStep(ready(), 'Battery off'), 'Fan plugs');
  const before = log;
  log = addStep(log, 'Hold-down bar', 'step1');
  expect(log.steps.map((s) => s.name)).toEqual([
    'Base cover',
    'Hold-down bar',
    'Battery off',
    'Fan plugs',
  ]);
  const late = log.steps[1]!.id;
  expect(log.steps[2]!.needs).toEqual([late]);
  expect(log.steps[1]!.needs).toEqual(['step1']);
  log = editStep(log, log.steps[3]!.id, { reaches: ['clean-fans'] });
  expect(leastSteps(log.steps, 'clean-fans')!.steps).toHaveLength(4);
  expect(removeStep(log, late).steps.map((s) => s.needs)).toEqual(before.steps.map((s) => s.needs));
});

test('a layer is renamed, measured and removed while no hole is on it; the last one stays', () => {
  let log = addLayer(ready(), 'mid-fram');
  const { id } = log.layers[1]!;
  log = editLayer(log, id, { name: 'mid-frame', widthMm: 300, seenFrom: 'above' });
  expect(log.layers[1]).toMatchObject({ name: 'mid-frame', widthMm: 300, seenFrom: 'above' });
  expect(removeLayer(log, 'base')).toBe(log);
  log = editStep(log, 'step1', { layer: id });
  const rest = removeLayer(log, id);
  expect(rest.layers.map((l) => l.id)).toEqual(['base']);
  expect(rest.steps[0]!.layer).toBeUndefined();
  expect(openUpLog.safeParse(JSON.parse(JSON.stringify(rest))).success).toBe(true);
  expect(removeLayer(rest, 'base')).toBe(rest);
});
