import { calibrate } from '../calibration/calibrate';
import { openCase } from '../case/openCase';
import { estimateWithDraws } from '../uncertainty/estimateWithDraws';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import type { SteadyState } from './analyseLog';
import { foretell } from './foretell';
import { foretoldResult } from './foretoldResult';

const record = completeRecord(exampleRecord('two-fan-shared-pipes'));

test('watts are those of the machine as the setting lets it, with the band of the draws', () => {
  const told = foretell({ record }, 'both', 'full')!;
  const { estimate } = estimateWithDraws(openCase({ record }), {
    caps: ['full'],
    draws: 400,
    seed: 1,
  });
  const own = estimate.caps[0]!.configured.together;
  expect(told.watts).toEqual({ p05: own.p05, p50: own.p50, p95: own.p95 });
  expect(told.cpuW + told.gpuW).toBeCloseTo(own.p50!, 6);
  expect(told.levelDbA!.p05).toBeLessThan(told.levelDbA!.p95);
  expect(Object.keys(told.junctionC)).toEqual(['cpu', 'gpu']);
  // the die that holds the watts stands near its limit in the middle
  const hottest = Math.max(...Object.values(told.junctionC).map((j) => j.p50));
  expect(hottest).toBeGreaterThan(75);
  expect(hottest).toBeLessThan(105);
});

test('one die alone, nothing, and fans that stand', () => {
  const cpu = foretell({ record }, 'cpu', 'full')!;
  expect(cpu.gpuW).toBeLessThan(10);
  expect(cpu.cpuW).toBe(cpu.watts.p50);
  const idle = foretell({ record }, 'none', 'full')!;
  expect(idle.watts.p50).toBeLessThan(15);
  const still = foretell({ record }, 'both', 'off')!;
  expect(still.levelDbA).toBeNull();
  expect(still.watts.p95).toBeLessThan(cpu.watts.p50);
  const single = completeRecord(exampleRecord('one-die'));
  expect(foretell({ record: single }, 'gpu', 'full')).toBeNull();
});

test('on a calibration the junctions are foretold more narrowly', () => {
  const before = foretell({ record }, 'both', 40)!;
  const { calibration } = calibrate(
    { record },
    [
      {
        id: 'run',
        ambientC: 23,
        rpm: { 'fan-left': 4300, 'fan-right': 4300 },
        cpuW: before.cpuW,
        gpuW: before.gpuW,
        junctionC: { cpu: 88, gpu: 80 },
        levelDbA: 41,
        heldS: 600,
      },
    ],
    [],
    [40],
  );
  const after = foretell({ record, calibration }, 'both', 40)!;
  const wide = (x: { p05: number; p95: number }) => x.p95 - x.p05;
  expect(wide(after.watts)).toBeLessThan(0.8 * wide(before.watts));
  expect(wide(after.junctionC['cpu']!)).toBeLessThan(wide(before.junctionC['cpu']!));
});

const band = { p05: 90, p50: 100, p95: 110 };
const prediction = {
  madeAt: '2026-11-27T10:00:00Z',
  cap: 'full' as const,
  on: 'both' as const,
  watts: band,
  levelDbA: { p05: 38, p50: 40, p95: 42 },
  junctionC: { cpu: { p05: 80, p50: 85, p95: 90 } },
};
const mean = (x: number) => ({ mean: x, se: 0.1, plusMinus: 0.5, upperBound: false });
const steady = {
  means: { cpuPowerW: mean(45), gpuPowerW: mean(66), levelDbA: mean(41), cpuC: mean(91) },
} as unknown as SteadyState;
const madeS = Date.parse(prediction.madeAt) / 1000;

test('each reading is held against what was foretold of it', () => {
  const result = foretoldResult(prediction, steady, { clockS: madeS + 60, dated: true })!;
  expect(result.watts).toEqual({ measured: 111, ...band, inBand: false });
  expect(result.levelDbA!.inBand).toBe(true);
  expect(result.junctionC['cpu']).toMatchObject({ measured: 91, inBand: false });
  expect(result.logIsOlder).toBe(false);
  const alone = foretoldResult({ ...prediction, on: 'cpu' }, steady, {
    clockS: null,
    dated: false,
  });
  expect(alone!.watts.measured).toBe(45);
});

test('a log that began before it was foretold is named, where its times tell', () => {
  const older = (clockS: number | null, dated: boolean, zoneS = 0) =>
    foretoldResult(prediction, steady, { clockS, dated }, {}, zoneS)!.logIsOlder;
  expect(older(madeS - 1, true)).toBe(true);
  expect(older(madeS + 1, true)).toBe(false);
  // a clock without a date tells nothing
  expect(older(madeS - 1, false)).toBe(false);
  expect(older(null, false)).toBe(false);
  // ten past eleven in a zone an hour ahead is ten past ten there: not surely older
  expect(older(madeS + 600, true, 3600)).toBe(false);
  expect(older(madeS - 600, true, -3600)).toBe(false);
  expect(older(madeS - 600, true, 3600)).toBe(true);
});
