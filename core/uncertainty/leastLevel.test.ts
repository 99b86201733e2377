import { openCase } from '../case/openCase';
import { exampleRecord, twoLoopRecord } from '../test-support/exampleRecord';
import { closedVentRecord, fansApart, lateFanRecord } from '../test-support/fansApartRecords';
import { estimateWithDraws } from './estimateWithDraws';
import { leastLevel } from './leastLevel';

const two = openCase({ record: exampleRecord('two-fan-shared-pipes') });
const one = openCase({ record: exampleRecord('one-die') });

test.each([
  ['p05', 'p95'],
  ['p50', 'p50'],
  ['p95', 'p05'],
] as const)(
  'the other way round: a level is the %s of what sustains the %s of the watts at that level',
  (ofLevel, ofWatts) => {
    // carry never falls with the level, so that the quantiles of one are those of the other
    const caps = [30, 34, 38] as const;
    const { estimate } = estimateWithDraws(two, { draws: 400, seed: 2, caps, envelopes: false });
    for (const c of estimate.caps) {
      const watts = c.together[ofWatts]!;
      const share = c.together.cpuWatts / (c.together.cpuWatts + c.together.gpuWatts);
      const need = { cpuW: watts * share, gpuW: watts * (1 - share) };
      const found = leastLevel(two, need, { draws: 400, seed: 2 });
      expect(Math.abs(found[ofLevel] - (c.cap as number))).toBeLessThan(0.2);
    }
  },
);

test('fans controlled apart: a level is what the best split of just that level sustains', () => {
  const record = fansApart(twoLoopRecord());
  const open = openCase({ record });
  const { estimate } = estimateWithDraws(open, {
    draws: 120,
    seed: 2,
    caps: [34],
    envelopes: false,
  });
  const [at] = estimate.caps;
  // the fan of the busy die takes the noise
  const need = { cpuW: at!.cpuAlone!.p50!, gpuW: 0 };
  const found = leastLevel(open, need, { draws: 120, seed: 2 });
  expect(Math.abs(found.p50 - 34)).toBeLessThan(0.2);
  const together = structuredClone(record);
  for (const fan of together.fans!) fan.control = 'shared';
  const loud = leastLevel(openCase({ record: together }), need, { draws: 120, seed: 2 });
  expect(loud.p50).toBeGreaterThan(34.8);
});

test('fans controlled apart: a fan that blows through nearly closed vents is stopped, or starts late, whichever is quieter', () => {
  for (const record of [closedVentRecord(), lateFanRecord()]) {
    const open = openCase({ record });
    const options = { draws: 120, seed: 2 };
    const { estimate } = estimateWithDraws(open, { ...options, caps: [34], envelopes: false });
    const need = { cpuW: 0, gpuW: estimate.caps[0]!.gpuAlone!.p50! };
    expect(Math.abs(leastLevel(open, need, options).p50 - 34)).toBeLessThan(0.2);
  }
});

test('what fans off hold needs no noise, what nothing holds is reached at no level', () => {
  const little = leastLevel(two, { cpuW: 0.3, gpuW: 0.3 }, { draws: 60 });
  expect(little.p50).toBe(-Infinity);
  expect(little.withFansOff).toBeGreaterThan(0.8);
  const much = leastLevel(two, { cpuW: 150, gpuW: 150 }, { draws: 60 });
  expect([much.p50, much.reached]).toEqual([Infinity, 0]);
  const some = leastLevel(two, { cpuW: 45, gpuW: 75 }, { draws: 120 });
  expect(some.reached).toBeGreaterThan(0.1);
  expect(some.reached).toBeLessThan(0.6);
});

test('more watts never need less noise; a machine with one die takes what that one needs', () => {
  const at = (w: number) =>
    leastLevel(two, { cpuW: 0.4 * w, gpuW: 0.6 * w }, { draws: 80, seed: 3 });
  const levels = [40, 55, 70, 85].map((w) => at(w).p50);
  expect(levels).toEqual([...levels].sort((a, b) => a - b));
  const alone = leastLevel(one, { cpuW: 15, gpuW: 40 }, { draws: 80 });
  expect(alone).toEqual(leastLevel(one, { cpuW: 15, gpuW: 0 }, { draws: 80 }));
  expect(() => leastLevel(one, { cpuW: 0, gpuW: 40 }, { draws: 5 })).toThrow(/above 0/);
});
