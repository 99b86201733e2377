import { openCase } from '../case/openCase';
import { simulatedLogs, type SimulatedRunOptions } from '../instruments/simulatedLogs';
import type { CaseRecord } from '../record/recordSchema';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { logOfCsv } from '../test-support/logOfCsv';
import { limitsOf } from './against';
import { analyseLog } from './analyseLog';
import { firmwareSeen } from './firmwareSeen';

const base = completeRecord(exampleRecord('two-fan-shared-pipes'));
type Setting = NonNullable<CaseRecord['settings']>[number];
const seen = (
  setting: Omit<Setting, 'id'>,
  options: Partial<SimulatedRunOptions> = {},
  isStress = true,
) => {
  const open = openCase({ record: { ...base, settings: [{ id: 'own', ...setting }] } as never });
  const log = logOfCsv(simulatedLogs(open, { seed: 4, loadS: 900, stepS: 1, ...options }).load);
  const limits = limitsOf(open);
  const found = firmwareSeen(log, analyseLog(log, { limits }), limits, isStress);
  return Object.fromEntries(found.map((f) => [f.path, f]));
};

test('short-term limit, its window and the sustained limits come out of a load', () => {
  const told = seen({ cpuSustainedW: 35, cpuShortW: 60, cpuShortWindowS: 28, gpuSustainedW: 40 });
  expect(Math.abs(told['cpuSustainedW']!.value - 35)).toBeLessThan(0.5);
  expect(Math.abs(told['gpuSustainedW']!.value - 40)).toBeLessThan(0.5);
  expect(Math.abs(told['cpuShortW']!.value - 60)).toBeLessThan(1);
  const window = told['cpuShortWindowS']!;
  expect(Math.abs(window.value - 28)).toBeLessThan(3 * window.plusMinus);
  expect(window.plusMinus).toBeLessThan(4);
  // another window is told as another one
  const twice = seen({ cpuSustainedW: 35, cpuShortW: 60, cpuShortWindowS: 56, gpuSustainedW: 40 });
  expect(twice['cpuShortWindowS']!.value).toBeGreaterThan(45);
});

// common practice, no source: one firmware drops the CPU after five to seven minutes of combined load
test('a later drop is told with its time and what is held after it', () => {
  const told = seen({
    cpuSustainedW: 40,
    gpuSustainedW: 40,
    later: { afterS: 390, cpuSustainedW: 28 },
  });
  expect(Math.abs(told['later.cpuSustainedW']!.value - 28)).toBeLessThan(0.5);
  // the log begins half a minute before its load
  expect(Math.abs(told['later.afterS']!.value - 360)).toBeLessThan(5);
});

test('a die at its junction limit, and a load that did not ask for more, say nothing of the firmware', () => {
  const hot = seen({ cpuSustainedW: 400, gpuSustainedW: 400 });
  expect(Object.keys(hot).filter((p) => p.endsWith('W'))).toEqual([]);
  const light = seen(
    { cpuSustainedW: 60, gpuSustainedW: 60 },
    { cpuLoadW: 30, gpuLoadW: 20 },
    false,
  );
  expect(Object.keys(light).filter((p) => p.endsWith('W'))).toEqual([]);
});

test('where fans start and are full lies within a few kelvin of what the firmware does', () => {
  const told = seen({
    cpuSustainedW: 45,
    gpuSustainedW: 60,
    fanRamp: { startC: 45, fullC: 85 },
  });
  expect(Math.abs(told['fanRamp.startC']!.value - 45)).toBeLessThan(5);
  expect(Math.abs(told['fanRamp.fullC']!.value - 85)).toBeLessThan(6);
});

describe('told of an analysis by hand', () => {
  const mean = (x: number) => ({ mean: x, sd: 0.2 });
  const segment = (kind: string, fromS: number, toS: number, cpuW: number, cpuC: number) => ({
    kind,
    fromS,
    toS,
    from: fromS,
    to: toS,
    means: { cpuPowerW: mean(cpuW), cpuC: mean(cpuC) },
  });
  const LIMITS = {
    junctionC: { cpu: 97 },
    sustainedW: {},
    skinC: null,
    adapterW: null,
    fanRpm: {},
  };
  const told = (sustainedC: number, idleW = 10) => {
    const lastsS = 28 * Math.log((60 - idleW) / (60 - 35));
    const analysis = {
      durationS: 900,
      segments: [
        segment('idle', 0, 30, idleW, 40),
        segment('short', 30, 30 + lastsS, 60, 80),
        segment('sustained', 30 + lastsS, 900, 35, sustainedC),
      ],
      events: [{ atS: 30 + lastsS, kind: 'short-limit-ends', part: 'cpu' }],
      steady: [],
    };
    const column = {
      column: 'CPU',
      is: 'cpuPowerW',
      unit: 'W',
      values: new Float64Array(900).fill(35),
    };
    const log = { timeS: Float64Array.from({ length: 900 }, (_, i) => i), columns: [column] };
    const found = firmwareSeen(log as never, analysis as never, LIMITS, true);
    return Object.fromEntries(found.map((x) => [x.path, x.value]));
  };

  test('the window follows from the average before the load', () => {
    expect(told(80)['cpuShortWindowS']).toBeCloseTo(28, 6);
    expect(told(80, 2)['cpuShortWindowS']).toBeCloseTo(28, 6);
  });

  test('a die that sits at its limit says nothing of the firmware, however flat its watts', () => {
    expect(Object.keys(told(80))).toEqual(['cpuSustainedW', 'cpuShortW', 'cpuShortWindowS']);
    expect(told(96)).toEqual({});
  });
});
