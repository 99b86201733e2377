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
 * type 6). Wider than type 7, which matters for few draws.
 *
 * @param sorted rising, at least two values
 * @param probability 0…1
 * Source: Hyndman & Fan, The American Statistician 50 (1996).
 */
export function quantileOfDraws(sorted: ArrayLike<number>, probability: number): number {
  const n = sorted.length;
  const at = ((n + 1) * probability - 1) / (n - 1);
  return quantileOfSorted(sorted, Math.min(1, Math.max(0, at)));
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
