import { goldenSection } from '../numerics/goldenSection';
import { filled } from './channels';

/** Points of a temperature that are fitted. */
const POINTS = 400;
/** Time constants that are tried first, from the shortest step to half the time, spaced evenly in their logarithm. */
const TRIED = 13;
/** A further time constant must lower the squares left by this share. */
const BETTER_BY = 0.5;
const MOST = 2;

/** One time constant's share of a die's temperature. */
interface Fit {
  timeConstantsS: number[];
  squares: number;
}

/**
 * Time constants of a die's temperature, from its powers as they were: `T = T₀ + Σᵢ (aᵢ Fτᵢ[P_cpu] + bᵢ Fτᵢ[P_gpu] + cᵢ e^(−t/τᵢ)) + d P`,
 * where `Fτ` is the power passed through a first-order lag, exact for powers held over a step. For given τ the rest is linear; the τ are
 * sought. One more time constant is taken only where it halves the squares left.
 *
 * @param timeS of each sample, evenly spaced or not
 * @param temperatureC NaN where missing
 * @param powers of the dies
 * @returns rising, s; empty where nothing warms
 * Source: variable projection, Golub & Pereyra 1973; first-order lags, any text on heat conduction in lumped bodies.
 */
export function timeConstants(
  timeS: Float64Array,
  temperatureC: Float64Array,
  powers: readonly Float64Array[],
): number[] {
  const n = timeS.length;
  const rows = evenly(temperatureC, POINTS, powers);
  if (rows.length < 12 || n < 12) return [];
  const lasts = timeS[n - 1]! - timeS[0]!;
  const usual = lasts / (n - 1);
  const temperatures = Float64Array.from(rows, (i) => temperatureC[i]!);
  const inputs = powers.map(filled);
  const variance = squaresAbout(temperatures);
  if (!(variance / rows.length > 1)) return [];
  const lagged = new Map<string, Float64Array[]>();
  const columnsFor = (tau: number): Float64Array[] => {
    const key = tau.toPrecision(12);
    const known = lagged.get(key);
    if (known) return known;
    const lags = inputs.map((p) => lag(p, timeS, tau));
    const made = [
      ...lags.map((c) => Float64Array.from(rows, (i) => c[i]!)),
      Float64Array.from(rows, (i) => Math.exp(-(timeS[i]! - timeS[0]!) / tau)),
    ];
    lagged.set(key, made);
    return made;
  };
  const direct = inputs.map((p) => Float64Array.from(rows, (i) => p[i]!));
  const squaresWith = (taus: readonly number[]): number =>
    leastSquares([...direct, ...taus.flatMap(columnsFor)], temperatures);

  const low = Math.max(1.5 * usual, 0.2);
  const high = lasts;
  if (!(high > 4 * low)) return [];
  const tried = Array.from(
    { length: TRIED },
    (_, k) => low * Math.pow(high / low, k / (TRIED - 1)),
  );
  const spacing = Math.log(high / low) / (TRIED - 1);
  let best: Fit = { timeConstantsS: [], squares: leastSquares(direct, temperatures) };
  for (let count = 1; count <= MOST; count++) {
    let start: Fit | null = null;
    for (const taus of choices(tried, count)) {
      const squares = squaresWith(taus);
      if (!start || squares < start.squares) start = { timeConstantsS: taus, squares };
    }
    const found = refine(start!, spacing, (taus) =>
      taus.some((t) => t < low / 2 || t > 2 * high) ? Infinity : squaresWith(taus),
    );
    lagged.clear();
    if (!(found.squares < BETTER_BY * best.squares)) break;
    best = { ...found, timeConstantsS: found.timeConstantsS.sort((a, b) => a - b) };
    // what is left is noise of whole digits
    if (best.squares / rows.length < 1e-6) break;
  }
  return best.timeConstantsS.filter((t) => t < high);
}

/** Powers that were passed through a first-order lag, beginning as if they had been so for ever. */
function lag(power: Float64Array, timeS: Float64Array, tau: number): Float64Array {
  const out = new Float64Array(power.length);
  let y = power[0]!;
  let step = NaN;
  let share = 0;
  out[0] = y;
  for (let i = 1; i < out.length; i++) {
    const own = timeS[i]! - timeS[i - 1]!;
    // steps are mostly alike
    if (own !== step) {
      step = own;
      share = -Math.expm1(-own / tau);
    }
    // held over the step at what was read at its beginning
    y += (power[i - 1]! - y) * share;
    out[i] = y;
  }
  return out;
}

/**
 * Samples to fit: about as many as asked, closer together behind each change of power, where fast parts show.
 */
function evenly(values: Float64Array, points: number, powers: readonly Float64Array[]): number[] {
  const n = values.length;
  const every = Math.max(1, Math.floor(n / (points / 2)));
  const near = Math.max(10, Math.floor(points / 12));
  const wanted = new Set<number>();
  for (let i = 0; i < n; i += every) wanted.add(i);
  const steps = Array.from({ length: Math.max(0, n - 1) }, (_, i) => ({
    at: i,
    by: Math.max(0, ...powers.map((p) => Math.abs((p[i + 1] ?? 0) - (p[i] ?? 0)) || 0)),
  }));
  steps.sort((a, b) => b.by - a.by);
  for (const { at } of steps.slice(0, 4)) {
    for (let i = at; i < Math.min(n, at + near); i++) wanted.add(i);
  }
  return [...wanted].filter((i) => Number.isFinite(values[i]!)).sort((a, b) => a - b);
}

function squaresAbout(x: Float64Array): number {
  const mean = x.reduce((a, b) => a + b, 0) / x.length;
  return x.reduce((sum, y) => sum + (y - mean) ** 2, 0);
}

/** Rounds in which each time constant is sought anew with the others held. */
const ROUNDS = 3;
const SEARCH_STEPS = 10;

/** Seeks the least squares near a start, one time constant after the other, ever nearer. */
function refine(start: Fit, spacing: number, squaresWith: (taus: number[]) => number): Fit {
  const taus = [...start.timeConstantsS];
  let squares = start.squares;
  let reach = spacing;
  for (let round = 0; round < ROUNDS; round++) {
    for (let k = 0; k < taus.length; k++) {
      const middle = Math.log(taus[k]!);
      const at = (log: number): number => {
        const moved = taus.map((t, i) => (i === k ? Math.exp(log) : t));
        const own = squaresWith(moved);
        if (own < squares) {
          squares = own;
          taus[k] = moved[k]!;
        }
        return -own;
      };
      goldenSection(at, middle - reach, middle + reach, SEARCH_STEPS);
    }
    reach *= 0.5;
  }
  return { timeConstantsS: taus, squares };
}

/** Columns that others explain to less than this share of their length add nothing. */
const EXPLAINED = 1e-6;

/** Squares left of the best linear fit with a constant, by orthogonal columns. */
function leastSquares(columns: readonly Float64Array[], x: Float64Array): number {
  const n = x.length;
  const ones = new Float64Array(n).fill(1);
  const left = Float64Array.from(x);
  const kept: Float64Array[] = [];
  for (const column of [ones, ...columns]) {
    const q = Float64Array.from(column);
    const length = Math.sqrt(dot(q, q));
    for (const other of kept) takeOff(q, other, dot(q, other));
    const own = Math.sqrt(dot(q, q));
    if (!(own > EXPLAINED * length)) continue;
    for (let i = 0; i < n; i++) q[i]! /= own;
    takeOff(left, q, dot(left, q));
    kept.push(q);
  }
  return dot(left, left);
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
}

function takeOff(from: Float64Array, q: Float64Array, times: number): void {
  for (let i = 0; i < from.length; i++) from[i]! -= times * q[i]!;
}

function choices(from: readonly number[], count: number): number[][] {
  if (count === 1) return from.map((t) => [t]);
  const out: number[][] = [];
  from.forEach((a, i) => from.slice(i + 2).forEach((b) => out.push([a, b])));
  return out;
}
