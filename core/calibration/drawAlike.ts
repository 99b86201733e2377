import { normalQuantile } from '../uncertainty/normal';
import { latinHypercube, randomStream } from '../uncertainty/random';
import { counted, type Explanation } from './explanations';
import { squares, type Residuals } from './findMode';
import { randomiseThenOptimise, takeAlike, worthOf } from './randomiseThenOptimise';

/** Weighted draws made in a round for each one kept; rounds go on until they are worth half of those kept. */
const LOOKS = 0.8;
const LEAST_WORTH = 0.5;
const MAX_ROUNDS = 6;
const FEWEST = 30;
const SEED = 1;
/** A prior deviation that moves all readings by less than this, in their deviations, is told nothing. */
const UNTOUCHED = 0.05;

/** Multipliers as they may be, each as likely as the next. */
export interface Draws {
  count: number;
  /** In prior deviations, draw by draw. */
  z: Float64Array;
}

/**
 * Draws over all explanations of some readings, each explanation by how likely it is.
 *
 * @param residuals deviations of the readings at z
 * @param explanations the best one first
 * @param count how many draws
 * @returns draws that count alike, how many independent ones they are worth, and the share of each explanation
 */
export function drawAlike(
  residuals: Residuals,
  explanations: readonly Explanation[],
  count: number,
): { draws: Draws; effectiveDraws: number; shares: number[] } {
  const n = explanations[0]!.mode.z.length;
  const top = explanations[0]!.logEvidence;
  const likely = explanations.map((x) => Math.exp(x.logEvidence - top));
  const sum = likely.reduce((a, b) => a + b, 0);
  const perRound = likely.map((p) => Math.max(FEWEST, Math.ceil((LOOKS * count * p) / sum)));
  const rows: Float64Array[] = [];
  const logWeights: number[] = [];
  const of: number[] = [];
  let effective = 0;
  for (let round = 1; round <= MAX_ROUNDS; round++) {
    explanations.forEach(({ mode, spread, logPrior }, h) => {
      const made = randomiseThenOptimise(
        counted(residuals, spread),
        mode.z,
        mode.jacobian,
        perRound[h]!,
        SEED + round,
      );
      for (let k = 0; k < made.count; k++) {
        rows.push(made.z.subarray(k * n, (k + 1) * n));
        // each explanation's weights add up to its own evidence
        logWeights.push(logPrior + made.logWeight[k]! - Math.log(made.count));
        of.push(h);
      }
    });
    effective = worthOf(logWeights);
    if (effective >= LEAST_WORTH * count) break;
  }
  const offset = randomStream(SEED)();
  const taken = takeAlike(logWeights, count, offset);
  const z = new Float64Array(count * n);
  const shares = explanations.map(() => 0);
  taken.forEach((at, k) => {
    z.set(rows[at]!, k * n);
    shares[of[at]!]! += 1 / count;
  });
  // what no reading touches is drawn anew, so that it stays exactly where it was
  const told = (j: number) =>
    explanations.some(({ mode }) => squares(mode.jacobian.getColumn(j)) > UNTOUCHED * UNTOUCHED);
  const u = latinHypercube(count, n, SEED);
  for (let j = 0; j < n; j++) {
    if (told(j)) continue;
    for (let k = 0; k < count; k++) z[k * n + j] = normalQuantile(u[j * count + k]!);
  }
  return { draws: { count, z }, effectiveDraws: Math.min(count, effective), shares };
}
