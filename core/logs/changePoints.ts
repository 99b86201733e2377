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
 * Takes from the costs of some stretches what their means explain of one series; apart from all else, so that it runs fast.
 *
 * @returns which of them costs least
 */
function explain(
  before: Float64Array,
  sum: number,
  atSum: Float64Array,
  open: Float64Array,
  to: number,
  count: number,
  out: Float64Array,
): number {
  let at = 0;
  let least = Infinity;
  for (let k = 0; k < count; k++) {
    const s = sum - atSum[k]!;
    const cost = before[k]! - (s * s) / (to - open[k]!);
    out[k] = cost;
    if (cost < least) {
      least = cost;
      at = k;
    }
  }
  return at;
}

const NEVER = 2 ** 31 - 1;
const DROP_EVERY = 16;

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
  /** Squares of all series from the beginning on. */
  const squares = Float64Array.from({ length: n + 1 }, (_, i) =>
    sums.reduce((all, { square }) => all + square[i]!, 0),
  );
  const best = new Float64Array(n + 1).fill(Infinity);
  best[0] = -penalty;
  const last = new Int32Array(n + 1);
  /** Beginnings that may still be best, the end from which on each never is, and what is looked up of each, beside each other. */
  const open = new Float64Array(n + 1);
  const until = new Int32Array(n + 1).fill(NEVER);
  /** The best up to there without the squares up to there: what is before a stretch, but for the squares up to its end. */
  const atBest = new Float64Array(n + 1);
  const atSum = series.map(() => new Float64Array(n + 1));
  const found = new Float64Array(n + 1);
  let count = 0;
  const begin = (from: number) => {
    open[count] = from;
    until[count] = NEVER;
    atBest[count] = best[from]! - squares[from]!;
    sums.forEach(({ sum }, p) => (atSum[p]![count] = sum[from]!));
    count++;
  };
  /** Leaves out those that never can be best again by then; to keep one for longer costs time alone. */
  const drop = (to: number) => {
    let kept = 0;
    for (let k = 0; k < count; k++) {
      if (to >= until[k]!) continue;
      open[kept] = open[k]!;
      until[kept] = until[k]!;
      atBest[kept] = atBest[k]!;
      for (let p = 0; p < series.length; p++) atSum[p]![kept] = atSum[p]![k]!;
      kept++;
    }
    count = kept;
  };
  begin(0);
  for (let to = shortest; to <= n; to++) {
    const m = count;
    let at = 0;
    for (let p = 0; p < series.length; p++) {
      const before = p === 0 ? atBest : found;
      at = explain(before, sums[p]!.sum[to]!, atSum[p]!, open, to, m, found);
    }
    const least = m > 0 ? found[at]! + squares[to]! : Infinity;
    if (least + penalty < best[to]!) {
      best[to] = least + penalty;
      last[to] = open[at]!;
    }
    if (to % DROP_EVERY === 0) {
      // a stretch from there costs more than a change here: it never catches up once another may begin and end after it
      const bar = best[to]! - squares[to]!;
      for (let k = 0; k < count; k++) {
        if (found[k]! > bar && until[k] === NEVER) until[k] = to + shortest;
      }
      drop(to);
    }
    const next = to - shortest + 1;
    if (next >= shortest) begin(next);
  }
  const out: number[] = [];
  for (let at = last[n]!; at > 0; at = last[at]!) out.push(at);
  return out.reverse();
}
