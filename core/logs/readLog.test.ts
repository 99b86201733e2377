import type { LogMap } from './logLayout';
import { readLog, type Log, type LogFault } from './readLog';
import { timeAxis } from './timeAxis';

const rows = (text: string, by = ';') => text.split('\n').map((line) => line.split(by));
const read = (text: string, map?: LogMap, by = ';') =>
  (readLog(rows(text, by), map, by === ',') as { log: Log }).log;
const fault = (text: string, map?: LogMap) =>
  (readLog(rows(text), map) as { fault: LogFault }).fault;
const column = (log: Log, is: string) => [...log.columns.find((c) => c.is === is)!.values];

test('columns become channels in their units; what is missing is missing, never zero', () => {
  const log = read(
    'Time;CPU Power [mW];GPU temperature;Voltage [V]\n0,0;45000;61,5;1,1\n0,5;N/A;61,75;\n1,0;46000;-;1,2',
  );
  expect([...log.timeS]).toEqual([0, 0.5, 1]);
  expect([...log.lines]).toEqual([2, 3, 4]);
  expect(column(log, 'cpuPowerW')).toEqual([45, NaN, 46]);
  expect(column(log, 'gpuC')).toEqual([61.5, 61.75, NaN]);
  expect(column(log, 'other.Voltage [V]')).toEqual([1.1, NaN, 1.2]);
  expect(log.problems).toEqual([]);
});

test('lines are those of the file: words above, units below, a header again, averages below', () => {
  const log = read(
    'bench\n\nTime;CPU power;Level\ns;W;dB(A)\n0;45;40.1\nTime;CPU power;Level\ns;W;dB(A)\n1;46;40.2\nAverage;45.5;40.1',
  );
  expect([...log.lines]).toEqual([5, 8]);
  expect(column(log, 'levelDbA')).toEqual([40.1, 40.2]);
});

test('a word in place of a number is a problem at its place, the rest is kept', () => {
  const log = read('Time;CPU power [W]\n0;45\n1;error\n2;46');
  expect(log.problems).toEqual([
    { row: 3, column: 'CPU power [W]', message: '“error” is no number' },
  ]);
  expect(column(log, 'cpuPowerW')).toEqual([45, NaN, 46]);
});

test('two columns of one kind: the second stays as it is, and that is said', () => {
  const log = read('Time;CPU power [W];Processor power [W]\n0;45;44\n1;46;45');
  expect(log.columns.map((c) => c.is)).toEqual(['cpuPowerW', 'other.Processor power [W]']);
  expect(log.problems[0]!.message).toBe('another column is taken as cpuPowerW already');
});

test('what a person said stands over what was found', () => {
  const log = read('when;a;CPU power [W]\n0;45;1\n500;46;2', {
    time: { column: 'when', format: 'milliseconds' },
    channels: [{ column: 'a', is: 'cpuPowerW', unit: 'W' }],
  });
  expect([...log.timeS]).toEqual([0, 0.5]);
  expect(column(log, 'cpuPowerW')).toEqual([45, 46]);
  expect(log.columns[1]!.is).toBe('other.CPU power [W]');
});

test.each<[string, string, LogFault]>([
  [
    'mixed decimals',
    'Time;CPU power\n0;45.5\n1;45,5',
    { row: 3, column: 2, message: '“45,5” stands in one column with “45.5”' },
  ],
  [
    'a number of two readings',
    'Time;CPU clock\n0;1,234\n1;2,345',
    { row: 2, column: 2, message: '“1,234” may be a decimal or thousands' },
  ],
  [
    'times that fall',
    'Time;CPU power\n0;45\n5;46\n3;47',
    { row: 4, column: 1, message: 'its time lies before the one above it' },
  ],
  [
    'no times',
    'a;b\n1;2\n3;4',
    // it is asked which one holds them
    { row: 1, column: 1, message: 'no column is named as one of times', asks: ['a', 'b'] },
  ],
  ['no table', 'a\nb', { row: 1, column: 1, message: 'there is no header with figures below it' }],
])('%s: refused at its place', (_, text, expected) => {
  expect(fault(text)).toMatchObject(expected);
});

test('a unit that a channel cannot have is refused', () => {
  const map: LogMap = { channels: [{ column: 'a [rpm]', is: 'cpuPowerW' }] };
  expect(fault('Time;a [rpm]\n0;1\n1;2', map).message).toBe('cpuPowerW is in W, not in rpm');
});

describe('the axis of times', () => {
  const flat = (n: number, c = 60) => Float64Array.from({ length: n }, () => c);
  const axis = (seconds: number[], clock = true, temperatures = [flat(seconds.length)]) =>
    timeAxis(Float64Array.from(seconds), clock, temperatures);

  test('a clock set back goes on by one step', () => {
    expect(axis([10, 11, 12, 2, 3])).toEqual({
      timeS: Float64Array.from([0, 1, 2, 3, 4]),
      gaps: [],
      clockJumps: [{ atS: 3, byS: -11 }],
      repeated: null,
    });
  });

  test('forward by an hour while temperatures go on is a clock that was set; else a gap', () => {
    const seconds = [0, 1, 2, 3603, 3604];
    expect(axis(seconds)).toMatchObject({ gaps: [], clockJumps: [{ atS: 3, byS: 3600 }] });
    const cooled = Float64Array.from([60, 60, 60, 30, 30]);
    expect(axis(seconds, true, [cooled])).toMatchObject({
      gaps: [{ fromS: 2, toS: 3603 }],
      clockJumps: [],
    });
    // without temperatures nothing tells that no time has passed, and counted seconds cannot be set
    expect(axis(seconds, true, [])).toMatchObject({ clockJumps: [] });
    expect(axis(seconds, false)).toMatchObject({ clockJumps: [] });
  });

  test('over three steps is a gap, three are none', () => {
    expect(axis([0, 1, 2, 5, 6])).toMatchObject({ gaps: [] });
    expect(axis([0, 1, 2, 5.5, 6.5])).toMatchObject({ gaps: [{ fromS: 2, toS: 5.5 }] });
  });
});
