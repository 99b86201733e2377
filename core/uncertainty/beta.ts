const POINTS = 800;
const INVERSE = 1024;
const TAIL = 40;

/** Quantiles of a beta distribution with given shape, by a table of its distribution function. */
function betaSearch(alpha: number, beta: number): (probability: number) => number {
  const cumulative = new Float64Array(POINTS + 1);
  // in s with x = sin²(πs/2) the density has no poles at its ends
  const density = (s: number) => {
    const half = (Math.PI * s) / 2;
    return Math.pow(Math.sin(half), 2 * alpha - 1) * Math.pow(Math.cos(half), 2 * beta - 1);
  };
  let sum = 0;
  for (let i = 1; i <= POINTS; i++) {
    const a = (i - 1) / POINTS;
    const b = i / POINTS;
    sum += (density(a) + 4 * density((a + b) / 2) + density(b)) / 6;
    cumulative[i] = sum;
  }
  return (probability) => {
    const wanted = probability * sum;
    let lo = 0;
    let hi = POINTS;
    while (hi - lo > 1) {
      const mid = (lo + hi) >> 1;
      if (cumulative[mid]! <= wanted) lo = mid;
      else hi = mid;
    }
    const step = cumulative[hi]! - cumulative[lo]!;
    const s = (lo + (step > 0 ? (wanted - cumulative[lo]!) / step : 0.5)) / POINTS;
    return Math.sin((Math.PI * s) / 2) ** 2;
  };
}

/** {@link betaSearch}, read off a table of quantiles but for the tails, where it would be too coarse; for inner loops. */
export function betaQuantiles(alpha: number, beta: number): (probability: number) => number {
  const search = betaSearch(alpha, beta);
  const inverse = Float64Array.from({ length: INVERSE + 1 }, (_, i) => search(i / INVERSE));
  return (probability) => {
    const x = probability * INVERSE;
    const i = Math.floor(x);
    if (i < TAIL || i >= INVERSE - TAIL) return search(probability);
    return inverse[i]! + (x - i) * (inverse[i + 1]! - inverse[i]!);
  };
}

const MAX_STEPS = 60;
const CLOSE = 1e-4;

const known = new Map<string, (probability: number) => number>();

/** Quantiles of the beta distribution with given 5 % and 95 % quantiles; worked out once for each pair. */
export function betaOfRange(low: number, high: number): (probability: number) => number {
  const key = `${low} ${high}`;
  let found = known.get(key);
  if (!found) {
    const { alpha, beta } = fitBeta(low, high);
    found = betaQuantiles(alpha, beta);
    known.set(key, found);
  }
  return found;
}

/**
 * Shape of the beta distribution whose 5 % and 95 % quantiles are given.
 *
 * Newton steps on the logarithms of both shape parameters, from the moments.
 *
 * @param low, high 0 < low < high < 1
 * @returns alpha and beta, both ≥ 0.5 so that no share piles up at an end
 */
export function fitBeta(low: number, high: number): { alpha: number; beta: number } {
  const mean = 0.5 * (low + high);
  const spread = (high - low) / 3.29;
  const weight = Math.max(1, (mean * (1 - mean)) / (spread * spread) - 1);
  let a = Math.log(Math.max(0.5, mean * weight));
  let b = Math.log(Math.max(0.5, (1 - mean) * weight));
  const miss = (x: number, y: number) => {
    const q = betaSearch(Math.exp(x), Math.exp(y));
    return [q(0.05) - low, q(0.95) - high] as const;
  };
  const h = 1e-3;
  for (let i = 0; i < MAX_STEPS; i++) {
    const [f0, f1] = miss(a, b);
    if (Math.abs(f0) + Math.abs(f1) < CLOSE * (high - low)) break;
    const da = miss(a + h, b);
    const db = miss(a, b + h);
    const m00 = (da[0] - f0) / h;
    const m10 = (da[1] - f1) / h;
    const m01 = (db[0] - f0) / h;
    const m11 = (db[1] - f1) / h;
    const det = m00 * m11 - m01 * m10;
    if (!(Math.abs(det) > 1e-14)) break;
    const step = (x: number) => Math.max(-0.7, Math.min(0.7, x));
    a = Math.max(Math.log(0.5), a - step((f0 * m11 - f1 * m01) / det));
    b = Math.max(Math.log(0.5), b - step((m00 * f1 - m10 * f0) / det));
  }
  return { alpha: Math.exp(a), beta: Math.exp(b) };
}
