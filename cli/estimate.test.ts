import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { run } from './estimate';

const examples = join(__dirname, '../examples');
const two = join(examples, 'two-fan-shared-pipes.json');
const folder = mkdtempSync(join(tmpdir(), 'zugluft-cli-'));
const file = (name: string, text: string) => {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
};

test.each(['two-fan-shared-pipes', 'four-fan-eight-pipes', 'one-die'])('%s', async (name) => {
  const { stdout, code } = await run([join(examples, `${name}.json`), '--caps', 'off,32,full']);
  expect(code).toBe(0);
  const e = JSON.parse(stdout);
  expect(e).toMatchObject({ format: 'zugluft-estimate', formatVersion: 1, sensitivity: [] });
  expect(e.caps.map((c: { cap: unknown }) => c.cap)).toEqual(['off', 32, 'full']);
  expect(e.caps[2].together).toMatchObject({ p05: null, p50: null, p95: null, held: [] });
  expect(e.caps[2].together.watts).toBeGreaterThan(10);
});

const count = join(examples, 'count-two-fans.json');
const TABLE = [
  'model;fans;fanDiameterMm;stackWidthMm;stackDepthMm;finCount',
  'Heron 16;2;58;70;24;64',
  'Quill 14;1;50;60;18;300',
].join('\n');

test('a file of counts is estimated like a record, with median, band and what holds', async () => {
  const { stdout, code } = await run([count, '--caps', '36,full', '--draws', '60']);
  expect(code).toBe(0);
  const [c] = JSON.parse(stdout).caps;
  expect(c.together.p05).toBeLessThan(c.together.p50);
  expect(c.together.p50).toBeLessThan(c.together.p95);
  expect(c.together.held[0]).toEqual({
    limit: expect.any(String),
    part: expect.any(String),
    share: expect.any(Number),
  });
  expect(c.configured.together.p50).toBeLessThanOrEqual(c.together.p50 * (1 + 1e-9));
  expect(JSON.parse(stdout).assumed.length).toBeGreaterThan(40);
});

test('a table of counts: one of its rows is said, a lone one need not be; refused by its field', async () => {
  const table = file('counts.csv', TABLE);
  const first = await run([table, '--row', '1', '--caps', 'full']);
  expect(first.code).toBe(0);
  expect(JSON.parse(first.stdout).caps[0].together.watts).toBeGreaterThan(40);
  const lone = file('lone.csv', TABLE.split('\n').slice(0, 2).join('\n'));
  expect((await run([lone, '--caps', 'full'])).stdout).toBe(first.stdout);
  const asked = await run([table]);
  expect([asked.code, JSON.parse(asked.stdout).error.path]).toEqual([2, '--row']);
  const second = JSON.parse((await run([table, '--row', '2'])).stdout);
  expect(second.error).toEqual({ path: 'finCount', message: expect.stringMatching(/pitch/) });
  expect(JSON.parse((await run([table, '--row', '9'])).stdout).error.path).toBe('--row');
});

test('a setting is chosen by id and changes what is configured only', async () => {
  const one = join(examples, 'one-die.json');
  const quiet = JSON.parse((await run([one, '--setting', 'quiet', '--caps', 'full'])).stdout)
    .caps[0];
  const full = JSON.parse((await run([one, '--setting', 'full', '--caps', 'full'])).stdout).caps[0];
  expect(quiet.cpuAlone).toEqual(full.cpuAlone);
  expect(quiet.configured.cpuAlone.watts).toBeCloseTo(12, 9);
  expect(quiet.configured.cpuAlone.binding).toEqual({ limit: 'firmware', part: 'cpu' });
  expect(full.configured.cpuAlone.watts).toBeCloseTo(20, 9);
});

const bad = JSON.stringify({
  format: 'zugluft-record',
  formatVersion: 1,
  finStacks: [{ id: 'a', depthMm: -4 }],
});

test.each<[string, string[], string, RegExp]>([
  ['broken JSON', [file('broken.json', '{"format": ')], '', /not JSON/],
  ['no such file', [join(folder, 'none.json')], '', /cannot read/],
  ['a bad figure', [file('bad.json', bad)], 'finStacks.0.depthMm', /more than 0/],
  ['no file', [], '', /one record file/],
  ['unknown flag', [two, '--colour', 'red'], '', /Unknown option/],
  ['bad caps', [two, '--caps', '28,loud'], '--caps', /loud/],
  ['bad draws', [two, '--draws', '-3'], '', /.*/],
  ['unknown setting', [two, '--setting', 'nope'], 'settings', /nope/],
])('%s: exit 2 with path and message', async (_, argv, path, message) => {
  const { stdout, code } = await run(argv);
  expect(code).toBe(2);
  const { error } = JSON.parse(stdout);
  expect(error.path).toBe(path);
  expect(error.message).toMatch(message);
});

test('draws give bands, shares and the same numbers for the same seed, over threads too', async () => {
  const argv = [two, '--caps', '36', '--draws', '420', '--seed', '7'];
  const here = JSON.parse((await run(argv)).stdout);
  const [cap] = here.caps;
  for (const r of [cap.cpuAlone, cap.gpuAlone, cap.together]) {
    expect(r.p05).toBeLessThan(r.watts);
    expect(r.p95).toBeGreaterThan(r.watts);
  }
  expect(here.sensitivity.length).toBeGreaterThan(5);
  expect(here.sensitivity[0]).toMatchObject({ readout: 'cpuAlone', cap: 36 });
  expect((await run(argv)).stdout).toBe(JSON.stringify(here));
  const other = JSON.parse((await run([...argv.slice(0, -1), '8'])).stdout);
  expect(other.caps[0].together.p05).not.toBe(cap.together.p05);
  expect(other.caps[0].together.watts).toBe(cap.together.watts);

  const apart = spawnSync('node', ['--import', 'tsx', 'main.ts', ...argv], {
    cwd: __dirname,
    encoding: 'utf8',
  });
  expect(apart.status).toBe(0);
  expect(apart.stderr).toContain('420 of 420 draws');
  expect(JSON.parse(apart.stdout)).toEqual(here);
});
