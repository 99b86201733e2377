import { possibleValues } from '../calibration/possibleValues';
import { predictorOf } from '../calibration/predictReadings';
import type { Reading, SteadyRun } from '../calibration/steadyRun';
import { openCase } from '../case/openCase';
import { applyChanges } from '../levers/applyChanges';
import type { Change } from '../levers/lever';
import type { DefaultKey } from '../record/defaults';
import type { CaseRecord } from '../record/recordSchema';
import { LINT_RATE } from '../library/wearAnswer';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { defaultAt } from './factorSlopes';
import { fitPopulation } from './populationFit';
import { wearRead, type Renewal, type WearRead } from './wearRead';

jest.setTimeout(240_000);
const PASTE_RATE = 'dies.interface.ageingPerYear.paste' satisfies DefaultKey;
const HOURS = 6000;
const YEARS = 6;

const machine = (): CaseRecord => {
  const record = structuredClone(completeRecord(exampleRecord('two-fan-shared-pipes')));
  for (const d of record.dies!) {
    d.interface = { ...d.interface, kind: 'paste', ageYears: YEARS };
  }
  // what was guessed at a glance has no say
  for (const s of record.finStacks!) s.lintShare = 0.3;
  return record;
};
const RECORD = machine();
const CLEAN: Change[] = RECORD.finStacks!.map((s) => ({
  path: `finStacks.${s.id}.lintShare`,
  to: 0,
}));
const RENEW: Change[] = RECORD.dies!.map((d) => ({
  path: `dies.${d.id}.interface.ageYears`,
  to: 0,
}));
const rpm = (n: number) => Object.fromEntries(RECORD.fans!.map((f) => [f.id, n]));
const BEFORE: SteadyRun = { id: 'before', ambientC: 22, rpm: rpm(3500), cpuW: 25, gpuW: 40 };
/** Another day: other watts, a warmer room, slower fans. */
const AFTER: SteadyRun = { id: 'after', ambientC: 25, rpm: rpm(3200), cpuW: 30, gpuW: 36 };
const SETS = possibleValues(openCase({ record: RECORD }), 300);

function withJunctions(
  record: CaseRecord,
  run: SteadyRun,
  values: ReadonlyMap<string, number>,
  whole = true,
): SteadyRun {
  const parts = record.dies!.map((d) => d.id);
  const readings = parts.map((part): Reading => ({
    run: 0,
    kind: 'junction',
    part,
    value: 0,
    plusMinus: 1,
  }));
  const told = predictorOf(openCase({ record }), [run], readings)(values);
  const round = (c: number) => (whole ? Math.round(c) : c);
  return { ...run, junctionC: Object.fromEntries(parts.map((d, i) => [d, round(told[i]!)])) };
}

/** A renewal of a machine whose figures and rates are hidden. */
function renewal(
  change: readonly Change[],
  hidden: ReadonlyMap<string, number>,
  { lint = 0.12, ageing }: { lint?: number; ageing?: number },
): Renewal {
  const dusty = structuredClone(RECORD);
  const share = 1 - (1 - lint) ** (HOURS / 1000);
  for (const s of dusty.finStacks!) s.lintShare = share;
  const plain = (paths: (p: string) => boolean) =>
    new Map([
      ...[...hidden].filter(([p]) => paths(p)),
      ...(ageing === undefined ? [] : [[PASTE_RATE, ageing] as const]),
    ]);
  const noLint = (p: string) => !p.endsWith('lintShare');
  return {
    request: { record: RECORD },
    change,
    before: withJunctions(dusty, BEFORE, plain(noLint)),
    after: withJunctions(
      applyChanges(dusty, change).record,
      AFTER,
      plain((p) => noLint(p) && !change.some((c) => c.path === p)),
    ),
    hoursSince: HOURS,
  };
}

const told = (r: Renewal): WearRead => {
  const found = wearRead(r);
  if ('why' in found) throw new Error(found.why);
  return found;
};

test.each([
  ['dust', LINT_RATE, CLEAN, (rate: number) => ({ lint: rate })],
  ['paste', PASTE_RATE, RENEW, (rate: number) => ({ ageing: rate })],
] as const)(
  'the rate of %s that machines hide is told by a run before and one after, and the next machine’s from all',
  (_, key, change, at) => {
    for (const z of [-1, 1.2]) {
      const truth = defaultAt(key, z);
      const all = SETS.slice(200, 212).map((hidden) => told(renewal(change, hidden, at(truth))));
      const inside = all.filter(({ rates: [r] }) => truth >= r!.p05 && truth <= r!.p95).length;
      expect(inside).toBeGreaterThanOrEqual(10);
      for (const { rates, evidence } of all) {
        expect(rates.map((r) => r.key)).toEqual([key]);
        expect(evidence.keys).toEqual([key]);
        expect(evidence.information[0]).toBeGreaterThanOrEqual(0);
      }
      const [rate] = fitPopulation(all.map((w) => w.evidence)).factors;
      expect(rate!.machines).toBe(12);
      // the middle of what twelve tell is near, and its band narrower than what is built in
      expect(Math.abs(rate!.mean - z)).toBeLessThan(Math.max(0.5, 3 * rate!.meanDeviation));
      expect(Math.sign(rate!.mean)).toBe(Math.sign(z));
      expect(rate!.deviation).toBeLessThan(0.8);
    }
  },
);

test('dust and paste renewed at once are told together, neither as if the other had not been there', () => {
  const [lint, ageing] = [defaultAt(LINT_RATE, 1), defaultAt(PASTE_RATE, -1)];
  let inside = 0;
  for (const hidden of SETS.slice(200, 205)) {
    const { evidence, rates } = told(renewal([...CLEAN, ...RENEW], hidden, { lint, ageing }));
    expect(evidence.keys).toEqual([LINT_RATE, PASTE_RATE]);
    const [dust, paste] = rates;
    if (lint >= dust!.p05 && lint <= dust!.p95) inside++;
    if (ageing >= paste!.p05 && ageing <= paste!.p95) inside++;
    const alone = told(renewal(CLEAN, hidden, { lint, ageing })).rates[0]!;
    expect(Math.log(dust!.p95 / dust!.p05)).toBeGreaterThan(Math.log(alone.p95 / alone.p05));
  }
  expect(inside).toBeGreaterThanOrEqual(8);
});

test('a cleaning that changed nothing tells of little dust; one that made it worse tells no rate', () => {
  const clean = told(renewal(CLEAN, SETS[205]!, { lint: 0.002 }));
  expect(clean.rates[0]!.p50).toBeLessThan(defaultAt(LINT_RATE, -0.7));
  const odd = renewal(CLEAN, SETS[205]!, { lint: 0.1 });
  odd.after.junctionC = Object.fromEntries(
    Object.entries(odd.after.junctionC!).map(([d, c]) => [d, c + 25]),
  );
  expect(wearRead(odd)).toEqual({ why: 'no rate that is believed explains these two runs' });
});

test('half the hours with twice the lint are the rate told twice as fast', () => {
  const once = renewal(CLEAN, SETS[206]!, { lint: 0.1 });
  const slow = told(once).rates[0]!.p50;
  const fast = told({ ...once, hoursSince: HOURS / 2 }).rates[0]!.p50;
  expect(Math.log1p(-fast) / Math.log1p(-slow)).toBeGreaterThan(1.4);
  expect(Math.log1p(-fast) / Math.log1p(-slow)).toBeLessThan(2.2);
});

test('why nothing is told', () => {
  const dusty = renewal(CLEAN, SETS[207]!, { lint: 0.1 });
  const pasted = renewal(RENEW, SETS[207]!, {});
  const without = (change: (r: CaseRecord) => void, r: Renewal): Renewal => {
    const record = structuredClone(RECORD);
    change(record);
    return { ...r, request: { record } };
  };
  expect(wearRead({ ...dusty, hoursSince: null })).toEqual({
    why: 'hours of use since the fins were last clean are not known',
  });
  expect(wearRead({ ...dusty, change: [{ path: 'shell.feetMm', to: 6 }] })).toEqual({
    why: 'neither fins nor interface material were renewed',
  });
  expect(wearRead({ ...dusty, after: { ...AFTER } })).toEqual({
    why: 'no junction was read in both runs',
  });
  expect(
    wearRead(
      without((r) => delete (r.dies![0]!.interface as { ageYears?: number }).ageYears, pasted),
    ),
  ).toEqual({ why: 'years since the interface material was renewed are not recorded' });
  expect(wearRead(without((r) => (r.dies![0]!.interface!.kind = 'phase-change'), pasted))).toEqual({
    why: 'the dies were under different materials',
  });
});
