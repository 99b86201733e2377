import { openCase } from '../case/openCase';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { generatedLog, csvOf } from '../test-support/generatedLog';
import { logOfCsv } from '../test-support/logOfCsv';
import { simulateFirmware } from '../transient/simulateFirmware';
import { pixelSeries } from './pixelSeries';
import { simulatedSeries } from './simulatedSeries';

const log = logOfCsv(
  csvOf(
    generatedLog(
      [
        { forS: 100, cpuW: 20, gpuW: 5 },
        { forS: 1, cpuW: 90, gpuW: 5 },
        { forS: 100, cpuW: 20, gpuW: 5 },
      ],
      { noiseW: 0 },
    ),
  ),
);

test('no peak is lost, however few the pixels', () => {
  for (const pixels of [1, 3, 10, 400]) {
    const { channels } = pixelSeries(log, 0, 201, pixels);
    const { least, most } = channels['cpuPowerW']!;
    expect(Math.max(...most.map((x) => x ?? -Infinity))).toBeCloseTo(90, 6);
    expect(Math.min(...least.map((x) => x ?? Infinity))).toBeCloseTo(20, 6);
  }
});

test('a pixel without a sample is empty, and what is silent stays so', () => {
  const silent = {
    timeS: Float64Array.of(0, 1, 2, 3),
    columns: [
      { column: 'x', is: 'cpuC' as const, unit: '°C', values: Float64Array.of(50, NaN, NaN, 60) },
    ],
  };
  const { channels } = pixelSeries(silent, 0, 4, 4);
  expect(channels['cpuC']).toEqual({ least: [50, null, null, 60], most: [50, null, null, 60] });
});

test('a stretch shows what lies in it, and a sample beyond either end', () => {
  const { channels } = pixelSeries(log, 101, 201, 50);
  expect(Math.max(...channels['cpuPowerW']!.most.slice(2).map((x) => x ?? 0))).toBeCloseTo(20, 6);
});

test('a simulated load has the channels of a log', () => {
  const open = openCase({ record: completeRecord(exampleRecord('two-fan-shared-pipes')) });
  const simulation = simulateFirmware(open, { durationS: 120 });
  const series = simulatedSeries(simulation, open, 60);
  expect(Object.keys(series.channels)).toEqual([
    'cpuPowerW',
    'gpuPowerW',
    'cpuC',
    'gpuC',
    'levelDbA',
  ]);
  const most = series.channels['cpuPowerW']!.most;
  expect(most).toHaveLength(60);
  expect(Math.max(...most.map((x) => x ?? 0))).toBe(Math.max(...simulation.cpuW));
  expect(series.channels['cpuC']!.most[59]).toBeCloseTo(
    simulation.junctionC.find((j) => j.id === 'cpu')!.temperatureC[239]!,
    6,
  );
});
