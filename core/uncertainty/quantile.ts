/**
 * Quantile of a sorted sample, straight between its order statistics (Hyndman & Fan type 7).
 *
 * @param sorted rising, at least one value
 * @param probability 0…1
 * Source: Hyndman & Fan, The American Statistician 50 (1996).
 */
export function quantileOfSorted(sorted: ArrayLike<number>, probability: number): number {
  const at = (sorted.length - 1) * probability;
  const i = Math.min(sorted.length - 1, Math.floor(at));
  const j = Math.min(sorted.length - 1, i + 1);
  return sorted[i]! + (at - i) * (sorted[j]! - sorted[i]!);
}

/**
 * Quantile of a sorted sample for foretelling one more draw: the expected share below it is the probability (Hyndman & Fan
 * type 6). Wider than type 7, which matters for few draws, and all the more where they depend on each other.
 *
 * @param sorted rising, at least two values
 * @param probability 0…1
 * @param effective how many independent draws they are worth, from {@link effectiveCount}
 * Source: Hyndman & Fan, The American Statistician 50 (1996).
 */
export function quantileOfDraws(
  sorted: ArrayLike<number>,
  probability: number,
  effective = sorted.length,
): number {
  const n = Math.min(sorted.length, Math.max(2, effective));
  const at = ((n + 1) * probability - 1) / (n - 1);
  return quantileOfSorted(sorted, Math.min(1, Math.max(0, at)));
}

/**
 * How many independent draws a chain is worth, `n / (1 + 2 Σ ρ_k)`, the sum of its autocorrelations ended before the first
 * pair of neighbours whose sum is not positive.
 *
 * @param chain in the order drawn
 * @returns 1…n; n where nothing varies
 * Source: Geyer, “Practical Markov chain Monte Carlo”, Statistical Science 7 (1992), initial positive sequence; from memory.
 */
export function effectiveCount(chain: ArrayLike<number>): number {
  const n = chain.length;
  let mean = 0;
  for (let i = 0; i < n; i++) mean += chain[i]! / n;
  const covariance = (lag: number) => {
    let sum = 0;
    for (let i = lag; i < n; i++) sum += (chain[i]! - mean) * (chain[i - lag]! - mean);
    return sum;
  };
  const variance = covariance(0);
  if (!(variance > 0)) return n;
  let sum = 0;
  for (let lag = 1; lag + 1 < n; lag += 2) {
    const pair = (covariance(lag) + covariance(lag + 1)) / variance;
    if (pair <= 0) break;
    sum += pair;
  }
  return Math.max(1, Math.min(n, n / (1 + 2 * sum)));
}

/** Ranks of values, ties at their mean, scaled to mean 0 and variance 1; all zero where nothing varies. */
export function standardRanks(values: ArrayLike<number>): Float64Array {
  const n = values.length;
  const order = Array.from({ length: n }, (_, i) => i).sort((a, b) => values[a]! - values[b]!);
  const ranks = new Float64Array(n);
  for (let i = 0; i < n;) {
    let j = i;
    while (j + 1 < n && values[order[j + 1]!] === values[order[i]!]) j++;
    for (let k = i; k <= j; k++) ranks[order[k]!] = 0.5 * (i + j);
    i = j + 1;
  }
  const mean = (n - 1) / 2;
  let square = 0;
  for (let i = 0; i < n; i++) {
    ranks[i]! -= mean;
    square += ranks[i]! * ranks[i]!;
  }
  const scale = square > 0 ? 1 / Math.sqrt(square / n) : 0;
  for (let i = 0; i < n; i++) ranks[i]! *= scale;
  return ranks;
}
