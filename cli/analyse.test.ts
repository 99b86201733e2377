import { mkdtempSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { exampleRecord } from '@zugluft/core/test-support/exampleRecord';
import { csvOf, generatedLog } from '@zugluft/core/test-support/generatedLog';
import { wavBytes } from '@zugluft/core/sound/wavBytes';
import { run } from './analyse';

let folder = '';
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'analyse-'));
});
afterAll(() => rmSync(folder, { recursive: true }));

const file = (name: string, content: string | Uint8Array): string => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};

interface Answer {
  error?: { path: string; message: string };
  log: {
    rows: number;
    stepS: number;
    channels: { is: string }[];
    problems: object[];
    logs?: object[];
  } | null;
  segments: { kind: string; fromS: number }[];
  events: { kind: string }[];
  settled: boolean;
  whyNot: string | null;
  steady: Record<string, { mean: number; plusMinus: number; upperBound?: boolean } & number>[];
  sound: {
    leqDbA: number;
    upperBound: boolean;
    thirdOctavesDb: { hz: number; db: number }[];
    tones: { hz: number; prominent: boolean }[];
  } | null;
  against: {
    cap: number | string;
    measuredW: number;
    p05: number;
    p50: number;
    p95: number;
    inBand: boolean;
  } | null;
}
const analyse = async (...argv: string[]) => {
  const { stdout, code, stderr } = await run(argv);
  return { answer: JSON.parse(stdout) as Answer, code, stderr };
};
const errorOf = async (...argv: string[]) => {
  const { answer, code } = await analyse(...argv);
  expect(code).toBe(2);
  expect(Object.keys(answer)).toEqual(['error']);
  return answer.error!;
};

const LEVELS = [
  { forS: 30, cpuW: 6, gpuW: 4 },
  { forS: 28, cpuW: 94, gpuW: 60 },
  { forS: 700, cpuW: 45, gpuW: 60 },
];
const generated = generatedLog(LEVELS, { levelDbA: () => 41.2 });
const csv = csvOf(generated);

test('one log: what was done, what was sustained, how loud', async () => {
  const { answer, code } = await analyse(file('run.csv', csv));
  expect(code).toBe(0);
  expect(answer).toMatchObject({
    format: 'zugluft-analysis',
    formatVersion: 1,
    settled: true,
    whyNot: null,
    against: null,
  });
  expect(answer.log).toMatchObject({ rows: 1516, stepS: 0.5, gaps: [], problems: [] });
  expect(answer.segments.map((s) => [s.kind, s.fromS])).toEqual([
    ['idle', 0],
    ['short', 30],
    ['sustained', 58],
  ]);
  expect(answer.steady[0]!['cpuPowerW']!.mean).toBeCloseTo(45, 0);
  expect(answer.steady[0]!['cpuPowerW']!.plusMinus).toBeCloseTo(0.45, 1);
  expect(answer.sound!.leqDbA).toBeCloseTo(41.2, 1);
});

test('held against a record at its own level and ratio', async () => {
  const record = file('record.json', JSON.stringify(exampleRecord('two-fan-shared-pipes')));
  const { answer } = await analyse(file('run.csv', csv), '--record', record, '--background', '19');
  const { against } = answer;
  expect(against!.cap).toBeCloseTo(41.2, 1);
  expect(against!.measuredW).toBeCloseTo(105, 0);
  expect(against!.p05).toBeLessThan(against!.p50);
  expect(against!.inBand).toBe(
    against!.measuredW >= against!.p05 && against!.measuredW <= against!.p95,
  );
  // the record's limits tell what held it: its setting lets the CPU take more
  expect(answer.events.map((e) => e.kind)).toContain('short-limit-ends');
});

test('a window that is told rules', async () => {
  const { answer } = await analyse(file('run.csv', csv), '--from', '400', '--to', '500');
  expect(answer.steady).toHaveLength(1);
  expect(answer.steady[0]).toMatchObject({ fromS: 400, toS: 500, settledShare: 1 });
});

test('a map says what a log does not', async () => {
  const odd = csv
    .replace('Time [s]', 'when')
    .replace('CPU Package Power [W]', 'a')
    .split('\n')
    .map((l) =>
      l
        .split(',')
        .map((c) => c.replace('.', ','))
        .join(';'),
    )
    .join('\n');
  const path = file('odd.csv', odd);
  const map = file(
    'map.json',
    JSON.stringify({
      separator: ';',
      decimal: ',',
      time: { column: 'when', format: 'seconds' },
      channels: [{ column: 'a', is: 'cpuPowerW', unit: 'W' }],
    }),
  );
  expect((await errorOf(path)).message).toContain('no column is named as one of times');
  const { answer } = await analyse(path, '--map', map);
  expect(answer.segments.map((s) => s.kind)).toEqual(['idle', 'short', 'sustained']);
});

describe('several logs', () => {
  const clock = (s: number) => new Date(Date.UTC(2026, 10, 26, 9, 30) + 1000 * s).toISOString();
  const stamped = csv.replace(/^(\d[\d.]*)/gm, (t) => clock(Number(t))).replace('Time [s]', 'Time');
  const powers = stamped
    .split('\n')
    .map((l) => l.split(',').slice(0, 5).join(','))
    .join('\n');
  const level = (from: number) =>
    `Time,LAeq [dB(A)]\n${Array.from({ length: 700 }, (_, i) => `${clock(from + i)},40.0`).join('\n')}\n`;

  test('are aligned by their clocks', async () => {
    const { answer } = await analyse(file('p.csv', powers), file('l.csv', level(1.5)));
    expect(answer.log!.logs).toEqual([
      { id: 'log-1', offsetS: 0, by: 'first' },
      { id: 'log-2', offsetS: 1.5, by: 'clock' },
    ]);
    expect(answer.steady[0]!['levelDbA']!.mean).toBeCloseTo(40, 3);
  });

  test('without clocks by when the load begins in both', async () => {
    const other = csvOf(
      generatedLog([{ forS: 50, cpuW: 6, gpuW: 4 }, ...LEVELS.slice(1)], { seed: 4 }),
    );
    const temperatures = other
      .split('\n')
      .map((l) =>
        l
          .split(',')
          .filter((_, k) => k === 0 || k === 3)
          .join(','),
      )
      .join('\n');
    const { answer } = await analyse(file('p.csv', csv), file('t.csv', temperatures));
    const second = answer.log!.logs![1] as { offsetS: number; by: string };
    expect(second.by).toBe('load-start');
    // power leads temperature by a part of its lag
    expect(Math.abs(second.offsetS + 20)).toBeLessThan(10);
  });

  test('with no moment in common are refused', async () => {
    expect(await errorOf(file('p.csv', powers), file('l.csv', level(90_000)))).toEqual({
      path: 'log-2:row 1:column 1',
      message: expect.stringContaining('no moment in common with the first log') as string,
    });
  });
});

describe('a recording', () => {
  const tone = Float64Array.from(
    { length: 96_000 },
    (_, i) => 0.1 * Math.sin((2 * Math.PI * 1000 * i) / 48_000),
  );
  const silent = new Float64Array(96_000);

  test('without a log: level, third octaves, tones', async () => {
    const path = file('tone.wav', wavBytes([tone, silent], { bits: 24 }));
    const { answer, code } = await analyse('--wav', path, '--wav-offset', '100');
    expect(code).toBe(0);
    expect(answer.log).toBeNull();
    expect(answer.sound!.leqDbA).toBeCloseTo(80, 1);
    expect(answer.sound!.thirdOctavesDb.find((b) => b.hz === 1000)!.db).toBeCloseTo(80, 1);
    expect(answer.sound!.tones[0]).toMatchObject({ prominent: true });
    const second = await analyse('--wav', path, '--wav-offset', '100', '--wav-channel', '2');
    expect(second.answer.sound!.leqDbA).toBeLessThan(-100);
    expect(await errorOf('--wav', path, '--wav-channel', '3')).toEqual({
      path: '--wav-channel',
      message: 'the file has 2 channels',
    });
  });

  test('beside a log without levels gives the level it is held against', async () => {
    const quiet = csv
      .split('\n')
      .map((l) => l.split(',').slice(0, 5).join(','))
      .join('\n');
    const record = file('record.json', JSON.stringify(exampleRecord('two-fan-shared-pipes')));
    const wav = file('tone.wav', wavBytes([tone]));
    const { answer } = await analyse(
      file('q.csv', quiet),
      '--wav',
      wav,
      '--wav-offset',
      '60',
      '--record',
      record,
    );
    expect(answer.against!.cap).toBeCloseTo(40, 1);
  });

  test('whose header lies is refused', async () => {
    const bytes = wavBytes([tone]);
    expect(await errorOf('--wav', file('cut.wav', bytes.subarray(0, 1000)))).toMatchObject({
      path: '--wav',
    });
  });
});

test.each<[string, string, { path: string; message: string }]>([
  [
    'a date of two readings',
    'Time,CPU power [W]\n01/02/2026 10:00:00,45\n01/02/2026 10:00:01,46\n',
    { path: 'log-1:row 2:column 1', message: '“01/02/2026” may be day-month or month-day' },
  ],
  [
    'mixed decimals',
    'Time [s];CPU power [W]\n0;45.5\n1;45,5\n',
    { path: 'log-1:row 3:column 2', message: '“45,5” stands in one column with “45.5”' },
  ],
  [
    'falling times',
    'Time [s],CPU power [W]\n0,45\n5,46\n3,47\n',
    { path: 'log-1:row 4:column 1', message: 'its time lies before the one above it' },
  ],
  ['an empty file', '', { path: 'log-1:row 1:column 1', message: 'the file is empty' }],
])('%s: exit 2 and where', async (_, text, error) => {
  expect(await errorOf(file('bad.csv', text))).toEqual(error);
});

describe('words of the command', () => {
  test.each<[string[], string]>([
    [[], ''],
    [['--nonsense'], ''],
    [['nowhere.csv'], 'log-1'],
    [['x.csv', '--background', 'loud'], '--background'],
    [['x.csv', '--from', '9', '--to', '3'], '--to'],
    [['x.csv', '--wav-channel', '1.5', '--wav', 'y'], '--wav-channel'],
    [['x.csv', '--map', 'nowhere.json'], '--map'],
  ])('%j is refused at %p', async (argv, path) => {
    expect((await errorOf(...argv)).path).toBe(path);
  });

  test('a map with a channel that is none', async () => {
    const map = file('bad.json', JSON.stringify({ channels: [{ column: 'a', is: 'watts' }] }));
    expect((await errorOf(file('run.csv', csv), '--map', map)).path).toBe('--map.channels.0.is');
  });

  test('a file of ten gigabytes is refused before it is read', async () => {
    const path = file('huge.csv', 'Time [s],CPU power [W]\n');
    // a hole, which takes no room
    truncateSync(path, 10_000_000_000);
    const error = await errorOf(path);
    truncateSync(path, 0);
    expect(error).toEqual({ path: 'log-1', message: expect.stringContaining('10.0 GB') as string });
  });

  test('a record that is none is told as the record', async () => {
    const none = file('none.json', '{}');
    expect((await errorOf(file('run.csv', csv), '--record', none)).path).toMatch(/^--record/);
  });

  test('a window beyond the log', async () => {
    expect((await errorOf(file('run.csv', csv), '--from', '99999')).path).toBe('--from');
  });
});
