import fc from 'fast-check';
import Papa from 'papaparse';
import { readLog, type Log, type LogFault } from './readLog';
import { readLogBytes } from './readLogBytes';

const bytesOf = (text: string) => new TextEncoder().encode(text);
/** The bytes in pieces of these lengths, over and over. */
function* pieces(bytes: Uint8Array, lengths: readonly number[]): Generator<Uint8Array> {
  for (let at = 0, k = 0; at < bytes.length; k++) {
    const length = lengths[k % lengths.length]!;
    yield bytes.subarray(at, at + length);
    at += length;
  }
}
const read = async (text: string | Uint8Array, lengths = [1 << 20]) => {
  const bytes = typeof text === 'string' ? bytesOf(text) : text;
  return readLogBytes(pieces(bytes, lengths));
};
const logOf = async (text: string | Uint8Array, lengths?: number[]) =>
  ((await read(text, lengths)) as { log: Log }).log;
const faultOf = async (text: string) => ((await read(text)) as { fault: LogFault }).fault;
const shown = (log: Log) => ({
  t: [...log.timeS],
  lines: [...log.lines],
  columns: log.columns.map((c) => [c.is, ...c.values]),
  problems: log.problems,
});

const HEADER = 'Time [s];CPU power [W];GPU temperature [°C];Fan speed [rpm]';
const lines = (n: number, line: (i: number) => string) =>
  `${[HEADER, ...Array.from({ length: n }, (_, i) => line(i))].join('\n')}\n`;

test('the same log whatever the pieces: a line, a figure, a letter may be cut anywhere', async () => {
  const text = lines(
    40,
    (i) => `${i}.5;${(50 + i / 7).toFixed(2)};${i % 5 ? 61.25 : 'N/A'};${4000 + i}`,
  );
  const whole = shown(await logOf(text));
  expect(whole.t).toHaveLength(40);
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.integer({ min: 1, max: 60 }), { minLength: 1, maxLength: 6 }),
      async (lengths) => {
        expect(shown(await logOf(text, lengths))).toEqual(whole);
      },
    ),
    { numRuns: 40 },
  );
});

test('cells taken apart as bytes are those that the parser of quoted text finds', async () => {
  const odd = [
    '1,5',
    '-3',
    '',
    '-',
    '7.25',
    '1 234',
    '2e3',
    'x',
    '0.1234567890123456',
    '+4',
    ' 5 ',
  ];
  const cell = fc.constantFrom(...odd, '12.5', '99');
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 20 }),
      async (rows) => {
        const text = lines(rows.length, (i) => [`${i}.0`, ...rows[i]!].join(';'));
        const { data } = Papa.parse<string[]>(text, { delimiter: ';' });
        const byRows = readLog(data);
        const byBytes = await read(text, [64]);
        if ('fault' in byRows) expect(byBytes).toEqual(byRows);
        else expect(shown((byBytes as { log: Log }).log)).toEqual(shown(byRows.log));
      },
    ),
    { numRuns: 200 },
  );
});

test('long logs: rows beyond those that are held back are read as the first', async () => {
  const text = lines(
    7000,
    (i) => `${i}.5;${50 + (i % 3)}.25;61.5;${i === 6500 ? 'stalled' : 4000}`,
  );
  const log = await logOf(text, [10_000]);
  expect(log.timeS).toHaveLength(7000);
  expect(log.timeS[6999]).toBe(6999);
  expect(log.lines[6999]).toBe(7001);
  expect(log.columns[0]!.values[6998]).toBe(52.25);
  expect(log.problems).toEqual([
    { row: 6502, column: 'Fan speed [rpm]', message: '“stalled” is no number' },
  ]);
});

test('mixed decimals far down are refused at their line', async () => {
  const text = lines(7000, (i) => `${i}.5;${i === 6500 ? '51,5' : '51.5'};61.5;4000`);
  expect(await faultOf(text)).toEqual({
    row: 6502,
    column: 2,
    message: '“51,5” stands in one column with “51.5”',
  });
});

test('figures that may be decimals or thousands follow the other columns', async () => {
  const comma = (x: string) => x.replace('.', ',');
  const text = lines(30, (i) => `${i},5;${comma((50 + i / 7).toFixed(2))};61,5;4.${100 + i}`);
  const log = await logOf(text);
  expect(log.columns[2]!.values[3]).toBe(4103);
});

describe('encodings', () => {
  const text = lines(20, (i) => `${i}.5;50.5;61.5;4000`);
  test.each<[string, () => Uint8Array]>([
    ['UTF-8 with a mark', () => bytesOf(`\ufeff${text}`)],
    ['UTF-16', () => new Uint8Array(Buffer.from(`\ufeff${text}`, 'utf16le'))],
    ['Windows-1252', () => new Uint8Array(Buffer.from(text, 'latin1'))],
    ['CRLF', () => bytesOf(text.replaceAll('\n', '\r\n'))],
    ['CR alone', () => bytesOf(text.replaceAll('\n', '\r'))],
    ['no end of the last line', () => bytesOf(text.trimEnd())],
    ['quotes', () => bytesOf(text.replaceAll('50.5', '"50.5"'))],
    ['quotes far down', () => bytesOf(text.replace(/50\.5;61\.5;4000\n$/, '"50.5";61.5;4000\n'))],
    ['tabs', () => bytesOf(text.replaceAll(';', '\t'))],
    ['bars', () => bytesOf(text.replace(/^(.*)$/gm, '|$1|').replaceAll(';', '|'))],
    ['commas', () => bytesOf(text.replaceAll(';', ','))],
  ])('%s', async (_, bytes) => {
    const log = await logOf(bytes(), [7]);
    expect(log.columns.map((c) => c.is)).toEqual(['cpuPowerW', 'gpuC', 'fanRpm.1']);
    expect(log.columns[1]!.column).toBe('GPU temperature [°C]');
    expect([...log.timeS.slice(0, 3)]).toEqual([0, 1, 2]);
    expect(log.timeS).toHaveLength(20);
    expect(log.columns.map((c) => c.values[19])).toEqual([50.5, 61.5, 4000]);
  });
});

describe('what is cut', () => {
  test('a last line is left out, one in the middle loses its last cell; both are told', async () => {
    const text = lines(10, (i) => (i === 4 ? '4.5;5' : `${i}.5;50.5;61.5;4000`));
    const log = await logOf(`${text}10.5;5`);
    expect(log.timeS).toHaveLength(10);
    expect(log.columns[0]!.values[4]).toBeNaN();
    expect(log.problems).toEqual([
      { row: 6, column: '', message: 'the line is cut: 2 of 4 cells; its last is left out' },
      { row: 12, column: '', message: 'the last line is cut and left out' },
    ]);
  });
});

test.each<[string, string, LogFault]>([
  ['an empty file', '', { row: 1, column: 1, message: 'the file is empty' }],
  [
    'words alone',
    'a\nb\n',
    { row: 1, column: 1, message: 'there is no header with figures below it' },
  ],
  [
    'a header alone',
    `${HEADER}\n`,
    { row: 1, column: 1, message: 'there is no header with figures below it' },
  ],
  [
    'bytes of something else',
    '\u0000\u0001'.repeat(500),
    { row: 1, column: 1, message: 'there is no header with figures below it' },
  ],
])('%s is refused', async (_, text, fault) => {
  expect(await faultOf(text)).toEqual(fault);
});

test('what a channel cannot read is left out and told, once for its column', async () => {
  const log = await logOf(
    lines(6, (i) => `${i}.5;${i === 2 ? 999999 : 45}.5;${i > 3 ? 5000 : 61};4000`),
  );
  expect(log.columns[0]!.values[2]).toBeNaN();
  expect(log.columns[1]!.values[4]).toBeNaN();
  expect(log.columns[1]!.values[3]).toBe(61);
  expect(log.problems.map((p) => [p.row, p.message])).toEqual([
    [4, '999999.5 W cannot be and is left out'],
    [6, '5000 °C cannot be and is left out, like 1 more below it'],
  ]);
});

test('cells that carry their unit are numbers', async () => {
  const log = await logOf(lines(5, (i) => `${i}.5;45.5 W;61 °C;4000rpm`));
  expect(log.columns.map((c) => c.values[2])).toEqual([45.5, 61, 4000]);
  const odd = await logOf(lines(5, (i) => `${i}.5;45 apples;61;4000`));
  expect(odd.problems[0]!.message).toBe('“45 apples” is no number');
});

test('a log in which no time passes is refused', async () => {
  expect(await faultOf(lines(5, () => '7.5;45.5;61;4000'))).toEqual({
    row: 3,
    column: 1,
    message: 'no time passes in this log',
  });
});

test('zero throughout and silent columns are told', async () => {
  const log = await logOf(lines(5, (i) => `${i}.5;0;-;4000`));
  expect(log.problems.map((p) => [p.column, p.message])).toEqual([
    ['CPU power [W]', 'is zero in every row: its sensor may not be read'],
    ['GPU temperature [°C]', 'holds no figure'],
  ]);
});

test('the reading can be stopped', async () => {
  const text = lines(30_000, (i) => `${i}.5;50.5;61.5;4000`);
  let told = 0;
  const read = await readLogBytes(pieces(bytesOf(text), [100_000]), {
    progress: (n) => {
      told = n;
      return n < 5000;
    },
  });
  expect((read as { fault: LogFault }).fault.message).toBe('the reading was stopped');
  expect(told).toBeGreaterThanOrEqual(5000);
});

test('a date apart from the clock, over midnight; stamps coarser than samples are spread', async () => {
  const stamp = (i: number) => {
    const s = 86_390 + Math.floor(i / 2);
    const day = s >= 86_400 ? '27.11.2026' : '26.11.2026';
    const t = s % 86_400;
    const two = (x: number) => String(Math.floor(x)).padStart(2, '0');
    return `${day};${two(t / 3600)}:${two((t / 60) % 60)}:${two(t % 60)}`;
  };
  const text = `Datum;Uhrzeit;CPU power [W]\n${Array.from({ length: 40 }, (_, i) => `${stamp(i)};${50 + i}`).join('\n')}\n`;
  const log = await logOf(text);
  expect(log.timeS[39]).toBe(19.5);
  expect([...log.timeS.slice(0, 4)]).toEqual([0, 0.5, 1, 1.5]);
  expect(log.clockJumps).toEqual([]);
  expect(log.dated).toBe(true);
  expect(log.problems[0]!.message).toMatch(/^20 lines have the time of the line above/);
});

test('two lines in the wrong order are refused, a clock set back is none of that', async () => {
  const clock = (s: number) =>
    `2026-11-26T10:${String(Math.floor(s / 60)).padStart(2, '0')}:${String(s % 60).padStart(2, '0')}`;
  const log = (seconds: number[]) =>
    `Time,CPU power [W]\n${seconds.map((s) => `${clock(s)},50`).join('\n')}\n`;
  expect((await faultOf(log([1, 2, 4, 3, 5, 6]))).message).toBe(
    'its time lies before the one above it',
  );
  expect((await logOf(log([101, 102, 103, 1, 2, 3]))).clockJumps).toEqual([{ atS: 3, byS: -103 }]);
});
