import { factorPlanned, planElimination, solvePlanned } from '../numerics/elimination';
import { normalQuantile } from './normal';
import { quantileOfSorted } from './quantile';
import { randomStream } from './random';

/** A number that would be read, in each draw, and its error. */
export interface ReadingColumn {
  values: Float64Array;
  /** One standard deviation. */
  plusMinus: number;
}

const RIDGE = 1e-6;
const SEED = 20;

/**
 * Half the 5–95 % band of an output that is left once some numbers were read: what a quadratic regression on the readings,
 * each with its error, cannot tell.
 *
 * @param output per draw
 * @param readings per draw, fewer than a twentieth of the draws
 * @returns never more than before
 * Source: conditional spread by regression on simulated data, as in approximate Bayesian computation (Beaumont, Zhang &
 * Balding 2002, from memory).
 */
export function halfBandAfter(output: Float64Array, readings: readonly ReadingColumn[]): number {
  const draws = output.length;
  const now = halfBand(output);
  if (readings.length === 0 || draws < 60) return now;
  const next = randomStream(SEED);
  const read = readings.map(({ values, plusMinus }) =>
    standardised(
      values.map((x) => x + plusMinus * normalQuantile(Math.min(1 - 1e-9, Math.max(1e-9, next())))),
    ),
  );
  const terms = [...read];
  for (let a = 0; a < read.length; a++) {
    for (let b = a; b < read.length; b++) {
      terms.push(standardised(read[a]!.map((x, i) => x * read[b]![i]!)));
    }
  }
  const m = terms.length;
  const middle = output.reduce((a, b) => a + b, 0) / draws;
  const gram = new Float64Array(m * m);
  const right = new Float64Array(m);
  for (let a = 0; a < m; a++) {
    for (let b = a; b < m; b++) {
      let sum = 0;
      for (let i = 0; i < draws; i++) sum += terms[a]![i]! * terms[b]![i]!;
      gram[a * m + b] = gram[b * m + a] = sum / draws + (a === b ? RIDGE : 0);
    }
    for (let i = 0; i < draws; i++) right[a]! += (terms[a]![i]! * (output[i]! - middle)) / draws;
  }
  const plan = planElimination(m, new Uint8Array(m * m).fill(1));
  factorPlanned(gram, plan);
  solvePlanned(gram, plan, right);
  const told = output.map((_, i) => {
    let sum = middle;
    for (let a = 0; a < m; a++) sum += right[a]! * terms[a]![i]!;
    return sum;
  });
  const left = output.map((y, i) => y - told[i]!);
  return Math.min(now, halfBandAbout(left, told));
}

/**
 * Half the 5–95 % band of what is left where what was told is as usual: where another limit holds, more or less may be left.
 */
function halfBandAbout(left: Float64Array, told: Float64Array): number {
  const n = left.length;
  const usual = quantileOfSorted(told.slice().sort(), 0.5);
  const spread = standardDeviation(told);
  if (!(spread > 1e-12)) return halfBand(left);
  const weights = told.map((x) => Math.exp(-0.5 * ((x - usual) / (NEAR_SPREADS * spread)) ** 2));
  const total = weights.reduce((a, b) => a + b, 0);
  const order = Array.from({ length: n }, (_, i) => i).sort((a, b) => left[a]! - left[b]!);
  const at = (p: number) => {
    let sum = 0;
    for (const i of order) if ((sum += weights[i]!) >= p * total) return left[i]!;
    return left[order[n - 1]!]!;
  };
  return 0.5 * (at(0.95) - at(0.05));
}

/** Draws count for less beyond so many deviations of what was told. */
const NEAR_SPREADS = 1;

function standardDeviation(values: Float64Array): number {
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  return Math.sqrt(values.reduce((sum, x) => sum + (x - mean) ** 2, 0) / values.length);
}

function halfBand(values: Float64Array): number {
  const sorted = values.slice().sort();
  return 0.5 * (quantileOfSorted(sorted, 0.95) - quantileOfSorted(sorted, 0.05));
}

/** With mean 0 and deviation 1; all 0 where it does not vary. */
function standardised(values: Float64Array): Float64Array {
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  const deviation = standardDeviation(values);
  return values.map((x) => (deviation > 1e-12 ? (x - mean) / deviation : 0));
}
