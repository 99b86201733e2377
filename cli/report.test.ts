import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { simulatedRunsZip } from './test-support/runsZip';
import { run } from './report';

jest.setTimeout(240_000);
const TWO = join(__dirname, '../examples/two-fan-shared-pipes.json');
const folder = mkdtempSync(join(tmpdir(), 'zugluft-report-'));
const out = (name: string) => join(folder, name);

interface Answer {
  error?: { path: string; message: string };
  format: string;
  headline: string;
  files: { file: string; bytes: number }[];
}
const report = async (...argv: string[]) => {
  const { stdout, code } = await run(argv);
  return { ...(JSON.parse(stdout) as Answer), code };
};

test.each([
  ['html', /^<!doctype html>/],
  ['pdf', /^%PDF-/],
  ['md', /^# Brackenfold Heron 16 Studio\n/],
  ['json', /^\{\n {2}"format": "zugluft-report"/],
  ['csv', /^figure,cap,unit,p05,value,p95,from\r\n/],
  ['svg', /^<\?xml version="1.0"/],
  ['card-svg', /^<\?xml version="1.0"/],
  ['card-png', /^.PNG/],
])('as %s it is written to its file', async (as, begins) => {
  const file = out(`r.${as}`);
  const answer = await report(TWO, '--as', as, '--out', file, '--draws', '30', '--cap', '36');
  expect(answer).toMatchObject({ code: 0, format: 'zugluft-written' });
  expect(answer.headline).toMatch(/^Holds .* at 36 dB\(A\)/);
  const bytes = readFileSync(file);
  expect(bytes.toString('latin1')).toMatch(begins);
  expect(answer.files[0]).toEqual({ file, bytes: bytes.length });
  for (const f of answer.files) expect(readFileSync(f.file)).toHaveLength(f.bytes);
  expect(answer.files).toHaveLength(as === 'md' ? 3 : 1);
});

test('with the same seed it is the same to the letter', async () => {
  const [a, b] = [out('a.html'), out('b.html')];
  for (const file of [a, b]) await report(TWO, '--as', 'html', '--out', file, '--draws', '30');
  expect(readFileSync(a, 'utf8')).toBe(readFileSync(b, 'utf8'));
});

test('runs narrow it and are shown, a log gives its score, imperial units are taken', async () => {
  const runs = out('runs.zip');
  const load = { kind: 'stress', on: 'both', name: 'forest scene', score: 9240 };
  writeFileSync(runs, simulatedRunsZip({ load }));
  const log = out('log.json');
  writeFileSync(
    log,
    JSON.stringify({
      format: 'zugluft-openup',
      formatVersion: 1,
      steps: [{ id: 'cover', name: 'cover', kind: 'cover', state: 'done', goals: ['clean-fans'] }],
    }),
  );
  const wide = out('wide.json');
  const narrow = out('narrow.json');
  const common = ['--as', 'json', '--cap', '36', '--draws', '100', '--units', 'imperial'];
  await report(TWO, ...common, '--out', wide);
  const answer = await report(TWO, ...common, '--runs', runs, '--log', log, '--out', narrow);
  expect(answer.error).toBeUndefined();
  const read = (file: string) =>
    JSON.parse(readFileSync(file, 'utf8')) as {
      isCalibrated: boolean;
      measured: { cpuW: number; done: { load: string; score: number } | null }[];
      beforeRuns: { p50: number } | null;
      at: { cap: number; watts: { p05: number; p50: number; p95: number } }[];
      conditions: { name: string; value: string }[];
      score: { computed: number | null } | null;
    };
  const [a, b] = [read(wide), read(narrow)];
  const half = ({ at }: typeof a) => {
    const { watts } = at.find((x) => x.cap === 36)!;
    return (watts.p95 - watts.p05) / watts.p50;
  };
  expect([a.isCalibrated, b.isCalibrated]).toEqual([false, true]);
  expect(half(b)).toBeLessThan(0.8 * half(a));
  const before = a.at.find((x) => x.cap === 36)!.watts;
  expect(b.beforeRuns!.p50 / before.p50).toBeCloseTo(1, 1);
  expect(b.measured.length).toBeGreaterThan(0);
  // a score is told once, beside the watts that the run ended in
  expect(b.measured.filter((m) => m.done)).toEqual([b.measured.at(-1)]);
  expect(b.measured.at(-1)!.done).toMatchObject({ load: 'forest scene', score: 9240 });
  expect(a.score).toBeNull();
  expect(b.score).not.toBeNull();
  expect(b.conditions[0]!.value).toContain('°F');
});

test('words of one’s own are taken, as a text or as an article', async () => {
  const text = out('words.md');
  writeFileSync(text, '\ufeffQuiet *for its size*.');
  const article = out('words.json');
  writeFileSync(
    article,
    JSON.stringify({ format: 'zugluft-article', formatVersion: 1, closing: 'Take it.' }),
  );
  const html = async (words: string) => {
    const file = out('words.html');
    const { code } = await report(
      ...[TWO, '--as', 'html', '--out', file, '--draws', '5', '--words', words],
    );
    expect(code).toBe(0);
    return readFileSync(file, 'utf8');
  };
  expect(await html(text)).toContain('Quiet <em>for its size</em>.');
  expect(await html(article)).toMatch(/<h2>In short<\/h2>\s*<p>Take it.<\/p>/);
  writeFileSync(text, '{x} is what it says');
  expect(await html(text)).toContain('{x} is what it says');
});

test.each([
  [['--as', 'docx', '--out', 'x'], '--as', 'must be one of html, pdf, md, json, csv, svg'],
  [['--out', 'x'], '--as', 'must be one of'],
  [['--as', 'html'], '--out', 'needs a file'],
  [['--as', 'html', '--out', '/nowhere/x.html'], '--out', 'ENOENT'],
  [['--as', 'html', '--out', 'x', '--cap', 'loud'], '--cap', 'neither off, full nor a level'],
  [['--as', 'html', '--out', 'x', '--units', 'cubits'], '--units', 'must be one of'],
  [['--as', 'pdf', '--out', 'x', '--paper', 'a0'], '--paper', 'must be one of'],
  [['--as', 'card-png', '--out', 'x', '--size', '1x1'], '--size', 'must be one of'],
  [['--as', 'html', '--out', 'x', '--setting', 'none'], '--setting', 'no setting called'],
  [['--as', 'html', '--out', 'x', '--log', '/nowhere.json'], '--log', 'cannot read'],
  [['--as', 'html', '--out', 'x', '--log', TWO], '--log', 'no log of an opening'],
  [['--as', 'html', '--out', 'x', '--words', '/nowhere.md'], '--words', 'cannot read'],
  [['--as', 'html', '--out', 'x', '--words', TWO], '--words', 'is no article'],
  [['--as', 'html', '--out', 'x', '--runs', TWO], '--runs', 'cannot be unpacked'],
  [['--as', 'html', '--out', 'x', '--draws', '0'], '--draws', 'whole number'],
  [['--wrong'], '', 'Unknown option'],
])('refused: %j', async (argv, path, message) => {
  const fast = argv.includes('--draws') ? argv : [...argv, '--draws', '5'];
  const answer = await report(TWO, ...fast);
  expect(answer.code).toBe(2);
  expect(answer.error!.path).toBe(path);
  expect(answer.error!.message).toContain(message);
});

test('two records, or none, or one that is no record are refused', async () => {
  expect((await report('--as', 'html', '--out', 'x')).error!.message).toBe('needs one record file');
  expect((await report(TWO, TWO, '--as', 'html', '--out', 'x')).code).toBe(2);
  const broken = out('broken.json');
  writeFileSync(broken, '{');
  expect((await report(broken, '--as', 'html', '--out', 'x')).error!.message).toMatch('not JSON');
});
