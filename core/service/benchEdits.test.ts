import fc from 'fast-check';
import { backTogether } from './backTogether';
import {
  acknowledge,
  addNote,
  endBack,
  endStep,
  liftStrip,
  openAt,
  pauseClocks,
  plugOne,
  putBackOne,
  putElsewhere,
  secondsOf,
  stamp,
  startClock,
  takeOne,
  takePart,
  lastUnplugged,
  markHidden,
  markMissing,
  tellConnector,
  wrongBack,
  unplugOne,
} from './benchEdits';
import { holeAt } from './holeAt';
import { addStep, withLayer } from './logEdits';
import { EMPTY_LOG, openUpLog, type OpenUpLog } from './openUpLog';
import { screwBalance } from './screwBalance';
import { templateFrom } from './templateFrom';

const T0 = Date.parse('2026-03-02T10:00:00Z');

const begun = (): OpenUpLog =>
  addStep(withLayer(EMPTY_LOG, { widthMm: 340, depthMm: 240 }), 'Base cover off', undefined, {
    state: 'planned',
  });

/** Four A at the corners, two B only counted. */
const opened = (): OpenUpLog => {
  let log = begun();
  for (const [xMm, yMm] of [
    [10, 10],
    [330, 10],
    [10, 230],
    [330, 230],
  ]) {
    log = takeOne(log, 'step1', 'A', 'base', { xMm: xMm!, yMm: yMm! });
  }
  log = takeOne(log, 'step1', 'B', 'base', null);
  log = takeOne(log, 'step1', 'B', 'base', null);
  log = unplugOne(log, 'step1', 'flip-latch', 'base');
  return endStep(log, 'step1', 'done', T0);
};

test('each key press is one screw, out of its hole, with a place or counted only', () => {
  const log = opened();
  expect(openUpLog.safeParse(log).success).toBe(true);
  expect(log.screws.map((s) => [s.xMm, s.out])).toEqual([
    [10, true],
    [330, true],
    [10, true],
    [330, true],
    [undefined, true],
    [undefined, true],
  ]);
  expect(screwBalance(log).groups.map((g) => [g.taken, g.leftOver.length])).toEqual([
    [4, 4],
    [2, 2],
  ]);
  expect(log.connectors).toMatchObject([{ release: 'flip-latch', off: true }]);
});

test('an empty hole is marked where one points, never by turning a logged screw into a missing one', () => {
  const at = { xMm: 5, yMm: 5 };
  const taken = takeOne(begun(), 'step1', 'A', 'base', at);
  // pointed at a hole whose screw was logged: refused in words, nothing changes
  const refused = markMissing(taken, 'step1', 'A', 'base', at);
  expect(refused.log).toBe(taken);
  expect(refused.refused).toMatch(/logged in this hole/);
  // one that was only seen so far was there all the same
  const seen = { ...taken, screws: taken.screws.map((s) => ({ ...s, out: false })) };
  expect(markMissing(seen, 'step1', 'A', 'base', at).log).toBe(seen);
  // beside all holes: an empty one there
  const there = markMissing(taken, 'step1', 'A', 'base', { xMm: 100, yMm: 5 });
  expect(there.refused).toBeNull();
  expect(there.log.screws).toMatchObject([
    { onArrival: 'there', out: true },
    { onArrival: 'missing', out: false, xMm: 100, group: taken.screws[0]!.group },
  ]);
  expect(screwBalance(there.log).groups[0]).toMatchObject({ taken: 1, missingOnArrival: ['s2'] });
  // pointed at once more it is to be looked at again
  const again = markMissing(there.log, 'step1', 'A', 'base', { xMm: 100, yMm: 5 });
  expect(again.log.screws[1]).toMatchObject({ onArrival: 'not-looked', out: false });
  // nobody pointed and nothing is expected: one more of the group, only counted
  const counted = markMissing(taken, 'step1', 'A', 'base', null);
  expect(counted.log.screws).toMatchObject([{ out: true }, { onArrival: 'missing', out: false }]);
  expect(counted.log.screws[1]!.xMm).toBeUndefined();
  // from a sibling's log the next expected one is meant
  const expected = markMissing(templateFrom(opened(), 'sibling'), 'step1', 'A', 'base', null);
  expect(expected.log.screws).toHaveLength(6);
  expect(expected.log.screws[0]).toMatchObject({ onArrival: 'missing', out: false });
});

test('hidden screws, names of connectors and ends of leads are told of what came last', () => {
  let log = takeOne(begun(), 'step1', 'A', 'base', { xMm: 5, yMm: 5 });
  log = takeOne(log, 'step1', 'A', 'base', { xMm: 50, yMm: 5 });
  log = markHidden(log, 'step1', 'foot');
  expect(log.screws.map((s) => s.hiddenUnder)).toEqual([undefined, 'foot']);
  log = markHidden(log, 'step1', 'captive', log.screws[0]);
  expect(log.screws[0]).toMatchObject({ captive: true });
  expect(markHidden(begun(), 'step1', 'foot')).toEqual(begun());
  expect(tellConnector(log, 'step1', { name: 'fan' })).toBe(log);
  log = unplugOne(log, 'step1', 'press-on', 'base');
  log = unplugOne(log, 'step1', 'press-on', 'base');
  log = tellConnector(log, 'step1', { name: 'aerial 2' });
  log = tellConnector(log, 'step1', { lead: 'black to 1' });
  expect(log.connectors).toMatchObject([{}, { name: 'aerial 2', lead: 'black to 1' }]);
  expect(log.connectors[0]).not.toHaveProperty('lead');
  expect(lastUnplugged(log, 'step1')!.id).toBe(log.connectors[1]!.id);
});

test('another group, or one too many, is said on the way back', () => {
  let log = endStep(opened(), 'step1', 'done', T0);
  const step = () => backTogether(log)[0]!;
  expect(wrongBack(log, step(), 'A')).toBeNull();
  expect(wrongBack(log, step(), 'C')).toBe('There is no group C. 4 A and 2 B still wait here.');
  for (let k = 0; k < 2; k++) log = putBackOne(log, step(), 'B');
  expect(wrongBack(log, step(), 'B')).toBe(
    'One B too many: all 2 of this step are back. 4 A still wait here.',
  );
  for (let k = 0; k < 3; k++) log = putBackOne(log, step(), 'A');
  expect(wrongBack(log, step(), 'B')).toContain('1 A still waits here.');
  log = putBackOne(log, step(), 'A');
  expect(wrongBack(log, step(), 'A')).toBe('One A too many: all 4 of this step are back.');
});

test('with a sibling’s log the same keys take out what it expects, and a further screw is a new hole', () => {
  const sibling = addNote(
    stamp(startClock(opened(), 'step1', T0), 'step1', 'lid', T0),
    'step1',
    'x',
  );
  const timed = pauseClocks(sibling, T0 + 90_000);
  let log = templateFrom(timed, 'Heron, 8-core');
  expect(openUpLog.safeParse(log).success).toBe(true);
  expect(log.steps[0]).toMatchObject({ state: 'planned', expectedSeconds: 90, stamps: [] });
  expect(log.steps[0]!.seconds).toBeUndefined();
  expect(log.steps[0]!.note).toBeUndefined();
  expect(log.screws.every((s) => s.onArrival === 'not-looked' && !s.out)).toBe(true);
  expect(screwBalance(log).even).toBe(true);
  for (let k = 0; k < 4; k++) log = takeOne(log, 'step1', 'A', 'base', null);
  expect(log.screws.filter((s) => s.out && s.onArrival === 'there')).toHaveLength(4);
  expect(log.screws).toHaveLength(6);
  log = takeOne(log, 'step1', 'A', 'base', { xMm: 170, yMm: 10 });
  expect(log.screws).toHaveLength(7);
  log = unplugOne(log, 'step1', 'flip-latch', 'base');
  expect(log.connectors).toHaveLength(1);
  // a template of a template keeps the time that somebody once took
  expect(templateFrom(log, 'x').steps[0]!.expectedSeconds).toBe(90);
});

test('pointed at, that hole is meant and not the next expected one; beside all holes it is one more', () => {
  let log = templateFrom(opened(), 'sibling');
  log = takeOne(log, 'step1', 'A', 'base', { xMm: 326, yMm: 232 });
  expect(log.screws.filter((s) => s.out).map((s) => [s.xMm, s.yMm])).toEqual([[330, 230]]);
  log = takeOne(log, 'step1', 'A', 'base', { xMm: 170, yMm: 10 });
  expect(log.screws).toHaveLength(7);
  // the hole of another group is no hole of this one
  log = takeOne(log, 'step1', 'B', 'base', { xMm: 10, yMm: 10 });
  expect(log.screws).toHaveLength(8);
  // pointed at, a hole is said to have been empty, whatever was logged last
  const empty = markMissing(log, 'step1', 'A', 'base', { xMm: 330, yMm: 10 }).log;
  expect(empty.screws[1]).toMatchObject({ onArrival: 'missing', out: false });
  expect(empty.screws.filter((s) => s.onArrival === 'missing')).toHaveLength(1);
});

test('of two holes close together the nearer one is meant; on another layer none', () => {
  let log = begun();
  for (const xMm of [10, 18]) log = takeOne(log, 'step1', 'A', 'base', { xMm, yMm: 10 });
  expect(holeAt(log, 'base', { xMm: 15, yMm: 10 })?.xMm).toBe(18);
  expect(holeAt(log, 'base', { xMm: 13, yMm: 10 })?.xMm).toBe(10);
  expect(holeAt(log, 'base', { xMm: 30, yMm: 10 })).toBeUndefined();
  expect(holeAt(log, 'sink', { xMm: 10, yMm: 10 })).toBeUndefined();
});

test('clocks: one runs at a time, pauses add up, a clock set back counts nothing', () => {
  let log = addStep(begun(), 'Battery plug out', undefined, { state: 'planned' });
  log = startClock(log, 'step1', T0);
  log = pauseClocks(log, T0 + 10_000);
  log = startClock(log, 'step1', T0 + 60_000);
  log = startClock(log, 'step2', T0 + 65_000);
  expect(log.steps.map((s) => [s.seconds, s.runningSince !== undefined])).toEqual([
    [15, false],
    [undefined, true],
  ]);
  expect(secondsOf(log.steps[1]!, T0 + 70_000)).toBe(5);
  expect(secondsOf(log.steps[1]!, T0)).toBe(0);
  log = endStep(log, 'step2', 'went-wrong', T0 + 75_000);
  expect(log.steps[1]).toMatchObject({ seconds: 10, state: 'went-wrong' });
  expect(pauseClocks(log, T0 + 99_000)).toBe(log);
  const night = startClock(log, 'step1', T0);
  expect(openUpLog.safeParse(pauseClocks(night, T0 + 1e12)).success).toBe(true);
});

test('notes add lines and stamps times within bounds; parts and strips stand in their lists', () => {
  let log = addNote(addNote(begun(), 'step1', ' hook bent '), 'step1', 'glue');
  expect(log.steps[0]!.note).toBe('hook bent\nglue');
  expect(addNote(log, 'step1', '   ')).toBe(log);
  for (let k = 0; k < 60; k++) log = stamp(log, 'step1', 'x', T0 + k);
  expect(log.steps[0]!.stamps).toHaveLength(50);
  expect(addNote(log, 'step1', 'y'.repeat(5000)).steps[0]!.note).toHaveLength(2000);
  log = takePart(takePart(log, 'step1', 'fan', 'base'), 'step1', 'fan', 'base');
  expect(log.parts.map((p) => p.name)).toEqual(['fan', 'fan 2']);
  // a strip of unknown purpose is written down and stays where it is
  log = liftStrip(liftStrip(log, 'step1', 'unknown', 'base'), 'step1', 'duct-seal', 'base');
  expect(log.strips.map((s) => s.off)).toEqual([false, true]);
  expect(log.steps[0]).toMatchObject({ parts: ['part1', 'part2'], strips: ['strip1', 'strip2'] });
  expect(openUpLog.safeParse(log).success).toBe(true);
});

test('a caution that was read is not asked for again', () => {
  const once = acknowledge(begun(), ['battery', 'static']);
  expect(acknowledge(once, ['static'])).toBe(once);
  expect(acknowledge(once, ['edges']).acknowledged).toEqual(['battery', 'static', 'edges']);
});

test('back by keys: crosswise, a connector with its latch, and the one screw that is short is named', () => {
  let log = opened();
  const step = backTogether(log)[0]!;
  expect(step.screws.map((s) => s.holes.length)).toEqual([2, 4]);
  expect(step.tightening!.order).toHaveLength(4);
  log = putBackOne(log, step, 'A');
  log = putBackOne(log, step, 'A');
  // the second lies across from the first
  const filled = log.screws.filter((s) => s.back === 'own');
  expect(filled).toHaveLength(2);
  expect(filled[0]!.xMm).not.toBe(filled[1]!.xMm);
  expect(filled[0]!.yMm).not.toBe(filled[1]!.yMm);
  log = putBackOne(putBackOne(log, step, 'A'), step, 'B');
  expect(putBackOne(log, step, 'Z')).toBe(log);
  log = plugOne(log, step);
  expect(log.connectors[0]).toMatchObject({ on: true, latchClosed: true });
  expect(plugOne(log, step)).toBe(log);
  const open = openAt(log, step);
  expect(open.holes).toHaveLength(2);
  expect(open.connectors).toEqual([]);
  log = endBack(putBackOne(log, step, 'B'), step);
  expect(log.steps[0]!.back).toBe(true);
  const a = screwBalance(log).groups.find((g) => g.taken === 4)!;
  expect(a).toMatchObject({ back: 3, leftOver: openAt(log, step).holes });
  const check = backTogether(log).find((b) => b.check === 'clock')!;
  expect(endBack(endBack(log, check), check).checked).toEqual(['clock']);
});

test('a screw put into another hole: the way back and the balance follow', () => {
  let log = opened();
  const step = backTogether(log)[0]!;
  log = putElsewhere(log, 's1', 's5');
  expect(log.screws[0]!.back).toBe('s5');
  expect(openAt(log, step).holes).not.toContain('s5');
  const b = screwBalance(log).groups.find((g) => g.taken === 2)!;
  expect(b.swapped).toEqual([{ hole: 's5', from: 's1' }]);
  // the hole now counts with the group of what is in it
  const again = backTogether(log)[0]!;
  expect(again.changed).toContain('s5');
  expect(putElsewhere(log, 's2', 'nowhere')).toBe(log);
  expect(putElsewhere(log, 's2', 's2').screws[1]!.back).toBe('own');
});

test('whatever keys are pressed, the log stays one that is kept, and no screw is counted twice or lost', () => {
  const press = fc.oneof(
    fc
      .constantFrom('A', 'B', 'C')
      .map((l) => (x: OpenUpLog) => takeOne(x, 'step1', l, 'base', null)),
    fc
      .tuple(
        fc.constantFrom('A', 'B'),
        fc.integer({ min: 0, max: 340 }),
        fc.integer({ min: 0, max: 240 }),
      )
      .map(
        ([l, xMm, yMm]) =>
          (x: OpenUpLog) =>
            takeOne(x, 'step1', l, 'base', { xMm, yMm }),
      ),
    fc.constant((x: OpenUpLog) => markMissing(x, 'step1', 'A', 'base', null).log),
    fc.constant((x: OpenUpLog) => unplugOne(x, 'step1', 'press-on', 'base')),
    fc.constantFrom('A', 'B', 'C').map((l) => (x: OpenUpLog) => {
      const step = backTogether(x).find((b) => b.undoes === 'step1');
      return step ? putBackOne(x, step, l) : x;
    }),
  );
  fc.assert(
    fc.property(fc.array(press, { maxLength: 40 }), (keys) => {
      const log = keys.reduce((x, key) => key(x), endStep(begun(), 'step1', 'done', T0));
      expect(openUpLog.safeParse(log).success).toBe(true);
      const { groups, twice } = screwBalance(log);
      expect(twice).toEqual([]);
      const all = groups.reduce(
        (n, g) => n + g.back + g.leftOver.length + g.missingOnArrival.length,
        0,
      );
      expect(all).toBe(log.screws.length);
    }),
    { numRuns: 200, seed: 9 },
  );
});
