import { CholeskyDecomposition, EigenvalueDecomposition, Matrix } from 'ml-matrix';
import type { OpenCase } from '../case/openCase';
import { effectiveCount, quantileOfDraws } from '../uncertainty/quantile';
import { multipliersOf, valuesAt, type Multiplier } from './multipliers';
import { axesOf, drawPosterior, surrogateOf, type Draws } from './posterior';
import { predictorOf } from './predictReadings';
import { readingsOf, type Reading, type SteadyRun } from './steadyRun';

/** A multiplier is told by the runs when its deviation is at most this share of the prior's. */
const DETERMINED = 0.5;
/** Parts of a direction smaller than this are left out of its name. */
const SMALL_PART = 0.25;
const MAX_ITERATIONS = 30;
const STILL = 1e-6;
/** Width of a forward difference, prior deviations. */
const STEP = 0.05;
const DRAWS = 400;
/** Upper 1 % of the standard normal distribution. */
const Z99 = 2.3263478740408408;
export const MIN_RUNS = 2;
export const MIN_READINGS = 4;

export interface FittedMultiplier {
  name: string;
  named: boolean;
  /** Prior deviations from the prior's median, and how well that is known (the prior: 1). */
  z: number;
  /** 5–95 % range of z. */
  zRange: [number, number];
  deviation: number;
  determined: boolean;
  /** Value at the fit, the prior's median, and the 5–95 % range after the fit, of its first figure. */
  value: number;
  prior: number;
  low: number;
  high: number;
}

/** Several multipliers of which only a combination is told. */
export interface Direction {
  parts: { name: string; weight: number }[];
  deviation: number;
}

export interface Calibration {
  multipliers: FittedMultiplier[];
  directions: Direction[];
  residuals: (Reading & { predicted: number; inDeviations: number })[];
  /** Sum of squared deviations, readings and priors, over the number of readings; about 1 when the model holds. */
  misfit: number;
  /** The runs cannot be explained within their ±; every deviation was widened by the square root of the misfit. */
  unexplained: boolean;
  /** False where the search ended at its bound of steps: the fit may not be the best there is. */
  converged: boolean;
  z: Float64Array;
  /** What is known of all multipliers together, as displacements from `z`. */
  draws: Draws;
  parameters: Multiplier[];
}

export interface FitOptions {
  /** Fits only multipliers whose name begins with one of these. */
  only?: readonly string[] | undefined;
  /** Draws from what is still possible, 400 by default; fewer are quicker and their ranges rougher. */
  draws?: number | undefined;
}

/**
 * Fits multipliers to steady runs by maximum a posteriori: least `Σ ((read − foretold)/±)² + Σ z²`, z each multiplier's
 * place in its own prior in standard deviations. Priors bear what the runs do not tell, so that never more is fitted than
 * the readings can carry. Steps: Levenberg–Marquardt with Broyden's updates. Afterwards draws from the posterior tell
 * ranges and deviations.
 *
 * @param open the case, without a calibration
 * @param runs steady states, at least two with four readings between them
 * @throws RangeError where there are too few, or a number is not finite
 * Source: Gelman et al., Bayesian Data Analysis, ch. 4 (normal approximation at the mode); Marquardt 1963; from memory.
 */
export function fitMultipliers(
  open: OpenCase,
  runs: readonly SteadyRun[],
  options: FitOptions = {},
): Calibration {
  const readings = readingsOf(runs);
  if (runs.length < MIN_RUNS || readings.length < MIN_READINGS) {
    throw new RangeError(
      `a fit needs at least ${MIN_RUNS} steady runs and ${MIN_READINGS} readings`,
    );
  }
  if (readings.some((r) => !Number.isFinite(r.value))) {
    throw new RangeError('a reading is not a number');
  }
  const parameters = multipliersOf(open, options.only);
  const predict = predictorOf(open, runs, readings);
  const n = parameters.length;
  const m = readings.length;
  const at = (z: ArrayLike<number>) => {
    const predicted = predict(valuesAt(parameters, z));
    return Float64Array.from(readings, (r, i) => (r.value - predicted[i]!) / r.plusMinus);
  };
  const objective = (r: Float64Array, z: Float64Array) => squares(r) + squares(z);
  let z = new Float64Array(n);
  let r = at(z);
  let cost = objective(r, z);
  let jacobian = forward(at, z, r);
  let fresh = true;
  let lambda = 1e-3;
  let converged = false;
  for (let k = 0; k < MAX_ITERATIONS && !converged; k++) {
    // normal equations of residuals and priors together
    const normal = jacobian.transpose().mmul(jacobian).add(Matrix.eye(n));
    const slope = jacobian.transpose().mmul(Matrix.columnVector(r)).add(Matrix.columnVector(z));
    for (let i = 0; i < n; i++) normal.set(i, i, normal.get(i, i) * (1 + lambda));
    const step = new CholeskyDecomposition(normal).solve(slope);
    const next = Float64Array.from(z, (x, i) => x - step.get(i, 0));
    const rNext = at(next);
    const costNext = objective(rNext, next);
    const gained = cost - costNext;
    if (gained > 0) {
      broyden(jacobian, z, next, r, rNext);
      z = next;
      r = rNext;
      cost = costNext;
      lambda = Math.max(1e-9, lambda / 10);
    } else lambda *= 10;
    if (gained > STILL * (1 + cost)) {
      fresh = false;
    } else if (!fresh) {
      // at rest with an aged derivative: look once more with a new one
      jacobian = forward(at, z, r);
      fresh = true;
      lambda = 1e-3;
    } else converged = gained > 0 || lambda > 1;
  }
  const axes = axesOf(covarianceOf(forward(at, z, r)));
  const draws = drawPosterior(surrogateOf(at, z, axes), at, z, axes, options.draws ?? DRAWS);
  const misfit = cost / m;
  const unexplained = cost > chiSquare99(m);
  if (unexplained) {
    draws.d.forEach((x, i) => (draws.d[i] = x * Math.sqrt(misfit)));
  }
  const predicted = predict(valuesAt(parameters, z));
  const multipliers = parameters.map((p, i): FittedMultiplier => {
    const own = Float64Array.from({ length: draws.count }, (_, k) => draws.d[k * n + i]!);
    const worth = effectiveCount(own);
    own.sort();
    const low = quantileOfDraws(own, 0.05, worth);
    const high = quantileOfDraws(own, 0.95, worth);
    const deviation = Math.sqrt(covarianceAt(draws, n, i, i));
    const value = (x: number) => p.values(x)[0]![1];
    const ends = [value(z[i]! + low), value(z[i]! + high)];
    return {
      name: p.name,
      named: p.named,
      z: z[i]!,
      zRange: [z[i]! + low, z[i]! + high],
      deviation,
      determined: deviation <= DETERMINED,
      value: value(z[i]!),
      prior: value(0),
      low: Math.min(...ends),
      high: Math.max(...ends),
    };
  });
  return {
    multipliers,
    directions: directionsOf(multipliers, draws),
    residuals: readings.map((x, i) => ({
      ...x,
      predicted: predicted[i]!,
      inDeviations: r[i]!,
    })),
    misfit,
    unexplained,
    converged,
    z,
    draws,
    parameters,
  };
}

function squares(x: Float64Array): number {
  let sum = 0;
  for (const v of x) sum += v * v;
  return sum;
}

/** Residuals by z, forward differences: enough to find the way. */
function forward(at: (z: Float64Array) => Float64Array, z: Float64Array, r: Float64Array): Matrix {
  const out = new Matrix(r.length, z.length);
  for (let j = 0; j < z.length; j++) {
    const moved = z.slice();
    moved[j] = z[j]! + STEP;
    const up = at(moved);
    for (let i = 0; i < r.length; i++) out.set(i, j, (up[i]! - r[i]!) / STEP);
  }
  return out;
}

/** Broyden's update: the least change of a derivative that explains the step just taken. */
function broyden(
  jacobian: Matrix,
  from: Float64Array,
  to: Float64Array,
  rFrom: Float64Array,
  rTo: Float64Array,
): void {
  const step = to.map((x, j) => x - from[j]!);
  const length = squares(step);
  if (!(length > 0)) return;
  for (let i = 0; i < rFrom.length; i++) {
    let predicted = 0;
    for (let j = 0; j < step.length; j++) predicted += jacobian.get(i, j) * step[j]!;
    const missed = (rTo[i]! - rFrom[i]! - predicted) / length;
    for (let j = 0; j < step.length; j++) {
      jacobian.set(i, j, jacobian.get(i, j) + missed * step[j]!);
    }
  }
}

/** `(JᵀJ + I)⁻¹`: readings and priors together. */
function covarianceOf(jacobian: Matrix): Matrix {
  const n = jacobian.columns;
  const normal = jacobian.transpose().mmul(jacobian).add(Matrix.eye(n));
  const inverse = new CholeskyDecomposition(normal).solve(Matrix.eye(n));
  // as symmetric as it ought to be
  return inverse.clone().add(inverse.transpose()).mul(0.5);
}

function covarianceAt({ d, count }: Draws, n: number, a: number, b: number): number {
  let meanA = 0;
  let meanB = 0;
  let both = 0;
  for (let k = 0; k < count; k++) {
    const x = d[k * n + a]!;
    const y = d[k * n + b]!;
    meanA += x;
    meanB += y;
    both += x * y;
  }
  return (both - (meanA * meanB) / count) / count;
}

/**
 * 99 % quantile of chi-square.
 * Source: Wilson & Hilferty 1931; from memory.
 */
export function chiSquare99(degrees: number): number {
  const a = 2 / (9 * degrees);
  return degrees * (1 - a + Z99 * Math.sqrt(a)) ** 3;
}

/** Combinations of undetermined multipliers that are told although none of them is. */
function directionsOf(multipliers: readonly FittedMultiplier[], draws: Draws): Direction[] {
  const open = multipliers.flatMap((m, i) => (m.determined ? [] : [i]));
  if (open.length < 2) return [];
  const n = multipliers.length;
  const sub = new Matrix(open.map((i) => open.map((j) => covarianceAt(draws, n, i, j))));
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(sub, {
    assumeSymmetric: true,
  });
  return realEigenvalues
    .map((value, k): Direction => {
      const weights = open.map((_, i) => eigenvectorMatrix.get(i, k));
      const first = weights.reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a), 0);
      return {
        deviation: Math.sqrt(Math.max(0, value)),
        parts: open
          .map((at, i) => ({
            name: multipliers[at]!.name,
            weight: first < 0 ? -weights[i]! : weights[i]!,
          }))
          .filter((p) => Math.abs(p.weight) >= SMALL_PART)
          .sort((a, b) => Math.abs(b.weight) - Math.abs(a.weight)),
      };
    })
    .filter((d) => d.deviation <= DETERMINED && d.parts.length > 1)
    .sort((a, b) => a.deviation - b.deviation);
}
