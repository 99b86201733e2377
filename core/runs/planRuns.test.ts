import { calibrate } from '../calibration/calibrate';
import { openCase } from '../case/openCase';
import { sustainedBands } from '../uncertainty/sustainedBands';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { planRuns } from './planRuns';

const record = completeRecord(exampleRecord('two-fan-shared-pipes'));
const plan = planRuns({ record });

test('loads of one die, both and none, the one that narrows the band most first', () => {
  expect(new Set(plan.map((r) => r.on))).toEqual(new Set(['both', 'cpu', 'gpu', 'none']));
  for (let k = 1; k < plan.length; k++) {
    expect(plan[k]!.thenW).toBeGreaterThanOrEqual(plan[k - 1]!.thenW);
  }
  expect(plan[0]!.on).toBe('both');
  for (const r of plan) {
    expect(r.thenW).toBeLessThanOrEqual(r.nowW);
    expect(r.besideFirstW).toBeLessThanOrEqual(plan[0]!.thenW * 1.1);
  }
  // idling tells least of what a machine carries
  expect(plan.find((r) => r.on === 'none')!.thenW).toBeGreaterThan(2 * plan[0]!.thenW);
});

test('half the band is that which is shown everywhere', () => {
  const [band] = sustainedBands(openCase({ record }), { caps: [36], draws: 400, seed: 1 });
  for (const r of plan) expect(r.nowW).toBeCloseTo(0.5 * (band!.p95 - band!.p05), 9);
});

// common practice, no source: a notebook settles within a quarter to half an hour
test('a run lasts until the machine has settled, and five minutes more', () => {
  for (const r of plan) {
    expect(r.lastsS).toBe(r.settleS + 300);
    expect(r.settleS).toBeGreaterThan(60);
    expect(r.settleS).toBeLessThan(2400);
  }
});

test('after a run at full speed another one like it tells little more', () => {
  const loud = plan.find((r) => r.on === 'both' && r.cap === 'full')!;
  const { calibration } = calibrate(
    { record },
    [
      {
        id: 'made',
        ambientC: 23,
        rpm: { 'fan-left': 5000, 'fan-right': 5000 },
        cpuW: loud.cpuW,
        gpuW: loud.gpuW,
        junctionC: { cpu: 90, gpu: 82 },
        levelDbA: 45,
      },
    ],
    [],
    [36],
  );
  const next = planRuns({ record, calibration });
  const again = next.find((r) => r.on === 'both' && r.cap === 'full')!;
  expect(next[0]!.nowW).toBeLessThan(0.7 * loud.nowW);
  expect(again.nowW - again.thenW).toBeLessThan(0.5 * (loud.nowW - loud.thenW));
});

test('a machine with one die has no load of the other', () => {
  const single = planRuns({ record: completeRecord(exampleRecord('one-die')) });
  expect(new Set(single.map((r) => r.on))).toEqual(new Set(['cpu', 'none']));
});
