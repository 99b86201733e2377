import { inverse, Matrix, solve } from 'ml-matrix';

export interface LeastSquares {
  x: number[];
  /** Sum of the squared residuals. */
  cost: number;
  residuals: number[];
  /** `(JᵀJ)⁻¹`: of residuals in their own deviations, the covariance of x; null where they do not hold all of x. */
  covariance: Matrix | null;
}

const MOST_STEPS = 200;
const STILL = 1e-12;
const RELATIVE_STEP = 1e-6;

/**
 * Least sum of squares by Levenberg and Marquardt, slopes by central differences.
 *
 * @param residualsAt residuals in their own deviations; NaN where x is not possible
 * @param start a possible x
 * @param steps about how far each of x has to move to matter, for the differences
 * Source: Marquardt, J. SIAM 11 (1963); damping after Madsen, Nielsen and Tingleff, Methods for Non-Linear Least Squares Problems; from
 * memory.
 */
export function leastSquares(
  residualsAt: (x: readonly number[]) => number[],
  start: readonly number[],
  steps: readonly number[],
): LeastSquares {
  const n = start.length;
  const costOf = (r: readonly number[]) => r.reduce((s, e) => s + e * e, 0);
  let x = [...start];
  let residuals = residualsAt(x);
  let cost = costOf(residuals);
  let damping = 1e-3;
  let grow = 2;
  for (let step = 0; step < MOST_STEPS; step++) {
    const j = jacobian(residualsAt, x, steps);
    const jt = j.transpose();
    const normal = jt.mmul(j);
    const pull = jt.mmul(Matrix.columnVector(residuals));
    const damped = normal.clone();
    for (let i = 0; i < n; i++) {
      const own = normal.get(i, i);
      damped.set(i, i, own + damping * Math.max(own, 1e-12));
    }
    const move = solve(damped, pull).to1DArray();
    const there = x.map((v, i) => v - move[i]!);
    const then = residualsAt(there);
    const next = costOf(then);
    if (next < cost) {
      const gain = cost - next;
      x = there;
      residuals = then;
      cost = next;
      damping = Math.max(1e-12, damping / 3);
      grow = 2;
      if (gain < STILL * (1 + cost)) break;
    } else {
      // NaN counts as worse
      damping *= grow;
      grow *= 2;
      if (damping > 1e12) break;
    }
  }
  const j = jacobian(residualsAt, x, steps);
  return { x, cost, residuals, covariance: inverted(j.transpose().mmul(j)) };
}

function jacobian(
  residualsAt: (x: readonly number[]) => number[],
  x: readonly number[],
  steps: readonly number[],
): Matrix {
  const columns = x.map((v, i) => {
    const h = steps[i]! * RELATIVE_STEP;
    const at = (d: number) => residualsAt(x.map((w, k) => (k === i ? v + d : w)));
    const up = at(h);
    const down = at(-h);
    return up.map((u, r) => (u - down[r]!) / (2 * h));
  });
  return new Matrix(columns).transpose();
}

/** The inverse of a symmetric positive matrix; null where it has none. */
function inverted(a: Matrix): Matrix | null {
  const scale = a.diagonal().map((d) => 1 / Math.sqrt(Math.max(d, 1e-300)));
  const even = Matrix.zeros(a.rows, a.columns);
  for (let i = 0; i < a.rows; i++) {
    for (let k = 0; k < a.columns; k++) even.set(i, k, a.get(i, k) * scale[i]! * scale[k]!);
  }
  try {
    const out = inverse(even);
    if (out.to1DArray().some((v) => !Number.isFinite(v) || Math.abs(v) > 1e14)) return null;
    for (let i = 0; i < a.rows; i++) {
      for (let k = 0; k < a.columns; k++) out.set(i, k, out.get(i, k) * scale[i]! * scale[k]!);
    }
    return out;
  } catch {
    return null;
  }
}
