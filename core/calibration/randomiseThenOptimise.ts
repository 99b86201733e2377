import { EigenvalueDecomposition, LuDecomposition, Matrix } from 'ml-matrix';
import { normalQuantile } from '../uncertainty/normal';
import { latinHypercube } from '../uncertainty/random';

/** Directions that are told by less than this, in prior deviations, are left to the weights. */
const TOLD = 0.3;
const MAX_STEPS = 15;
/** How near a draw's equations are solved, in deviations. */
const NEAR = 0.1;
/** How much the volume bends in directions told by less than this is taken from the steps made. */
const WELL_TOLD = 0.7;
/** No step is longer than so many of the posterior's deviations. */
const LONGEST = 4;
/** Width of a difference, posterior deviations. */
const STEP = 0.2;

/** Independent draws with weights; none of them hangs on another. */
export interface WeightedDraws {
  /** Draw by draw. */
  z: Float64Array;
  /** Log of each draw's weight; −∞ where its equations found no solution. Their mean is the evidence. */
  logWeight: Float64Array;
  count: number;
}

/**
 * Draws of unknowns z, of which each is normal (0, 1) before, and r(z) after: `exp(−½|r(z)|² − ½|z|²)`.
 *
 * Each draw takes everything that the readings do not tell straight from the prior and solves for the few directions that they
 * tell, so that what is told in a hundred unknowns costs a handful of solves: `(z_k + s_k ψ_kᵀ r) / √(1 + s_k²) = ξ_k` with
 * `J = Ψ S Φᵀ` the derivative of r at the mode. How far the distribution of such draws is from the one wanted is known at
 * each of them and is its weight: `−½|r|² − ½|z_k|² + ½|g|² − log |det ∂g/∂z_k|`, g the left side. Nothing to tune; the same seed gives the same draws.
 *
 * @param residuals r at z; its result may be the same array each time
 * @param mode where `|r|² + |z|²` is least
 * @param jacobian of r at the mode, readings × unknowns
 * @param count number of draws
 * @param seed whole number
 * Source: Bardsley, Solonen, Haario & Laine, SIAM J. Sci. Comput. 36 (2014); Bardsley, Cui, Marzouk & Wang, SIAM J. Sci. Comput.
 * 42 (2020), in the subspace that the readings tell; from memory.
 */
export function randomiseThenOptimise(
  residuals: (z: Float64Array) => ArrayLike<number>,
  mode: Float64Array,
  jacobian: Matrix,
  count: number,
  seed: number,
): WeightedDraws {
  const n = mode.length;
  const m = jacobian.rows;
  const { told, psi, phi } = toldDirections(jacobian);
  const k = told.length;
  const scale = told.map((s) => Math.sqrt(1 + s * s));
  const xi = latinHypercube(count, n, seed);
  const middle = new Float64Array(k);
  for (let c = 0; c < k; c++) for (let j = 0; j < n; j++) middle[c]! += phi[c]![j]! * mode[j]!;

  const rest = new Float64Array(n);
  const z = new Float64Array(n);
  const place = (inside: ArrayLike<number>) => {
    z.set(rest);
    for (let c = 0; c < k; c++) {
      const x = inside[c]!;
      const direction = phi[c]!;
      for (let j = 0; j < n; j++) z[j]! += x * direction[j]!;
    }
    return residuals(z);
  };
  const equations = (inside: ArrayLike<number>, r: ArrayLike<number>) =>
    Float64Array.from({ length: k }, (_, c) => {
      let sum = 0;
      for (let i = 0; i < m; i++) sum += psi[c]![i]! * r[i]!;
      return (inside[c]! + told[c]! * sum) / scale[c]!;
    });
  /** Residuals in a copy of their own, since the next solve overwrites them. */
  const out: WeightedDraws = {
    z: new Float64Array(count * n),
    logWeight: new Float64Array(count).fill(-Infinity),
    count,
  };
  for (let row = 0; row < count; row++) {
    for (let j = 0; j < n; j++) {
      rest[j] = normalQuantile(Math.min(1 - 1e-12, Math.max(1e-12, xi[j * count + row]!)));
    }
    const wanted = new Float64Array(k);
    for (let c = 0; c < k; c++) for (let j = 0; j < n; j++) wanted[c]! += phi[c]![j]! * rest[j]!;
    for (let c = 0; c < k; c++) {
      const x = wanted[c]!;
      for (let j = 0; j < n; j++) rest[j]! -= x * phi[c]![j]!;
    }
    // Newton with Broyden's updates from where the readings would have it, were the machine straight
    let inside: Float64Array = middle.map((x, c) => x + wanted[c]! / scale[c]!);
    let r = Float64Array.from(place(inside));
    let g = equations(inside, r);
    const slope = Matrix.diag(scale);
    let off = distance(g, wanted);
    for (let step = 0; step < MAX_STEPS && off > NEAR; step++) {
      const next = newton(slope, inside, g, wanted, scale);
      if (!next) break;
      const rNext = Float64Array.from(place(next));
      const gNext = equations(next, rNext);
      broyden(slope, inside, next, g, gNext);
      inside = next;
      r = rNext;
      g = gNext;
      off = distance(g, wanted);
    }
    place(inside);
    out.z.set(z, row * n);
    if (!(off <= NEAR)) continue;
    const bent = slope;
    for (let c = 0; c < k; c++) {
      if (told[c]! < WELL_TOLD) continue;
      const h = STEP / scale[c]!;
      const moved = inside.slice();
      moved[c]! += h;
      const gMoved = equations(moved, place(moved));
      for (let a = 0; a < k; a++) bent.set(a, c, (gMoved[a]! - g[a]!) / h);
    }
    const volume = k > 0 ? Math.abs(new LuDecomposition(bent).determinant) : 1;
    let log = -Math.log(Math.max(1e-300, volume));
    for (let i = 0; i < m; i++) log -= 0.5 * r[i]! * r[i]!;
    for (let c = 0; c < k; c++) log += 0.5 * (g[c]! * g[c]! - inside[c]! * inside[c]!);
    out.logWeight[row] = log;
  }
  return out;
}

/** Directions of the unknowns that readings tell, best told first: `J = Ψ S Φᵀ`, by what they tell. */
function toldDirections(jacobian: Matrix): {
  told: number[];
  psi: Float64Array[];
  phi: Float64Array[];
} {
  const m = jacobian.rows;
  const n = jacobian.columns;
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(
    jacobian.mmul(jacobian.transpose()),
    { assumeSymmetric: true },
  );
  const order = realEigenvalues
    .map((value, at) => ({ s: Math.sqrt(Math.max(0, value)), at }))
    .filter(({ s }) => s > TOLD)
    .sort((a, b) => b.s - a.s);
  const psi = order.map(({ at }) =>
    Float64Array.from({ length: m }, (_, i) => eigenvectorMatrix.get(i, at)),
  );
  const phi = order.map(({ s }, c) => {
    const own = new Float64Array(n);
    for (let j = 0; j < n; j++) {
      for (let i = 0; i < m; i++) own[j]! += (jacobian.get(i, j) * psi[c]![i]!) / s;
    }
    return own;
  });
  return { told: order.map(({ s }) => s), psi, phi };
}

function distance(a: ArrayLike<number>, b: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += (a[i]! - b[i]!) ** 2;
  return Math.sqrt(sum);
}

/** A step towards `g = wanted`, no longer than is sensible; null where the slope has gone flat. */
function newton(
  slope: Matrix,
  inside: Float64Array,
  g: Float64Array,
  wanted: Float64Array,
  scale: readonly number[],
): Float64Array | null {
  const lu = new LuDecomposition(slope);
  if (lu.isSingular()) return null;
  const step = lu.solve(Matrix.columnVector(g.map((x, c) => x - wanted[c]!))).to1DArray();
  const length = Math.sqrt(step.reduce((sum, x, c) => sum + (x * scale[c]!) ** 2, 0));
  const shorter = Math.min(1, LONGEST / length);
  return inside.map((x, c) => x - shorter * step[c]!);
}

/** Broyden's update: the least change of a derivative that explains the step just taken. */
export function broyden(
  slope: Matrix,
  from: ArrayLike<number>,
  to: ArrayLike<number>,
  yFrom: ArrayLike<number>,
  yTo: ArrayLike<number>,
): void {
  const n = slope.columns;
  const step = Array.from({ length: n }, (_, j) => to[j]! - from[j]!);
  const length = step.reduce((sum, x) => sum + x * x, 0);
  if (!(length > 0)) return;
  for (let i = 0; i < slope.rows; i++) {
    let foretold = 0;
    for (let j = 0; j < n; j++) foretold += slope.get(i, j) * step[j]!;
    const missed = (yTo[i]! - yFrom[i]! - foretold) / length;
    for (let j = 0; j < n; j++) slope.set(i, j, slope.get(i, j) + missed * step[j]!);
  }
}

/**
 * Draws that count alike, taken from weighted ones at even distances along their weights.
 *
 * @param logWeights at least one finite
 * @param count how many
 * @param offset 0…1, where the first one lies
 * @returns which draw each is
 * Source: systematic resampling, Kitagawa 1996; from memory.
 */
export function takeAlike(
  logWeights: ArrayLike<number>,
  count: number,
  offset: number,
): Int32Array {
  const weights = normalised(logWeights);
  const out = new Int32Array(count);
  let sum = 0;
  let at = -1;
  for (let k = 0; k < count; k++) {
    const wanted = (k + offset) / count;
    while (sum <= wanted && at < weights.length - 1) sum += weights[++at]!;
    out[k] = at;
  }
  return out;
}

/** How many draws of equal weight the weighted ones are worth: `(Σw)² / Σw²`. Source: Kish 1965; from memory. */
export function worthOf(logWeights: ArrayLike<number>): number {
  if (greatest(logWeights) === -Infinity) return 0;
  let squares = 0;
  for (const w of normalised(logWeights)) squares += w * w;
  return 1 / squares;
}

/** Log of the mean of the weights. */
export function logMean(logWeights: ArrayLike<number>): number {
  const most = greatest(logWeights);
  let sum = 0;
  for (let i = 0; i < logWeights.length; i++) sum += Math.exp(logWeights[i]! - most);
  return most + Math.log(sum / logWeights.length);
}

function greatest(x: ArrayLike<number>): number {
  let most = -Infinity;
  for (let i = 0; i < x.length; i++) most = Math.max(most, x[i]!);
  return most;
}

/** Weights that add up to 1; all alike where none of them counts. */
function normalised(logWeights: ArrayLike<number>): Float64Array {
  const most = greatest(logWeights);
  if (most === -Infinity) return new Float64Array(logWeights.length).fill(1 / logWeights.length);
  const w = Float64Array.from(logWeights, (x) => Math.exp(x - most));
  const sum = w.reduce((a, b) => a + b, 0);
  return w.map((x) => x / sum);
}
