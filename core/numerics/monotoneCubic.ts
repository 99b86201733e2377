/** A value is met to within this share of its step, by so many steps at most: far finer than any reading. */
const NEAR = 1e-12;
const STEPS = 60;

/**
 * Where a rising curve through points reaches a value. Between the points it is a cubic whose slopes keep it rising, so that it is as
 * smooth as what it stands for and never turns back.
 *
 * @param x places, rising
 * @param y values at them, nowhere falling
 * @param wanted value
 * @returns the first place; the first of all where it is reached there already, the last where it never is
 * @example whereReached([0, 1, 2], [0, 1, 4], 1) // 1
 * Source: Fritsch & Butland, SIAM J. Sci. Stat. Comput. 5 (1984) 300–304; from memory. Sought by Newton’s steps within bounds.
 */
export function whereReached(x: ArrayLike<number>, y: ArrayLike<number>, wanted: number): number {
  const last = x.length - 1;
  if (wanted <= y[0]!) return x[0]!;
  let i = 0;
  while (i < last && y[i + 1]! < wanted) i++;
  if (i === last || y[i + 1]! === wanted) return x[Math.min(last, i + 1)]!;
  const h = x[i + 1]! - x[i]!;
  const from = slopeAt(x, y, i);
  const to = slopeAt(x, y, i + 1);
  // value(t) = y + t (c1 + t (c2 + t c3)), rising from y to the next
  const rise = y[i + 1]! - y[i]!;
  const c1 = h * from;
  const c2 = 3 * rise - h * (2 * from + to);
  const c3 = h * (from + to) - 2 * rise;
  const above = wanted - y[i]!;
  let lo = 0;
  let hi = 1;
  let t = above / rise;
  for (let k = 0; k < STEPS; k++) {
    const left = above - t * (c1 + t * (c2 + t * c3));
    if (Math.abs(left) <= NEAR * rise) break;
    if (left > 0) lo = t;
    else hi = t;
    const newton = t + left / (c1 + t * (2 * c2 + 3 * t * c3));
    // where the curve is too flat for a step by its slope the interval is halved
    t = newton > lo && newton < hi ? newton : 0.5 * (lo + hi);
  }
  return x[i]! + t * h;
}

/** Slope between a point and the next. */
function secant(x: ArrayLike<number>, y: ArrayLike<number>, k: number): number {
  return (y[k + 1]! - y[k]!) / (x[k + 1]! - x[k]!);
}

/** Slope at a point: a weighted harmonic mean of those beside it; nought at a level stretch. */
function slopeAt(x: ArrayLike<number>, y: ArrayLike<number>, i: number): number {
  const last = x.length - 1;
  if (last < 2) return secant(x, y, 0);
  if (i === 0) return atEnd(secant(x, y, 0), secant(x, y, 1), x[1]! - x[0]!, x[2]! - x[1]!);
  if (i === last) {
    const before = x[last - 1]! - x[last - 2]!;
    return atEnd(secant(x, y, last - 1), secant(x, y, last - 2), x[last]! - x[last - 1]!, before);
  }
  const a = secant(x, y, i - 1);
  const b = secant(x, y, i);
  if (!(a * b > 0)) return 0;
  const before = x[i]! - x[i - 1]!;
  const after = x[i + 1]! - x[i]!;
  const w1 = 2 * after + before;
  const w2 = after + 2 * before;
  return (w1 + w2) / (w1 / a + w2 / b);
}

/** Three-point slope at an end, between nought and three times the secant beside it. */
function atEnd(own: number, next: number, h: number, hNext: number): number {
  const slope = ((2 * h + hNext) * own - h * next) / (h + hNext);
  return Math.min(3 * own, Math.max(0, slope));
}
