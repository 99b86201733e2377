import { openCase } from '../case/openCase';
import type { Log } from '../logs/readLog';
import { logOfCsv } from '../test-support/logOfCsv';
import { analyseLog } from '../runs/analyseLog';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { simulatedLogs } from './simulatedLogs';

const open = openCase({ record: completeRecord(exampleRecord('two-fan-shared-pipes')) });
const made = simulatedLogs(open, { seed: 3, loadS: 600, skewS: 1.5, silent: 0.02 });
const load = logOfCsv(made.load);
const level = logOfCsv(made.level);
const values = (log: Log, is: string) => log.columns.find((c) => c.is === is)!.values;

test('the logs are such as the program reads by itself', () => {
  expect(load.problems).toEqual([]);
  expect(load.columns.map((c) => c.is)).toEqual([
    'cpuPowerW',
    'gpuPowerW',
    'cpuC',
    'gpuC',
    'fanRpm.fan-left',
    'fanRpm.fan-right',
  ]);
  expect(level.columns.map((c) => c.is)).toEqual(['levelDbA']);
  expect(level.clockS! - load.clockS!).toBeCloseTo(1.5, 3);
  const cells = load.columns.flatMap((c) => [...c.values]);
  const silent = cells.filter((x) => Number.isNaN(x)).length / cells.length;
  expect(silent).toBeGreaterThan(0.015);
  expect(silent).toBeLessThan(0.025);
});

test('the same seed gives the same logs, another one others', () => {
  expect(simulatedLogs(open, { seed: 3, loadS: 600, skewS: 1.5, silent: 0.02 }).load).toBe(
    made.load,
  );
  expect(simulatedLogs(open, { seed: 4, loadS: 600 }).load).not.toBe(made.load);
});

test('readings are what was so, with the stated errors', () => {
  const cpu = values(load, 'cpuPowerW');
  const off = [...cpu].map((x, k) => x - made.truth.cpuW[k]!).filter((x) => Number.isFinite(x));
  const sd = Math.sqrt(off.reduce((s, x) => s + x * x, 0) / off.length);
  expect(sd).toBeGreaterThan(0.5);
  expect(sd).toBeLessThan(0.7);
  const warm = values(load, 'cpuC');
  expect([...warm].filter((x) => Number.isFinite(x)).every(Number.isInteger)).toBe(true);
});

// common practice, no source: the sustained limit cuts in after about 28 s
test('idle, load and cooling down are found; the short-term limit ends about when the firmware ended it', () => {
  const { segments, events } = analyseLog(load);
  const kinds = segments.map((s) => s.kind);
  expect(kinds[0]).toBe('idle');
  expect(kinds[kinds.length - 1]).toBe('cool-down');
  const ended = made.truth.events.find((e) => e.kind === 'short-limit-ends')!.atS;
  const told = events.find((e) => e.kind === 'short-limit-ends' && e.part === 'cpu')!.atS;
  expect(Math.abs(told - ended)).toBeLessThan(3);
});

test('with the machine silent the meter reads the room', () => {
  const quiet = simulatedLogs(open, { seed: 1, cap: 'off', loadS: 60, backgroundDbA: 21 });
  const heard = [...values(logOfCsv(quiet.level), 'levelDbA')];
  expect(heard.reduce((a, b) => a + b, 0) / heard.length).toBeCloseTo(21, 0);
});
