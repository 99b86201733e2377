import type { Log } from '../logs/readLog';
import { logOfCsv } from '../test-support/logOfCsv';
import { csvOf, generatedLog } from '../test-support/generatedLog';
import { joinLogs, placeLogs, type LogPlace } from './alignLogs';

const LEVELS = [
  { forS: 60, cpuW: 6, gpuW: 4 },
  { forS: 300, cpuW: 60, gpuW: 40 },
  { forS: 100, cpuW: 6, gpuW: 4 },
  { forS: 200, cpuW: 40, gpuW: 60 },
];
const first = logOfCsv(csvOf(generatedLog(LEVELS)));
const later = (byS: number, seed = 5) => {
  const log = logOfCsv(
    csvOf(generatedLog([{ ...LEVELS[0]!, forS: 60 - byS }, ...LEVELS.slice(1)], { seed })),
  );
  return log;
};
const clocked = (log: Log, clockS: number, dated: boolean): Log => ({ ...log, clockS, dated });
const second = (logs: Log[]) => (placeLogs(logs) as LogPlace[])[1]!;

test('clocks with dates, and without one to the nearest day', () => {
  expect(second([clocked(first, 1e9, true), clocked(first, 1e9 + 90, true)])).toEqual({
    offsetS: 90,
    by: 'clock',
  });
  expect(second([clocked(first, 86_390, false), clocked(first, 10, false)])).toEqual({
    offsetS: 20,
    by: 'clock',
  });
  expect(
    second([clocked(first, 86_400 * 20_000 + 10, true), clocked(first, 86_390, false)]),
  ).toEqual({ offsetS: -20, by: 'clock' });
});

test('without clocks by what rises and falls in both', () => {
  for (const by of [0, 20, 45]) {
    const place = second([first, later(by)]);
    expect(place.by).toBe('correlation');
    expect(Math.abs(place.offsetS - by)).toBeLessThan(2);
  }
});

test('where nothing tells, by their beginnings', () => {
  const flat: Log = {
    ...first,
    columns: [{ column: 'x', is: 'levelDbA', unit: 'dB(A)', values: first.timeS.map(() => 40) }],
  };
  expect(second([first, flat])).toEqual({ offsetS: 0, by: 'start' });
});

test('with no moment in common they are refused', () => {
  const far = clocked(first, 1e9 + 5000, true);
  expect(placeLogs([clocked(first, 1e9, true), far])).toEqual({
    at: 1,
    message: expect.stringContaining('after its end') as string,
  });
});

test('joined: read straight between samples, missing beyond the ends and over gaps', () => {
  const axis: Log = {
    ...first,
    timeS: Float64Array.of(0, 1, 2, 3, 4, 30),
    columns: [],
    problems: [],
  };
  const other: Log = {
    ...first,
    timeS: Float64Array.of(0, 2, 4, 40),
    columns: [
      { column: 'L', is: 'levelDbA', unit: 'dB(A)', values: Float64Array.of(10, 20, 30, 40) },
    ],
    problems: [],
  };
  const joined = joinLogs(
    [axis, other],
    [
      { offsetS: 0, by: 'first' },
      { offsetS: 1, by: 'clock' },
    ],
  );
  // steps of the other are about 13 s on the mean: 36 s are no gap of five of them
  expect([...joined.columns[0]!.values]).toEqual([NaN, 10, 15, 20, 25, 30 + (10 * 25) / 36]);
  const fine = {
    ...other,
    timeS: Float64Array.of(0, 1, 2, 3, 60),
    columns: [{ ...other.columns[0]!, values: Float64Array.of(1, 2, 3, 4, 5) }],
  };
  expect(
    joinLogs(
      [axis, { ...fine, timeS: Float64Array.of(0, 1, 2, 3, 4) }],
      [
        { offsetS: 0, by: 'first' },
        { offsetS: 0, by: 'clock' },
      ],
    ).columns[0]!.values[5],
  ).toBeNaN();
});

test('of two logs that hold one channel the first is taken, and that is said', () => {
  const joined = joinLogs(
    [first, first],
    [
      { offsetS: 0, by: 'first' },
      { offsetS: 0, by: 'start' },
    ],
  );
  expect(joined.columns.filter((c) => c.is === 'cpuPowerW')).toHaveLength(1);
  expect(joined.problems[0]!.message).toBe(
    'log-2 holds cpuPowerW too: that of the log before is taken',
  );
});
