import { exampleRecord } from '../test-support/exampleRecord';
import type { Change } from './lever';
import { drawChanged, drawMachine, gainsBetween, type DrawnMachine } from './leverGains';
import { drawQuieter } from './quieterDraws';

const record = exampleRecord('two-fan-shared-pipes');
const OPTIONS = { caps: [34], draws: 60, seed: 3 } as const;
const room = (to: number): Change[] => [{ path: 'room.temperatureC', to }];
const rowsMade = ({ quieter }: DrawnMachine) => quieter.made.reduce((sum, x) => sum + x, 0);

test('levels far below those asked for are drawn in no row that does not need them', () => {
  const before = drawMachine({ record }, OPTIONS);
  expect(before.quieter.plan.caps.length).toBeGreaterThan(0);
  const slight = drawChanged(before, room(22.5), OPTIONS);
  gainsBetween(before, slight, 'cooling', OPTIONS);
  expect(rowsMade(slight)).toBe(0);
  expect(rowsMade(before)).toBe(0);
});

test('where rows need them they tell what they would have told, had they been drawn in all', () => {
  const asked = { ...OPTIONS, caps: [34, 24, 20] };
  const gains = (options: { caps: readonly number[]; draws: number; seed: number }) => {
    const before = drawMachine({ record }, options);
    const after = drawChanged(before, room(14), options);
    return { after, told: gainsBetween(before, after, 'cooling', options)[0]! };
  };
  const some = gains(OPTIONS);
  const all = gains(asked);
  expect(rowsMade(some.after)).toBeGreaterThan(10);
  expect(some.after.plan.caps).not.toContain(24);
  expect(all.after.plan.caps).toContain(24);
  for (const p of ['p05', 'p50', 'p95'] as const) {
    expect(Math.abs(some.told.dbSaved[p] - all.told.dbSaved[p])).toBeLessThan(0.05);
    expect(some.told.wattsGained[p]).toBeCloseTo(all.told.wattsGained[p], 1);
  }
  // far enough down that without them it would have ended at the least level
  expect(some.told.dbSaved.p95).toBeGreaterThan(6);
});

test('where fans off or full speed alone are asked for, decibels are told all the same', () => {
  for (const caps of [['full'], ['off'], ['off', 'full']] as const) {
    const options = { ...OPTIONS, caps };
    const before = drawMachine({ record }, options);
    const told = gainsBetween(before, drawChanged(before, room(14), options), 'cooling', options);
    expect(told.map((t) => t.cap)).toEqual(caps);
    for (const { cap, dbSaved, kelvinSaved } of told) {
      expect(Number.isFinite(dbSaved.p50)).toBe(true);
      if (cap === 'full') expect(dbSaved.p50).toBeGreaterThan(1);
      expect(kelvinSaved.p50).toBeGreaterThan(5);
    }
  }
});

test('a row is drawn once, whatever stretch of rows it is drawn with', () => {
  const { quieter } = drawMachine({ record }, { ...OPTIONS, draws: 20 });
  drawQuieter(quieter, (row) => row === 3 || row === 4 || row === 9);
  expect([...quieter.made].flatMap((there, row) => (there ? [row] : []))).toEqual([3, 4, 9]);
  const few = quieter.drawn.watts.slice();
  drawQuieter(quieter, () => true);
  expect(rowsMade({ quieter } as DrawnMachine)).toBe(20);
  const size = few.length / 20;
  for (const row of [3, 4, 9]) {
    const of = (from: Float64Array) => [...from.subarray(row * size, (row + 1) * size)];
    expect(of(quieter.drawn.watts)).toEqual(of(few));
  }
  const whole = drawMachine({ record }, { ...OPTIONS, draws: 20 }).quieter;
  drawQuieter(whole, () => true);
  expect(quieter.drawn.watts).toEqual(whole.drawn.watts);
});

test('a machine whose limits it can hold at any level is no quieter for a change that changes nothing', () => {
  const low = structuredClone(record);
  Object.assign(low.settings![0]!, { cpuSustainedW: 8, gpuSustainedW: 8 });
  const before = drawMachine({ record: low }, OPTIONS);
  const after = drawChanged(before, [{ path: 'shell.massKg', to: 3 }], OPTIONS);
  const { dbSaved } = gainsBetween(before, after, 'setting', OPTIONS)[0]!;
  expect([dbSaved.p05, dbSaved.p50, dbSaved.p95]).toEqual([0, 0, 0]);
  expect(rowsMade(before)).toBe(60);
  // and so where only what is held against it has been drawn before
  const again = drawMachine({ record: low }, OPTIONS);
  drawQuieter(after.quieter, () => true);
  expect(gainsBetween(again, after, 'setting', OPTIONS)[0]!.dbSaved.p95).toBe(0);
});
