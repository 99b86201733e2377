import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { run } from './plan';
import { simulatedRunsZip } from './test-support/runsZip';

jest.setTimeout(240_000);
const EXAMPLE = join(__dirname, '../examples/two-fan-shared-pipes.json');
const ONE = join(__dirname, '../examples/one-die.json');
const folder = mkdtempSync(join(tmpdir(), 'zugluft-plan-'));
const write = (name: string, content: unknown) => {
  const file = join(folder, name);
  writeFileSync(file, typeof content === 'string' ? content : JSON.stringify(content));
  return file;
};
interface Gain {
  p05: number;
  p50: number;
  p95: number;
}
interface Answer {
  error?: { path: string; message: string };
  format: string;
  levers: {
    id: string;
    possible: boolean;
    whyNot: string | null;
    effort: object;
    at: {
      cap: number;
      wattsGained: Gain & { central: number };
      dbSaved: Gain;
      kelvinSaved: Gain;
      chanceNoticeable: number;
      tooSmallToFeel: boolean;
    }[];
  }[];
  combined?: { ids: string[]; at: { wattsGained: Gain; sumOfSingles: number }[] }[];
  quietestFor: { levelDbA: Gain | null; reachable: boolean; most?: Gain } | null;
  split: {
    cap: number;
    cpuWatts: number;
    gpuWatts: number;
    value: number;
    p50: number;
    withinLimits: { cpuWatts: number; gpuWatts: number };
  } | null;
}
const plan = async (...argv: string[]): Promise<Answer & { code: number }> => {
  const { stdout, code } = await run(argv);
  return { ...(JSON.parse(stdout) as Answer), code };
};
const LEVERS = write('levers.json', {
  levers: [
    {
      id: 'renew',
      name: 'Renew',
      change: [
        { path: 'dies.cpu.interface.ageYears', to: 0 },
        { path: 'dies.gpu.interface.ageYears', to: 0 },
      ],
    },
    { id: 'cooler', change: [{ path: 'room.temperatureC', to: 18 }] },
  ],
  together: [['renew', 'cooler']],
});

test('levers of a machine with what they bring at a cap, in bands of the difference', async () => {
  const told = await plan(EXAMPLE, '--cap', '40', '--draws', '30');
  expect(told).toMatchObject({ code: 0, format: 'zugluft-plan', quietestFor: null, split: null });
  const cooler = told.levers.find((l) => l.id === 'cooler-room')!;
  expect(cooler.at.map((a) => a.cap)).toEqual([40]);
  const [at] = cooler.at;
  for (const gain of [at!.wattsGained, at!.dbSaved, at!.kelvinSaved]) {
    expect(gain.p05).toBeLessThanOrEqual(gain.p50);
    expect(gain.p50).toBeLessThanOrEqual(gain.p95);
  }
  expect(at!.wattsGained.central).toBeGreaterThan(0);
  expect(at!.chanceNoticeable).toBeGreaterThan(0.5);
  expect(cooler.effort).toEqual({ steps: 0, screws: 0, minutes: 0, cost: null });
  const fixed = told.levers.find((l) => l.id === 'pipes')!;
  expect(fixed).toMatchObject({ possible: false, whyNot: expect.any(String) });
  expect(fixed.at).toHaveLength(1);
});

test('levers of one’s own, alone and together, the same again with the same seed', async () => {
  const argv = [EXAMPLE, '--caps', '32,40', '--draws', '40', '--levers', LEVERS];
  const told = await plan(...argv);
  expect(told.levers.map((l) => [l.id, l.at.map((a) => a.cap)])).toEqual([
    ['renew', [32, 40]],
    ['cooler', [32, 40]],
  ]);
  const [both] = told.combined!;
  expect(both!.ids).toEqual(['renew', 'cooler']);
  expect(both!.at[1]!.sumOfSingles).toBeCloseTo(
    told.levers[0]!.at[1]!.wattsGained.p50 + told.levers[1]!.at[1]!.wattsGained.p50,
    3,
  );
  expect(await plan(...argv)).toEqual(told);
  expect(await plan(...argv, '--seed', '2')).not.toEqual(told);
});

test('turned round: the quietest level for some watts, or the most there is', async () => {
  const none = write('none.json', { levers: [] });
  const quiet = await plan(
    EXAMPLE,
    '--cap',
    '40',
    '--draws',
    '60',
    '--levers',
    none,
    '--need',
    '25,35',
  );
  expect(quiet.quietestFor).toMatchObject({ reachable: true });
  expect(quiet.quietestFor!.levelDbA!.p50).toBeGreaterThan(20);
  const never = await plan(
    EXAMPLE,
    '--cap',
    '40',
    '--draws',
    '60',
    '--levers',
    none,
    '--need',
    '200,200',
  );
  expect(never.quietestFor).toMatchObject({ reachable: false, levelDbA: null });
  expect(never.quietestFor!.most!.p50).toBeGreaterThan(50);
});

test('the best split for weights, or for at least so much CPU, also within the limits', async () => {
  const none = write('none.json', { levers: [] });
  const argv = [EXAMPLE, '--cap', '40', '--draws', '30', '--levers', none];
  const { split } = await plan(...argv, '--weights', '1,1');
  expect(split!.value).toBeCloseTo(split!.cpuWatts + split!.gpuWatts, 3);
  expect(split!.p50).toBeLessThan(split!.value);
  const least = (await plan(...argv, '--at-least-cpu', '35')).split!;
  expect(least.cpuWatts).toBeGreaterThanOrEqual(35 - 1e-6);
  expect(least.value).toBe(least.gpuWatts);
  expect(least.withinLimits.cpuWatts).toBeLessThanOrEqual(54);
  // one die has nothing to split
  expect(
    (await plan(ONE, '--cap', '36', '--draws', '30', '--levers', none, '--weights', '1,1')).split,
  ).toBeNull();
});

test('runs narrow what a lever brings', async () => {
  const file = (name: string, bytes: Uint8Array) => {
    writeFileSync(join(folder, name), bytes);
    return join(folder, name);
  };
  const argv = [EXAMPLE, '--cap', '40', '--draws', '200', '--levers', LEVERS];
  const width = async (...more: string[]) => {
    const told = await plan(...argv, ...more);
    expect(told.error).toBeUndefined();
    const { wattsGained: g } = told.levers[1]!.at[0]!;
    return g.p95 - g.p05;
  };
  expect(await width('--runs', file('runs.zip', simulatedRunsZip()))).toBeLessThan(
    0.9 * (await width()),
  );
  // what was learned of the old paste says nothing of the new one
  const taught = await plan(...argv, '--runs', join(folder, 'runs.zip'));
  expect(taught.levers[0]!.at[0]!.wattsGained.p95).toBeGreaterThan(0.05);
  const held = await plan(
    ...argv,
    '--runs',
    file('held.zip', simulatedRunsZip({ use: 'hold-out' })),
  );
  expect(held).toMatchObject({ code: 2, error: { path: '--runs' } });
  expect(
    (await plan(...argv, '--runs', file('empty.zip', zipSync({ 'x.txt': strToU8('x') })))).error!
      .message,
  ).toMatch(/no run\.json/);
  expect((await plan(...argv, '--runs', write('bad.zip', 'no zip'))).error!.message).toMatch(
    /unpacked/,
  );
});

test('what cannot be is said at its place', async () => {
  const path = async (...argv: string[]) => (await plan(...argv)).error?.path;
  expect(await path()).toBe('');
  expect(await path(EXAMPLE, '--cap', '32,40')).toBe('--cap');
  expect(await path(EXAMPLE, '--caps', 'loud')).toBe('--caps');
  expect(await path(EXAMPLE, '--setting', 'none')).toBe('--setting');
  expect(await path(EXAMPLE, '--need', '45')).toBe('--need');
  expect(await path(EXAMPLE, '--need', '0,0')).toBe('--need');
  expect(await path(ONE, '--need', '5,5')).toBe('--need');
  expect(await path(EXAMPLE, '--weights', '1')).toBe('--weights');
  expect(await path(EXAMPLE, '--weights', '1,1', '--at-least-cpu', '3')).toBe('--at-least-cpu');
  expect(await path(EXAMPLE, '--draws', '0')).toBe('--draws');
  expect(await path(EXAMPLE, '--runs', join(folder, 'gone.zip'))).toBe('--runs');
  const levers = (content: unknown) => path(EXAMPLE, '--levers', write('x.json', content));
  expect(await levers('no')).toBe('--levers');
  expect(await levers({ levers: [{ id: 'a' }] })).toBe('--levers.levers.0.change');
  const change = (p: string, to: unknown) => ({ levers: [{ id: 'a', change: [{ path: p, to }] }] });
  expect(await levers(change('fans.none.maxRpm', 3))).toBe('--levers.levers.0.change.0');
  expect(await levers(change('dies.cpu.widthMm', -1))).toBe('--levers.levers.0.change.0');
  expect(
    await levers({
      levers: [
        { id: 'a', change: [] },
        { id: 'a', change: [] },
      ],
    }),
  ).toBe('--levers.levers.1.id');
  expect(await levers({ levers: [], together: [['b']] })).toBe('--levers.together.0');
});
