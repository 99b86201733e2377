import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { run } from './compare';

jest.setTimeout(120_000);
const example = (name: string) => join(__dirname, `../examples/${name}.json`);
const TWO = example('two-fan-shared-pipes');
const ONE = example('one-die');
const folder = mkdtempSync(join(tmpdir(), 'zugluft-compare-'));
const write = (name: string, content: unknown) => {
  const file = join(folder, name);
  writeFileSync(file, typeof content === 'string' ? content : JSON.stringify(content));
  return file;
};
interface Answer {
  error?: { path: string; message: string };
  format: string;
  formatVersion: number;
  machines: { name: string; at: { cap: number; p05: number; p50: number; p95: number }[] }[];
  better: { a: string; b: string; cap: number; chance: number }[];
}
const compare = async (...argv: string[]) => {
  const { stdout, code } = await run(argv);
  return { ...(JSON.parse(stdout) as Answer), code };
};

test('machines with their bands, and each pair at each cap', async () => {
  const told: string[] = [];
  const { stdout, code } = await run([TWO, ONE, '--caps', '32,36', '--draws', '60'], (l) =>
    told.push(l),
  );
  const answer = JSON.parse(stdout) as Answer;
  expect(code).toBe(0);
  expect(answer).toMatchObject({ format: 'zugluft-comparison', formatVersion: 1 });
  expect(answer.machines.map((m) => m.at.map((a) => a.cap))).toEqual([
    [32, 36],
    [32, 36],
  ]);
  for (const { at } of answer.machines) {
    for (const { p05, p50, p95 } of at) expect(p05 < p50 && p50 < p95).toBe(true);
  }
  const [a, b] = answer.machines.map((m) => m.name);
  expect(answer.better.map((x) => [x.a, x.b, x.cap])).toEqual([
    [a, b, 32],
    [a, b, 36],
  ]);
  expect(answer.better[0]!.chance).toBeGreaterThan(0.95);
  expect(told).toEqual(['1 of 2 machines', '2 of 2 machines']);
});

test('the same words give the same answer, another seed another one', async () => {
  const args = [TWO, '--caps', '36', '--draws', '30'];
  const first = await run(args);
  expect(await run(args)).toEqual(first);
  expect((await run([...args, '--seed', '2'])).stdout).not.toBe(first.stdout);
});

test('a machine without a name has that of its file; a count is taken like a record', async () => {
  const { identity: _, ...nameless } = JSON.parse(readFileSync(ONE, 'utf8')) as {
    identity: object;
  };
  const found = await compare(
    write('bench-find.json', nameless),
    example('count-two-fans'),
    '--caps',
    'full',
    '--draws',
    '10',
  );
  expect(found.code).toBe(0);
  expect(found.machines[0]!.name).toBe('bench-find');
  expect(found.machines).toHaveLength(2);
});

test.each<[string, string[], { path: string; message: RegExp }]>([
  ['no file', [], { path: '', message: /record files/ }],
  ['a file that is not there', ['nowhere.json'], { path: '', message: /nowhere.json/ }],
  ['an option that is none', [TWO, '--loud', '3'], { path: '', message: /loud/ }],
  ['caps that are none', [TWO, '--caps', 'loud'], { path: '--caps', message: /./ }],
  ['too many draws', [TWO, '--draws', '1e9'], { path: '--draws', message: /./ }],
  ['half a draw', [TWO, '--draws', '1.5'], { path: '--draws', message: /./ }],
  ['a seed below nought', [TWO, '--seed=-1'], { path: '--seed', message: /./ }],
])('%s is refused at its place', async (_, argv, { path, message }) => {
  const found = await compare(...argv);
  expect(found.code).toBe(2);
  expect(found.error!.path).toBe(path);
  expect(found.error!.message).toMatch(message);
});

test('of several files the one that is wrong is named, with its field', async () => {
  const broken = JSON.parse(readFileSync(ONE, 'utf8')) as { shell: { widthMm: unknown } };
  broken.shell.widthMm = 'wide';
  const file = write('broken.json', broken);
  const { error } = await compare(TWO, file);
  expect(error!.path).toBe('shell.widthMm');
  expect(error!.message).toContain('broken.json');
});
