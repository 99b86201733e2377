import { factorCholesky, solveLower, solveLowerTransposed } from '../numerics/cholesky';
import type { DefaultKey } from '../record/defaults';
import { normalQuantile } from '../uncertainty/normal';
import { randomStream } from '../uncertainty/random';
import type { FactorEvidence } from './factorEvidence';

/** What all machines together tell of a factor, in deviations of its built-in default. */
export interface LearnedFactor {
  key: DefaultKey;
  /** Machines that have it. */
  machines: number;
  /** Of the population's middle, and how well that is known. */
  mean: number;
  meanDeviation: number;
  /** Between machines. */
  between: number;
  /** Of a machine that was not measured: both together; 1 without any machine. */
  deviation: number;
}

/** What all machines together tell of the next one's factors. */
export interface Population {
  /** In the order of their names. */
  factors: LearnedFactor[];
  /** Of all factors of a machine that was not measured, row by row. */
  covariance: Float64Array;
}

/**
 * Of the variance of a default, how much differs from machine to machine rather than from laboratory to laboratory (common practice,
 * no source).
 */
export const BETWEEN_SHARE = 0.25;
/** Degrees of freedom of what is believed of the spread between machines before any was measured. */
const BETWEEN_FREEDOM = 4;
const SWEEPS = 4000;
const BURN_IN = 400;

export interface PopulationOptions {
  seed?: number | undefined;
  sweeps?: number | undefined;
}

/**
 * Learns a laboratory's factors from its machines. In deviations of the built-in default, each machine's factor is
 * `z ~ N(μ, τ²)`, `μ ~ N(0, 1 − s)`, `τ² ~ scaled inverse χ²` with mean s: without machines the next one's is N(0, 1), as built in.
 * Gibbs sampling of z, μ and τ² in turn; what is told is averaged over their conditional means.
 *
 * @param machines what the runs of each tell
 * @returns a factor for each default that any machine has
 * Source: Gelman et al., Bayesian Data Analysis, ch. 5 and 11; from memory.
 */
export function fitPopulation(
  machines: readonly FactorEvidence[],
  options: PopulationOptions = {},
): Population {
  const keys = [...new Set(machines.flatMap((m) => m.keys))].sort();
  const at = machines.map((m) => Int32Array.from(m.keys, (k) => keys.indexOf(k)));
  const K = keys.length;
  const sweeps = options.sweeps ?? SWEEPS;
  const next = randomStream(options.seed ?? 1);
  const normal = () => normalQuantile(Math.min(1 - 1e-12, Math.max(1e-12, next())));
  const priorScale = (BETWEEN_SHARE * (BETWEEN_FREEDOM - 2)) / BETWEEN_FREEDOM;
  const mu = new Float64Array(K);
  const tau2 = new Float64Array(K).fill(BETWEEN_SHARE);
  const z = machines.map((m) => new Float64Array(m.keys.length));
  const most = Math.max(0, ...z.map((x) => x.length));
  const precision = new Float64Array(most * most);
  const pull = new Float64Array(most);
  const counts = new Float64Array(K);
  for (const own of at) for (const k of own) counts[k]!++;
  const sum = new Float64Array(K);
  const squares = new Float64Array(K);
  // averages of conditional means, of their products and variances
  const meanOf = {
    mu: new Float64Array(K),
    products: new Float64Array(K * K),
    tau2: new Float64Array(K),
  };
  const middle = new Float64Array(K);
  for (let sweep = 0; sweep < BURN_IN + sweeps; sweep++) {
    sum.fill(0);
    machines.forEach((m, i) => {
      const own = at[i]!;
      const f = own.length;
      for (let a = 0; a < f; a++) {
        for (let b = 0; b <= a; b++) precision[a * f + b] = m.information[a * f + b]!;
        const k = own[a]!;
        precision[a * f + a]! += 1 / tau2[k]!;
        pull[a] = m.weighted[a]! + mu[k]! / tau2[k]!;
      }
      // mean and a draw at once: Lᵀ x = L⁻¹ h + ε
      if (!factorCholesky(precision, f)) throw new RangeError('information must not be negative');
      solveLower(precision, f, pull);
      for (let a = 0; a < f; a++) pull[a]! += normal();
      solveLowerTransposed(precision, f, pull);
      for (let a = 0; a < f; a++) {
        z[i]![a] = pull[a]!;
        sum[own[a]!]! += pull[a]!;
      }
    });
    for (let k = 0; k < K; k++) {
      const tells = counts[k]! / tau2[k]!;
      const variance = 1 / (1 / (1 - BETWEEN_SHARE) + tells);
      const mean = (variance * sum[k]!) / tau2[k]!;
      mu[k] = mean + Math.sqrt(variance) * normal();
      middle[k] = mean;
      if (sweep >= BURN_IN) {
        meanOf.mu[k]! += mean / sweeps;
        meanOf.products[k * K + k]! += variance / sweeps;
      }
    }
    if (sweep >= BURN_IN) {
      for (let k = 0; k < K; k++) {
        for (let j = 0; j < K; j++)
          meanOf.products[k * K + j]! += (middle[k]! * middle[j]!) / sweeps;
      }
    }
    squares.fill(0);
    z.forEach((own, i) => {
      for (let a = 0; a < own.length; a++) {
        const k = at[i]![a]!;
        squares[k]! += (own[a]! - mu[k]!) ** 2;
      }
    });
    for (let k = 0; k < K; k++) {
      const freedom = BETWEEN_FREEDOM + counts[k]!;
      const scaled = BETWEEN_FREEDOM * priorScale + squares[k]!;
      tau2[k] = scaled / chiSquareDraw(freedom, normal, next);
      if (sweep >= BURN_IN) meanOf.tau2[k]! += scaled / (freedom - 2) / sweeps;
    }
  }
  const covariance = meanOf.products.map(
    (x, i) => x - meanOf.mu[Math.floor(i / K)]! * meanOf.mu[i % K]!,
  );
  const factors = keys.map((key, k): LearnedFactor => {
    const mean = meanOf.mu[k]!;
    const meanVariance = covariance[k * K + k]!;
    return {
      key,
      machines: at.filter((own) => own.includes(k)).length,
      mean,
      meanDeviation: Math.sqrt(meanVariance),
      between: Math.sqrt(meanOf.tau2[k]!),
      deviation: Math.sqrt(meanVariance + meanOf.tau2[k]!),
    };
  });
  for (let k = 0; k < K; k++) covariance[k * K + k]! += meanOf.tau2[k]!;
  return { factors, covariance };
}

/**
 * A draw of χ² with so many degrees of freedom.
 *
 * Source: Marsaglia and Tsang 2000, “A simple method for generating gamma variables”; from memory.
 */
function chiSquareDraw(freedom: number, normal: () => number, uniform: () => number): number {
  const d = freedom / 2 - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = normal();
    const v = (1 + c * x) ** 3;
    if (v <= 0) continue;
    if (Math.log(Math.max(1e-300, uniform())) < 0.5 * x * x + d - d * v + d * Math.log(v))
      return 2 * d * v;
  }
}
