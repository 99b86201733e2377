import { mkdtempSync, readFileSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { run as analyse } from './analyse';
import { run } from './instruments';

const EXAMPLE = join(__dirname, '../examples/two-fan-shared-pipes.json');
const folder = () => mkdtempSync(join(tmpdir(), 'zugluft-instruments-'));
const told = async (...argv: string[]) => {
  const { stdout, code } = await run(argv);
  return { code, ...(JSON.parse(stdout) as { error?: { path: string; message: string } }) };
};

test('a load is logged into a folder, and what is written is what the program reads', async () => {
  const into = folder();
  const { stdout, code } = await run(
    [
      EXAMPLE,
      '--into',
      into,
      '--minutes',
      '25',
      '--at-once',
      '--wav',
      '--name',
      'A b',
      '--seed',
      '4',
    ],
    () => undefined,
    { now: () => Date.parse('2026-02-03T04:05:06Z') },
  );
  expect(code).toBe(0);
  expect(
    (JSON.parse(stdout) as { files: string[] }).files.map((f) => f.slice(into.length + 1)),
  ).toEqual([
    'A-b-load.csv',
    'A-b-level.csv',
    'A-b-thermocouples.csv',
    'A-b-wall.csv',
    'A-b-fan.wav',
    'A-b-calibrator-94.wav',
  ]);
  const at = (name: string) => join(into, `A-b-${name}`);
  const answer = await analyse([
    at('load.csv'),
    at('level.csv'),
    at('thermocouples.csv'),
    at('wall.csv'),
    '--record',
    EXAMPLE,
  ]);
  const said = JSON.parse(answer.stdout) as {
    log: { channels: { is: string }[] };
    steady: Record<string, { mean: number }>[];
  };
  expect(said.log.channels.map((c) => c.is)).toEqual(
    expect.arrayContaining(['levelDbA', 'wallW', 'skinC', 'roomC', 'pipeC.pipe']),
  );
  const [steady] = said.steady;
  expect(steady!['wallW']!.mean).toBeGreaterThan(steady!['cpuPowerW']!.mean);
  // the calibrator is 94 dB at its full scale of 100
  const tone = await analyse(['--wav', at('calibrator-94.wav'), '--wav-offset', '100']);
  const { sound } = JSON.parse(tone.stdout) as { sound: { leqDbA: number } };
  expect(sound.leqDbA).toBeCloseTo(94, 1);
});

test('files grow line by line as time goes by', async () => {
  const into = folder();
  const seen: number[] = [];
  await run([EXAMPLE, '--into', into, '--minutes', '1', '--speed', '60'], () => undefined, {
    sleep: async () => {
      seen.push(readFileSync(join(into, 'bench-load.csv'), 'utf8').split('\n').length - 1);
      await Promise.resolve();
    },
  });
  // half a second at sixty times is half a minute of the load
  expect(seen.slice(0, 3)).toEqual([1, 31, 61]);
  expect(readdirSync(into)).toHaveLength(4);
  const lines = readFileSync(join(into, 'bench-load.csv'), 'utf8').trim().split('\n');
  expect(lines).toHaveLength(1 + 210);
});

test('what cannot be is said at its option, and nothing is written', async () => {
  const into = folder();
  const wrong = async (...argv: string[]) =>
    (await told(EXAMPLE, '--into', into, '--at-once', ...argv)).error?.path;
  expect(await wrong('--speed', '61')).toBe('--speed');
  expect(await wrong('--on', 'all')).toBe('--on');
  expect(await wrong('--cap', 'loud')).toBe('--cap');
  expect(await wrong('--setting', 'none')).toBe('--setting');
  expect(await wrong('--dead-fan', 'none')).toBe('--dead-fan');
  expect(await wrong('--dry-pipe', 'none')).toBe('--dry-pipe');
  expect(await wrong('--firmware-drop', 'soon')).toBe('--firmware-drop');
  expect(readdirSync(into)).toEqual([]);
  expect(await told(EXAMPLE)).toMatchObject({
    code: 2,
    error: { message: expect.stringMatching(/--into/) },
  });
});
