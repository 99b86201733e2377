import { logTimes, type LogTimes, type TimeFault, type TimeFormat } from './logTime';

const read = (cells: string[], told?: TimeFormat, ms?: boolean) =>
  logTimes(cells, told, ms) as LogTimes;
const fault = (cells: string[], told?: TimeFormat) => logTimes(cells, told) as TimeFault;
const steps = (t: LogTimes) => [...t.seconds].slice(1).map((x, i) => x - t.seconds[i]!);

test.each<[string, string[], TimeFormat, number[]]>([
  ['seconds', ['0', '0.5', '1.0'], 'seconds', [0.5, 0.5]],
  ['seconds by comma', ['0,0', '0,5', '2,25'], 'seconds', [0.5, 1.75]],
  ['a clock', ['0:00:59.5', '0:01:00.0', '1:00:00'], 'clock', [0.5, 3540]],
  ['a clock over midnight', ['23:59:59', '00:00:01', '00:00:02'], 'clock', [2, 1]],
  ['a clock of two halves', ['11:59:59 PM', '12:00:01 AM'], 'clock', [2]],
  ['ISO', ['2026-11-26T09:30:00', '2026-11-26T09:30:00.5'], 'iso', [0.5]],
  ['ISO of two zones', ['2026-11-26T09:30:00+01:00', '2026-11-26T08:30:02Z'], 'iso', [2]],
  ['day first by points', ['1.2.2026 10:00:00', '1.2.2026 10:00:01,5'], 'day-month', [1.5]],
  ['day first by its size', ['01/02/2026 23:59:59', '13/02/2026 00:00:00'], 'day-month', [950401]],
  ['month first by its size', ['02/13/2026 10:00:00', '02/13/2026 10:00:02'], 'month-day', [2]],
])('%s', (_, cells, format, expected) => {
  const t = read(cells);
  expect(t.format).toBe(format);
  steps(t).forEach((s, i) => expect(s).toBeCloseTo(expected[i]!, 6));
});

test('thousandths by what the column says, or it is asked', () => {
  expect(steps(read(['0', '500', '1000'], undefined, true))).toEqual([0.5, 0.5]);
  expect(steps(read(['0', '500', '1000'], undefined, false))).toEqual([500, 500]);
  expect(fault(['0', '500', '1000']).message).toBe('steps of 500 may be milliseconds or seconds');
  expect(steps(read(['0', '500'], 'milliseconds'))).toEqual([0.5]);
});

test('where two readings are possible both are named, and a word settles it', () => {
  const cells = ['01/02/2026 10:00:00', '01/02/2026 10:00:01'];
  expect(fault(cells)).toEqual({
    at: 0,
    message: '“01/02/2026” may be day-month or month-day',
    asks: true,
  });
  const asDay = read(cells, 'day-month').seconds[0]!;
  const asMonth = read(cells, 'month-day').seconds[0]!;
  expect((asDay - asMonth) / 86_400).toBe(30);
  expect(fault(['12:30', '12:31']).message).toBe(
    '“12:30” may be hours and minutes or minutes and seconds',
  );
});

test('what is missing stays missing, what is no time is named by its place', () => {
  const t = read(['0', 'N/A', '1']);
  expect([...t.seconds]).toEqual([0, NaN, 1]);
  expect(fault(['0', '1', 'Average'])).toEqual({
    at: 2,
    message: '“Average” is no time as seconds',
  });
  expect(fault(['', '-']).message).toBe('the column of times is empty');
  expect(fault(['0,5', '1.0']).message).toBe('“0,5” stands in one column with “1.0”');
});
