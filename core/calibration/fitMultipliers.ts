import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import type { OpenCase } from '../case/openCase';
import { quantileOfDraws } from '../uncertainty/quantile';
import { drawAlike, type Draws } from './drawAlike';
import { explain, type Explanation } from './explanations';
import type { Residuals } from './findMode';
import { multipliersOf, type Multiplier } from './multipliers';
import { predictorOf } from './predictReadings';
import { deviationOf, faultOfRun, readingsOf, type Reading, type SteadyRun } from './steadyRun';
import { suspicionsOf, type Suspicion } from './suspicions';

/** A multiplier is told by the runs when its deviation is at most this share of the prior's. */
const DETERMINED = 0.5;
/** Parts of a direction smaller than this are left out of its name. */
const SMALL_PART = 0.25;
const DRAWS = 400;
/** Of the standard normal distribution, upper 5 % and 1 %. */
const Z95 = 1.6448536269514722;
const Z99 = 2.3263478740408408;
/** Squared deviations of a reading beyond which it is no reading, and nothing is to be suspected behind it. */
const ABSURD = 1e4;
/** A run or reading is named as contradicting the others from this chance on. */
const NAMED_FROM = 0.5;

export interface FittedMultiplier {
  name: string;
  named: boolean;
  /** Median, in prior deviations from the prior's median, and how well that is known (the prior: 1). */
  z: number;
  /** 5–95 % range of z. */
  zRange: [number, number];
  deviation: number;
  determined: boolean;
  /** Value there, the prior's median, and the 5–95 % range after the fit, of its first figure. */
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

/** A run, or one reading in it, that the others and the record contradict. */
export interface Contradiction {
  run: number;
  /** Index into the residuals; null where the whole run is meant. */
  reading: number | null;
  /** How likely it is that it is not what it says. */
  chance: number;
}

export interface Calibration {
  multipliers: FittedMultiplier[];
  directions: Direction[];
  residuals: (Reading & { predicted: number; inDeviations: number })[];
  contradictions: Contradiction[];
  /** What may be otherwise than was recorded, in words; empty where nothing is hard to believe. */
  suspicions: Suspicion[];
  /** Sum of squared deviations, readings and priors, over the number of readings; about 1 when the model holds. */
  misfit: number;
  /** Nothing explains the runs within their ±; every deviation was widened by the square root of the misfit. */
  unexplained: boolean;
  /** False where the search ended at its bound of steps: the fit may not be the best there is. */
  converged: boolean;
  /** The most likely multipliers. */
  z: Float64Array;
  /** Slopes of the readings' deviations there, readings × multipliers; what is taken as bad counts as little as it does in the fit. */
  jacobian: Matrix;
  draws: Draws;
  /** How many independent draws these are worth. */
  effectiveDraws: number;
  parameters: Multiplier[];
}

export interface FitOptions {
  /** Fits only multipliers whose name begins with one of these. */
  only?: readonly string[] | undefined;
  /** Draws from what is still possible, 400 by default; fewer are quicker and their ranges rougher. */
  draws?: number | undefined;
  /** False: leaves out the search for what may be otherwise than was recorded. */
  suspicions?: boolean | undefined;
}

/**
 * Fits multipliers to steady runs: `exp(−½ Σ ((read − foretold)/±)² − ½ Σ z²)`, z each multiplier's place in its own prior in
 * standard deviations. Priors bear what the runs do not tell, so that one run is enough and never more is fitted than the
 * readings can carry. A run or reading that contradicts the others is weighed against them and named. Draws from what is still
 * possible tell ranges and deviations.
 *
 * @param open the case, without a calibration
 * @param runs steady states, at least one with one reading
 * @throws RangeError where there are too few, or a number is not finite
 * Source: Gelman et al., Bayesian Data Analysis; from memory.
 */
export function fitMultipliers(
  open: OpenCase,
  runs: readonly SteadyRun[],
  options: FitOptions = {},
): Calibration {
  const readings = readingsOf(runs);
  if (readings.length === 0) {
    throw new RangeError('a fit needs at least one steady run with one reading');
  }
  for (const run of runs) {
    const fault = faultOfRun(run);
    if (fault) throw new RangeError(fault);
  }
  const parameters = multipliersOf(open, options.only);
  const predict = predictorOf(open, runs, readings).of(parameters);
  const n = parameters.length;
  const m = readings.length;
  const deviations = new Float64Array(m);
  const residuals: Residuals = (z) => {
    const predicted = predict(z);
    for (let i = 0; i < m; i++) deviations[i] = deviationOf(readings[i]!, predicted[i]!);
    return deviations;
  };
  const { explanations, plain } = explain(residuals, readings, n, chiSquare(m, Z95));
  const best = explanations[0]!;
  const { z, cost, converged, jacobian } = best.mode;
  const { draws, effectiveDraws, shares } = drawAlike(
    residuals,
    explanations,
    options.draws ?? DRAWS,
  );
  const misfit = cost / m;
  const unexplained = cost > chiSquare(m, Z99);
  if (unexplained) {
    const wider = Math.sqrt(misfit);
    draws.z.forEach((x, i) => (draws.z[i] = z[i % n]! + wider * (x - z[i % n]!)));
  }
  const predicted = predict(z).slice();
  const multipliers = parameters.map((p, i) => fitted(p, i, draws, n));
  const contradictions = contradictionsOf(explanations, shares, readings);
  const doubtful =
    unexplained || contradictions.length > 0 || multipliers.some((f) => Math.abs(f.z) > 2);
  return {
    multipliers,
    directions: directionsOf(multipliers, draws),
    residuals: readings.map((x, i) => ({
      ...x,
      predicted: predicted[i]!,
      inDeviations: deviationOf(x, predicted[i]!),
    })),
    contradictions,
    suspicions:
      doubtful && options.suspicions !== false && plain.cost < ABSURD * m
        ? suspicionsOf(
            open,
            runs,
            { parameters, plain, pushed: multipliers },
            contradictions.map((c) => c.run),
          )
        : [],
    misfit,
    unexplained,
    converged,
    z,
    jacobian,
    draws,
    effectiveDraws,
    parameters,
  };
}

function contradictionsOf(
  explanations: readonly Explanation[],
  shares: readonly number[],
  readings: readonly Reading[],
): Contradiction[] {
  const chanceOf = (bad: (x: Explanation) => boolean) =>
    explanations.reduce((sum, x, h) => sum + (bad(x) ? shares[h]! : 0), 0);
  const runs = [...new Set(readings.map((r) => r.run))].map((run): Contradiction => {
    return { run, reading: null, chance: chanceOf((x) => x.badRuns.includes(run)) };
  });
  const single = readings.map(({ run }, reading): Contradiction => {
    return { run, reading, chance: chanceOf((x) => x.badReadings.includes(reading)) };
  });
  return [...runs, ...single]
    .filter((c) => c.chance > NAMED_FROM)
    .sort((a, b) => b.chance - a.chance);
}

function fitted(p: Multiplier, at: number, draws: Draws, n: number): FittedMultiplier {
  const own = Float64Array.from({ length: draws.count }, (_, k) => draws.z[k * n + at]!).sort();
  const zAt = (probability: number) => quantileOfDraws(own, probability);
  const zRange: [number, number] = [zAt(0.05), zAt(0.95)];
  const deviation = Math.sqrt(covarianceAt(draws, n, at, at));
  const value = (x: number) => p.values(x)[0]![1];
  const ends = zRange.map(value);
  return {
    name: p.name,
    named: p.named,
    z: zAt(0.5),
    zRange,
    deviation,
    determined: deviation <= DETERMINED,
    value: value(zAt(0.5)),
    prior: value(0),
    low: Math.min(...ends),
    high: Math.max(...ends),
  };
}

function covarianceAt({ z, count }: Draws, n: number, a: number, b: number): number {
  let meanA = 0;
  let meanB = 0;
  let both = 0;
  for (let k = 0; k < count; k++) {
    const x = z[k * n + a]!;
    const y = z[k * n + b]!;
    meanA += x;
    meanB += y;
    both += x * y;
  }
  return (both - (meanA * meanB) / count) / count;
}

/**
 * Quantile of chi-square.
 *
 * @param degrees of freedom
 * @param z the same quantile of the standard normal distribution
 * Source: Wilson & Hilferty 1931; from memory.
 */
export function chiSquare(degrees: number, z: number): number {
  const a = 2 / (9 * degrees);
  return degrees * (1 - a + z * Math.sqrt(a)) ** 3;
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
