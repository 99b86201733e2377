/** Sums from the beginning on, so that what a stretch costs is told at once. */
function sumsOf(x: ArrayLike<number>): { sum: Float64Array; square: Float64Array } {
  const n = x.length;
  const sum = new Float64Array(n + 1);
  const square = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) {
    sum[i + 1] = sum[i]! + x[i]!;
    square[i + 1] = square[i]! + x[i]! * x[i]!;
  }
  return { sum, square };
}

/**
 * Where the mean of one or several series changes: the stretches for which the squares left about each stretch's own mean, and a
 * penalty for each change, are least together. Exact; beginnings that can never be best again are dropped on the way.
 *
 * @param series of one length, each in its own deviations: a penalty counts for all of them together
 * @param penalty of each change, in squared deviations; `p ln n` for p series is usual
 * @param shortest samples of a stretch, ≥ 1
 * @returns first sample of every stretch but the first, rising
 * Source: Killick, Fearnhead & Eckley, J. Am. Stat. Assoc. 107 (2012), PELT; from memory.
 */
export function changePoints(
  series: readonly ArrayLike<number>[],
  penalty: number,
  shortest = 1,
): number[] {
  const n = series[0]?.length ?? 0;
  const sums = series.map(sumsOf);
  const best = new Float64Array(n + 1).fill(Infinity);
  best[0] = -penalty;
  const last = new Int32Array(n + 1);
  /** Beginnings that may still be best, and the end from which on each never is. */
  const open = new Int32Array(n + 1);
  const until = new Float64Array(n + 1).fill(Infinity);
  const found = new Float64Array(n + 1);
  let count = 1;
  for (let to = shortest; to <= n; to++) {
    let kept = 0;
    for (let k = 0; k < count; k++) if (to < until[open[k]!]!) open[kept++] = open[k]!;
    count = kept;
    for (let k = 0; k < count; k++) found[k] = best[open[k]!]!;
    for (const { sum, square } of sums) {
      const s1 = sum[to]!;
      const q1 = square[to]!;
      for (let k = 0; k < count; k++) {
        const from = open[k]!;
        const s = s1 - sum[from]!;
        const cost = q1 - square[from]! - (s * s) / (to - from);
        if (cost > 0) found[k]! += cost;
      }
    }
    for (let k = 0; k < count; k++) {
      if (found[k]! + penalty >= best[to]!) continue;
      best[to] = found[k]! + penalty;
      last[to] = open[k]!;
    }
    // a stretch from there costs more than a change here: it never catches up once another may begin and end after it
    for (let k = 0; k < count; k++) {
      const from = open[k]!;
      if (found[k]! > best[to]!) until[from] = Math.min(until[from]!, to + shortest);
    }
    const next = to - shortest + 1;
    if (next >= shortest) open[count++] = next;
  }
  const out: number[] = [];
  for (let at = last[n]!; at > 0; at = last[at]!) out.push(at);
  return out.reverse();
}
