import { Matrix } from 'ml-matrix';
import { possibleValues } from '../calibration/possibleValues';
import { predictorOf } from '../calibration/predictReadings';
import type { Reading, SteadyRun } from '../calibration/steadyRun';
import { openCase, type CaseRequest } from '../case/openCase';
import { LINT_RATE } from '../library/wearAnswer';
import { applyChanges } from '../levers/applyChanges';
import type { Change } from '../levers/lever';
import type { DefaultKey } from '../record/defaults';
import { figureValue } from '../record/figure';
import type { CaseRecord } from '../record/recordSchema';
import { normalQuantile } from '../uncertainty/normal';
import { evidenceFrom, type FactorEvidence } from './factorEvidence';
import { defaultAt } from './factorSlopes';

/** A renewal that was really done, with a settled run before it and one after. */
export interface Renewal {
  /** The machine as it was before, without a calibration and without what was learned. */
  request: CaseRequest;
  /** What was done to the record. */
  change: readonly Change[];
  before: SteadyRun;
  after: SteadyRun;
  /** Hours of use since its fins were last clean; null where nobody knows. */
  hoursSince: number | null;
}

/** A rate as one renewal tells it. */
export interface RateTold {
  key: DefaultKey;
  p05: number;
  p50: number;
  p95: number;
}

/** What one renewal tells of how fast machines wear. */
export interface WearRead {
  evidence: FactorEvidence;
  rates: RateTold[];
}

const AGEING = 'dies.interface.ageingPerYear.';
const LINT = /^finStacks\.[^.]+\.lintShare$/;
const AGE = /^dies\.([^.]+)\.interface\.ageYears$/;

/** Rates looked at, in deviations of the default. */
const WIDEST = 3.5;
const STEPS_OF = [14, 8] as const;
/** Steps between them in which the reading changes evenly. */
const FINER = 5;
const SETS = 80;
/** A sensor reads whole kelvins. One standard deviation (common practice, no source). */
const SENSOR_K = 1;
/** How well hours of use are known, as a share; one standard deviation (common practice, no source). */
const HOURS_DOUBT = 0.1;
/** Where the likeliest rate is less likely than this, the two runs tell of something else. */
const LEAST_LIKELY = 1e-6;
/** Fins fuller than this are not looked at. */
const MOST_LINT = 0.95;

/** What of a renewal tells a rate: which, and the machine before it at a rate. */
interface Wear {
  key: DefaultKey;
  recordAt: (record: CaseRecord, rate: number) => CaseRecord;
  /** Doubt of the time that passed, as a share. */
  doubt: number;
}

/**
 * Reads from a run before a renewal and one after how fast the machine had worn: in each run every die rises over the room, and a machine
 * that is warmer than its model is so before and after by the same share, so that the ratio of the two rises tells the dust or the aged
 * material that lay between them. Which figures of the machine are still possible is drawn from its priors, and rates in between are
 * weighed by `exp(−½ (ln ratio read − ln ratio foretold)²/σ²)`, σ from the sensors, with the rate's own prior.
 *
 * @returns why nothing is told where it is not
 */
export function wearRead(renewal: Renewal): WearRead | { why: string } {
  const wears = wearsOf(renewal);
  if ('why' in wears) return wears;
  const { request, change, before, after } = renewal;
  const plain = { ...request, calibration: null };
  const open = openCase(plain);
  const dies = open.data.dies
    .map((d) => d.id)
    .filter((d) => before.junctionC?.[d] !== undefined && after.junctionC?.[d] !== undefined)
    .filter((d) => rise(before, d) > 0 && rise(after, d) > 0);
  if (dies.length === 0) return { why: 'no junction was read in both runs' };
  const readings = dies.map((part): Reading => ({
    run: 0,
    kind: 'junction',
    part,
    value: 0,
    plusMinus: SENSOR_K,
  }));
  const isChanged = (path: string) =>
    change.some((c) => path === c.path || path.startsWith(`${c.path}.`));
  const isDusty = wears.some((w) => w.key === LINT_RATE);
  const sets = possibleValues(open, SETS);
  const now = predictorOf(
    openCase({ ...plain, ...applyChanges(request.record, change, request.setting) }),
    [after],
    readings,
  );
  // ln of each die's rise after the renewal, for each set of figures
  const after0 = sets.map((values) => {
    const kept = new Map([...values].filter(([path]) => !isChanged(path)));
    return Float64Array.from(now(kept), (c) => Math.log(Math.max(1e-3, c - after.ambientC)));
  });
  // ln of the ratio of rises by place of the grid, set and die
  const steps = STEPS_OF[wears.length - 1]!;
  const places = gridOf(wears.length, steps);
  const foretold = places.map((z) => {
    let { record } = request;
    wears.forEach((w, k) => (record = w.recordAt(record, defaultAt(w.key, z[k]!))));
    const then = predictorOf(openCase({ ...plain, record }), [before], readings);
    return sets.map((values, s) => {
      const own = new Map([...values].filter(([path]) => !(isDusty && LINT.test(path))));
      wears.forEach((w, k) => own.set(w.key, defaultAt(w.key, z[k]!)));
      return Float64Array.from(
        then(own),
        (c, d) => Math.log(Math.max(1e-3, c - before.ambientC)) - after0[s]![d]!,
      );
    });
  });
  const read = dies.map((d) => Math.log(rise(before, d) / rise(after, d)));
  const sigma = dies.map((d) => Math.hypot(SENSOR_K / rise(before, d), SENSOR_K / rise(after, d)));
  const off = (s: number, d: number, z: readonly number[]) =>
    (between(foretold, z, steps, (at) => at[s]![d]!) - read[d]!) / sigma[d]!;
  const fine = gridOf(wears.length, steps * FINER);
  let likeliest = 0;
  const weights = Float64Array.from(fine, (z) => {
    const prior = Math.exp(-0.5 * z.reduce((sum, x) => sum + x * x, 0));
    let likely = 0;
    sets.forEach((_, s) => {
      const moved = z.map((x, k) => x + shiftOf(wears[k]!, x, s));
      let square = 0;
      for (let d = 0; d < dies.length; d++) square += off(s, d, moved) ** 2;
      likely += Math.exp(-0.5 * square);
    });
    likeliest = Math.max(likeliest, likely / sets.length);
    return prior * likely;
  });
  const sum = weights.reduce((a, b) => a + b, 0);
  if (!(likeliest > LEAST_LIKELY && sum > 0))
    return { why: 'no rate that is believed explains these two runs' };
  for (let i = 0; i < weights.length; i++) weights[i]! /= sum;
  const middle = wears.map((_, k) => fine.reduce((m, z, i) => m + weights[i]! * z[k]!, 0));
  const covariance = new Matrix(
    wears.map((_, a) =>
      wears.map((_, b) =>
        fine.reduce((m, z, i) => m + weights[i]! * (z[a]! - middle[a]!) * (z[b]! - middle[b]!), 0),
      ),
    ),
  );
  const keys = wears.map((w) => w.key);
  return {
    evidence: { keys, ...evidenceFrom(covariance, middle) },
    rates: keys.map((key, k) => {
      const order = fine.map((z, i) => [z[k]!, weights[i]!] as const).sort((a, b) => a[0] - b[0]);
      const at = (share: number) => {
        let passed = 0;
        for (const [z, w] of order) if ((passed += w) >= share) return defaultAt(key, z);
        return defaultAt(key, WIDEST);
      };
      return { key, p05: at(0.05), p50: at(0.5), p95: at(0.95) };
    }),
  };
}

const rise = (run: SteadyRun, die: string): number => run.junctionC![die]! - run.ambientC;

function wearsOf({ request, change, hoursSince }: Renewal): Wear[] | { why: string } {
  const { record } = request;
  const found: Wear[] = [];
  const stacks = record.finStacks ?? [];
  const cleaned = change.filter((c) => LINT.test(c.path) && c.to === 0).length;
  const aged = change.filter((c) => AGE.test(c.path) && c.to === 0);
  if (cleaned > 0) {
    if (hoursSince === null)
      return { why: 'hours of use since the fins were last clean are not known' };
    found.push({
      key: LINT_RATE,
      doubt: HOURS_DOUBT,
      recordAt: (r, rate) => {
        const lintShare = Math.min(MOST_LINT, 1 - (1 - rate) ** (hoursSince / 1000));
        return { ...r, finStacks: stacks.map((s) => ({ ...s, lintShare })) };
      },
    });
  }
  if (aged.length > 0) {
    const ids = aged.map((c) => AGE.exec(c.path)![1]);
    const dies = (record.dies ?? []).filter((d) => ids.includes(d.id));
    const kinds = [...new Set(dies.map((d) => d.interface?.kind ?? 'paste'))];
    const key = `${AGEING}${kinds[0]}` as DefaultKey;
    if (kinds.length !== 1) return { why: 'the dies were under different materials' };
    if (dies.some((d) => !((figureValue(d.interface?.ageYears) ?? 0) > 0)))
      return { why: 'years since the interface material was renewed are not recorded' };
    // its ± is drawn with all else that is recorded
    found.push({ key, doubt: 0, recordAt: (r) => r });
  }
  return found.length > 0 ? found : { why: 'neither fins nor interface material were renewed' };
}

/** Doubt of the time is one of the rate: only their product is read. */
function shiftOf({ key, doubt }: Wear, z: number, set: number): number {
  if (doubt === 0) return 0;
  const rate = (at: number) => -Math.log1p(-defaultAt(key, at));
  const perZ = (Math.log(rate(z + 0.05)) - Math.log(rate(z - 0.05))) / 0.1;
  // evenly over the normal distribution, in an order that has nothing to do with that of the sets
  const golden = ((set + 0.5) * 0.6180339887498949) % 1;
  return (doubt * normalQuantile(golden)) / perZ;
}

/** Places of a grid over the rates, the last one running fastest. */
function gridOf(dimensions: number, steps: number): number[][] {
  const along = Array.from({ length: steps + 1 }, (_, i) => WIDEST * ((2 * i) / steps - 1));
  return dimensions === 1 ? along.map((z) => [z]) : along.flatMap((a) => along.map((b) => [a, b]));
}

/** Straight between places of the grid, in one or two dimensions. */
function between<T>(
  places: readonly T[],
  z: readonly number[],
  steps: number,
  of: (at: T) => number,
): number {
  const at = z.map((x) => {
    const place = ((Math.min(WIDEST, Math.max(-WIDEST, x)) / WIDEST + 1) * steps) / 2;
    const from = Math.min(steps - 1, Math.floor(place));
    return [from, place - from] as const;
  });
  const [i, s] = at[0]!;
  if (at.length === 1) return of(places[i]!) * (1 - s) + of(places[i + 1]!) * s;
  const [j, t] = at[1]!;
  const row = (k: number) => {
    const first = k * (steps + 1) + j;
    return of(places[first]!) * (1 - t) + of(places[first + 1]!) * t;
  };
  return row(i) * (1 - s) + row(i + 1) * s;
}
