/** A temperature that approaches its end: `T(t) = endC − leftK · e^(−t/τ)`, t from the window's first sample. */
export interface Approach {
  endC: number;
  leftK: number;
  timeConstantS: number;
  /** Deviation of the samples about it. */
  sd: number;
}

/** Points to which a window is condensed before it is fitted. */
const POINTS = 200;
const TRIED = 40;

/**
 * Means of a window in at most so many parts of equal time, and by how much they scatter from what is read within each part alone;
 * parts without samples are left out.
 */
export function condensed(
  timeS: Float64Array,
  values: Float64Array,
  from: number,
  to: number,
  points = POINTS,
): { t: number[]; x: number[]; scatter: number } {
  const startS = timeS[from]!;
  const lastS = timeS[to - 1]! - startS;
  const width = lastS / Math.min(points, to - from);
  const t: number[] = [];
  const x: number[] = [];
  let sumT = 0;
  let sumX = 0;
  let square = 0;
  let count = 0;
  let bin = 0;
  let variance = 0;
  const close = () => {
    if (count > 0) {
      t.push(sumT / count);
      x.push(sumX / count);
      const within = square - (sumX * sumX) / count;
      if (count > 1) variance += Math.max(0, within) / (count - 1) / count;
    }
    sumT = sumX = square = count = 0;
  };
  for (let i = from; i < to; i++) {
    if (!Number.isFinite(values[i]!)) continue;
    const at = timeS[i]! - startS;
    const own = width > 0 ? Math.floor(at / width) : 0;
    if (own !== bin) {
      close();
      bin = own;
    }
    sumT += at;
    sumX += values[i]!;
    square += values[i]! * values[i]!;
    count++;
  }
  close();
  return { t, x, scatter: x.length > 0 ? Math.sqrt(variance / x.length) : 0 };
}

/** Straight line through points: `x = at0 + slope · t`, with the error of its slope. */
export function lineThrough(
  t: readonly number[],
  x: readonly number[],
): { at0: number; slope: number; slopeSe: number; sd: number } {
  const n = t.length;
  const mt = t.reduce((a, b) => a + b, 0) / n;
  const mx = x.reduce((a, b) => a + b, 0) / n;
  let tt = 0;
  let tx = 0;
  for (let i = 0; i < n; i++) {
    tt += (t[i]! - mt) ** 2;
    tx += (t[i]! - mt) * (x[i]! - mx);
  }
  const slope = tt > 0 ? tx / tt : 0;
  let square = 0;
  for (let i = 0; i < n; i++) square += (x[i]! - mx - slope * (t[i]! - mt)) ** 2;
  const sd = n > 2 ? Math.sqrt(square / (n - 2)) : 0;
  return { at0: mx - slope * mt, slope, slopeSe: tt > 0 ? sd / Math.sqrt(tt) : 0, sd };
}

/**
 * Fits one exponential approach to condensed points: for each time constant of a range the best line over `e^(−t/τ)`, then the
 * best of these.
 *
 * @param t s from the window's beginning, rising
 * @param x °C
 * @returns null where fewer than six points are there
 */
export function fitApproach(t: readonly number[], x: readonly number[]): Approach | null {
  if (t.length < 6) return null;
  const lasts = t[t.length - 1]! - t[0]!;
  let best: Approach | null = null;
  for (let k = 0; k <= TRIED; k++) {
    // from a thirtieth of the window to three windows: slower ones are straight lines
    const timeConstantS = (lasts / 30) * Math.pow(90, k / TRIED);
    const e = t.map((at) => Math.exp(-at / timeConstantS));
    const { at0, slope, sd } = lineThrough(e, x);
    if (!best || sd < best.sd) best = { endC: at0, leftK: -slope, timeConstantS, sd };
  }
  return best;
}
