import { CholeskyDecomposition, EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { broyden } from './randomiseThenOptimise';

const MAX_STEPS = 60;
const STILL = 1e-3;
/** Damping beyond which no step is left to try; an aged derivative is not trusted so far. */
const MOST_DAMPED = 1e6;
const AGED = 1;
/** Width of a forward difference, prior deviations. */
const STEP = 0.05;

/** The most likely place of some unknowns. */
export interface Mode {
  z: Float64Array;
  /** Residuals there. */
  r: Float64Array;
  /** `|r|² + |z|²`. */
  cost: number;
  /** Of r, readings × unknowns; aged by updates where no new one was asked for. */
  jacobian: Matrix;
  /** False where the search ended at its bound of steps. */
  converged: boolean;
}

/** Residuals at z; the result may be the same array each time. */
export type Residuals = (z: Float64Array) => ArrayLike<number>;

/**
 * The place z where `|r(z)|² + |z|²` is least: Levenberg–Marquardt with Broyden's updates.
 *
 * @param residuals r
 * @param start where to begin, and the derivative known there; both from a mode nearby
 * @param fresh true: at rest the derivative is taken anew, and the search goes on if that moves it
 * Source: Marquardt 1963; Broyden 1965; from memory.
 */
export function findMode(
  residuals: Residuals,
  start: { z: Float64Array; jacobian?: Matrix },
  fresh: boolean,
): Mode {
  let z = start.z.slice();
  const n = z.length;
  let r = Float64Array.from(residuals(z));
  let cost = squares(r) + squares(z);
  let jacobian = start.jacobian?.clone() ?? slopesAt(residuals, z, r);
  let isFresh = !start.jacobian;
  let lambda = 1e-3;
  let converged = false;
  for (let k = 0; k < MAX_STEPS && !converged; k++) {
    const fromFresh = isFresh;
    // normal equations of residuals and priors together
    const normal = jacobian.transpose().mmul(jacobian).add(Matrix.eye(n));
    const slope = jacobian.transpose().mmul(Matrix.columnVector(r)).add(Matrix.columnVector(z));
    for (let i = 0; i < n; i++) normal.set(i, i, normal.get(i, i) * (1 + lambda));
    const step = new CholeskyDecomposition(normal).solve(slope);
    const next = Float64Array.from(z, (x, i) => x - step.get(i, 0));
    const rNext = Float64Array.from(residuals(next));
    const costNext = squares(rNext) + squares(next);
    const gained = cost - costNext;
    if (gained > 0) {
      broyden(jacobian, z, next, r, rNext);
      z = next;
      r = rNext;
      cost = costNext;
      lambda = Math.max(1e-9, lambda / 10);
      isFresh = false;
    } else lambda *= 10;
    const still = STILL * (1 + cost);
    if (gained > still) continue;
    const atRest = gained > -still;
    if (atRest || lambda > (fromFresh ? MOST_DAMPED : AGED)) {
      // at rest, or led astray, by an aged derivative: look once more with a new one
      if (fromFresh || (atRest && !fresh)) converged = true;
      else {
        jacobian = slopesAt(residuals, z, r);
        isFresh = true;
        lambda = 1e-3;
      }
    }
  }
  if (fresh && !isFresh && !converged) jacobian = slopesAt(residuals, z, r);
  return { z, r, cost, jacobian, converged };
}

export function squares(x: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < x.length; i++) sum += x[i]! * x[i]!;
  return sum;
}

/** Residuals by z, forward differences. */
export function slopesAt(
  residuals: Residuals,
  z: Float64Array,
  r: ArrayLike<number> = Float64Array.from(residuals(z)),
): Matrix {
  const out = new Matrix(r.length, z.length);
  const moved = z.slice();
  for (let j = 0; j < z.length; j++) {
    moved[j] = z[j]! + STEP;
    const up = residuals(moved);
    for (let i = 0; i < r.length; i++) out.set(i, j, (up[i]! - r[i]!) / STEP);
    moved[j] = z[j]!;
  }
  return out;
}

/**
 * Log of the evidence by the normal approximation at a mode, but for what all modes of the same readings share:
 * `−½ (|r|² + |z|²) − ½ log det (I + J Jᵀ)`.
 * Source: MacKay, Information Theory, Inference and Learning Algorithms, ch. 27; from memory.
 */
export function logEvidence({ cost, jacobian }: Mode): number {
  const told = jacobian.mmul(jacobian.transpose());
  const { realEigenvalues } = new EigenvalueDecomposition(told, { assumeSymmetric: true });
  return (
    -0.5 * cost - 0.5 * realEigenvalues.reduce((sum, x) => sum + Math.log1p(Math.max(0, x)), 0)
  );
}
