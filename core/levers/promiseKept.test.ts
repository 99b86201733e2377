import { possibleValues } from '../calibration/possibleValues';
import { predictorOf } from '../calibration/predictReadings';
import type { Reading, SteadyRun } from '../calibration/steadyRun';
import { openCase } from '../case/openCase';
import type { CaseRecord } from '../record/recordSchema';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { applyChanges } from './applyChanges';
import type { Change } from './lever';
import { promiseKept } from './promiseKept';

jest.setTimeout(240_000);
const dusty: CaseRecord = structuredClone(completeRecord(exampleRecord('two-fan-shared-pipes')));
for (const s of dusty.finStacks!) s.lintShare = 0.85;
const CLEAN: Change[] = dusty.finStacks!.map((s) => ({
  path: `finStacks.${s.id}.lintShare`,
  to: 0,
}));
const rpm = Object.fromEntries(dusty.fans!.map((f) => [f.id, 3500]));
const BEFORE: SteadyRun = { id: 'before', ambientC: 22, rpm, cpuW: 25, gpuW: 40 };
/** Another day: other watts, a warmer room, slower fans. */
const AFTER: SteadyRun = {
  id: 'after',
  ambientC: 25,
  rpm: Object.fromEntries(Object.keys(rpm).map((id) => [id, 3200])),
  cpuW: 30,
  gpuW: 36,
};
const dies = openCase({ record: dusty }).data.dies.map((d) => d.id);

/** Junctions that a machine with some hidden figures reads. */
function junctions(record: CaseRecord, run: SteadyRun, hidden: ReadonlyMap<string, number>) {
  const readings = dies.map((part): Reading => ({
    run: 0,
    kind: 'junction',
    part,
    value: 0,
    plusMinus: 1,
  }));
  const told = predictorOf(openCase({ record }), [run], readings)(hidden);
  return Object.fromEntries(dies.map((d, i) => [d, Math.round(told[i]!)]));
}
const without = (hidden: ReadonlyMap<string, number>) =>
  new Map([...hidden].filter(([p]) => !CLEAN.some((c) => c.path === p)));
const cleaned = applyChanges(dusty, CLEAN).record;

test('runs of machines with hidden figures keep the promise of what was really done, and break it where nothing was', () => {
  const sets = possibleValues(openCase({ record: dusty }), 200);
  let kept = 0;
  let broken = 0;
  let off = 0;
  const looked = sets.slice(0, 8);
  for (const hidden of looked) {
    const before = { ...BEFORE, junctionC: junctions(dusty, BEFORE, hidden) };
    const done = { ...AFTER, junctionC: junctions(cleaned, AFTER, without(hidden)) };
    const undone = { ...AFTER, junctionC: junctions(dusty, AFTER, hidden) };
    const told = promiseKept({ record: dusty }, CLEAN, before, done)!;
    if (told.verdict === 'kept') kept++;
    // what was really gained in this machine at the watts of the run after
    const own = undone.junctionC[told.die]! - done.junctionC[told.die]!;
    if (own >= told.readK.p05 && own <= told.readK.p95) off++;
    const idle = promiseKept({ record: dusty }, CLEAN, before, undone)!;
    expect(Math.abs(idle.readK.p50)).toBeLessThan(2.5);
    expect(idle.verdict).not.toBe('kept');
    if (idle.verdict === 'broken') broken++;
  }
  expect(kept).toBe(looked.length);
  expect(off).toBeGreaterThanOrEqual(looked.length - 2);
  expect(broken).toBeGreaterThan(looked.length / 2);
});

test('a promise smaller than the sensors tell is neither kept nor broken by runs that read as if nothing was done', () => {
  const little = structuredClone(dusty);
  for (const s of little.finStacks!) s.lintShare = 0.1;
  const [hidden] = possibleValues(openCase({ record: little }), 200);
  const before = { ...BEFORE, junctionC: junctions(little, BEFORE, hidden!) };
  const after = { ...AFTER, junctionC: junctions(little, AFTER, hidden!) };
  expect(promiseKept({ record: little }, CLEAN, before, after)!.verdict).toBe('unclear');
});

test('the die nearest to its limit is told, with watts and levels of both runs', () => {
  const limits = Object.fromEntries(
    openCase({ record: dusty }).data.dies.map((d) => [d.id, d.maxJunctionC]),
  );
  const warm = { [dies[0]!]: limits[dies[0]!]! - 30, [dies[1]!]: limits[dies[1]!]! - 5 };
  const told = promiseKept(
    { record: dusty },
    CLEAN,
    { ...BEFORE, junctionC: warm, levelDbA: 41 },
    { ...AFTER, junctionC: warm, levelDbA: 39.5 },
  )!;
  expect(told.die).toBe(dies[1]);
  expect(told.watts).toEqual({ before: 65, after: 66 });
  expect(told.levelDbA).toEqual({ before: 41, after: 39.5 });
});

test('without a junction read in both runs nothing can be told', () => {
  const [a, b] = dies as [string, string];
  expect(promiseKept({ record: dusty }, CLEAN, BEFORE, AFTER)).toBeNull();
  expect(
    promiseKept(
      { record: dusty },
      CLEAN,
      { ...BEFORE, junctionC: { [a]: 70 } },
      { ...AFTER, junctionC: { [b]: 70 } },
    ),
  ).toBeNull();
});
