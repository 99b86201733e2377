import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { normalQuantile } from '../uncertainty/normal';
import { randomStream } from '../uncertainty/random';

/** How far the draws' ellipses and the surrogate look, over the approximation at the mode, so that long tails are reached. */
const WIDER = 1.6;

/**
 * Axes along which what is known of some multipliers is independent, each as long as its deviation: columns `√λ_k v_k` of a
 * covariance. Along them the trade-offs between multipliers are followed, which one at a time would be missed.
 *
 * @param covariance symmetric, positive
 */
export function axesOf(covariance: Matrix): Matrix {
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(covariance, {
    assumeSymmetric: true,
  });
  return eigenvectorMatrix.mmul(
    Matrix.diag(realEigenvalues.map((x) => Math.sqrt(Math.max(1e-12, x)))),
  );
}

/**
 * Several numbers as they follow from a place e on the axes around a point: `y ≈ y₀ + Σ e_k (a_k + b_k e_k) + Σ c_kl e_k e_l`,
 * through what the core itself gives around the point.
 */
export interface Surrogate {
  middle: Float64Array;
  /** Number by number, axis by axis. */
  slope: Float64Array;
  bend: Float64Array;
  /** Pairs of the axes that are least straight: k and l in turn. */
  pairs: Int32Array;
  /** Number by number, pair by pair. */
  both: Float64Array;
  /** Room for the products of pairs. */
  products: Float64Array;
}

/** Axes whose products are followed. */
const MAX_PAIRED = 8;

/**
 * Makes a surrogate.
 *
 * @param at gives the numbers at a point
 * @param z the point
 * @param axes from {@link axesOf}
 */
export function surrogateOf(
  at: (z: Float64Array) => Float64Array,
  z: Float64Array,
  axes: Matrix,
): Surrogate {
  const n = z.length;
  const along = (k: number, l?: number) =>
    at(
      z.map((x, i) => x + WIDER * (axes.get(i, k) + (l === undefined ? 0 : axes.get(i, l)))),
    ).slice();
  const middle = at(z).slice();
  const m = middle.length;
  const slope = new Float64Array(m * n);
  const bend = new Float64Array(m * n);
  const ups: Float64Array[] = [];
  const bent = new Float64Array(n);
  for (let k = 0; k < n; k++) {
    const up = along(k);
    const down = at(z.map((x, i) => x - WIDER * axes.get(i, k)));
    ups.push(up);
    for (let i = 0; i < m; i++) {
      slope[i * n + k] = (up[i]! - down[i]!) / (2 * WIDER);
      const b = (up[i]! - 2 * middle[i]! + down[i]!) / (2 * WIDER * WIDER);
      bend[i * n + k] = b;
      bent[k]! += b * b;
    }
  }
  const paired = Array.from({ length: n }, (_, k) => k)
    .sort((a, b) => bent[b]! - bent[a]!)
    .slice(0, MAX_PAIRED);
  const pairs = Int32Array.from(
    paired.flatMap((k, i) => paired.slice(0, i).flatMap((l) => [k, l])),
  );
  const count = pairs.length / 2;
  const both = new Float64Array(m * count);
  for (let p = 0; p < count; p++) {
    const k = pairs[2 * p]!;
    const l = pairs[2 * p + 1]!;
    const together = along(k, l);
    for (let i = 0; i < m; i++) {
      both[i * count + p] =
        (together[i]! - ups[k]![i]! - ups[l]![i]! + middle[i]!) / (WIDER * WIDER);
    }
  }
  return { middle, slope, bend, pairs, both, products: new Float64Array(count) };
}

/** The surrogate's numbers at a place on its axes. */
export function follow(s: Surrogate, e: ArrayLike<number>, out: Float64Array): void {
  const { middle, slope, bend, pairs, both, products } = s;
  const n = e.length;
  const count = products.length;
  for (let p = 0; p < count; p++) products[p] = e[pairs[2 * p]!]! * e[pairs[2 * p + 1]!]!;
  for (let i = 0; i < out.length; i++) {
    let y = middle[i]!;
    for (let k = 0, at = i * n; k < n; k++, at++) y += e[k]! * (slope[at]! + e[k]! * bend[at]!);
    for (let p = 0, at = i * count; p < count; p++, at++) y += products[p]! * both[at]!;
    out[i] = y;
  }
}

/** Draws from what is known of some multipliers, each as likely as the next. */
export interface Draws {
  count: number;
  /** Displacements of the multipliers, row by row. */
  d: Float64Array;
}

/** Moves along the surrogate between two looks at the core itself, looks for each draw kept, and draws before the first. */
const MOVES = 8;
const LOOKS = 1;
const SETTLE = 10;
const SEED = 1;

/**
 * Draws from the posterior `exp(−½(|r(z)|² + |z|²))` by elliptical slices around the normal approximation: each move picks an
 * ellipse through the place and a fresh normal draw, and shrinks its arc until the place found is likely enough. The moves
 * follow a surrogate; where several of them have led is taken or refused by what the core itself says there, so that the
 * surrogate costs moves and never truth. Nothing to tune, and the same seed gives the same draws.
 *
 * @param residuals surrogate of the readings' deviations r
 * @param exact the readings' deviations at some multipliers
 * @param z the mode
 * @param axes of the normal approximation
 * @param count number of draws kept
 * Source: Murray, Adams & MacKay, “Elliptical slice sampling”, AISTATS 2010; Christen & Fox, “Markov chain Monte Carlo using
 * an approximation”, 2005; from memory.
 */
export function drawPosterior(
  residuals: Surrogate,
  exact: (z: Float64Array) => Float64Array,
  z: Float64Array,
  axes: Matrix,
  count: number,
): Draws {
  const n = z.length;
  const r = new Float64Array(residuals.middle.length);
  // the axes stand at right angles, so that |z + Ae|² is a sum over them
  const prior = Float64Array.from({ length: n }, (_, k) =>
    z.reduce((sum, x, i) => sum + x * axes.get(i, k), 0),
  );
  const squared = Float64Array.from({ length: n }, (_, k) =>
    axes.getColumn(k).reduce((sum, x) => sum + x * x, 0),
  );
  /** Log of the posterior over the normal approximation, but for a constant. */
  const logRatio = (e: Float64Array, own?: Float64Array) => {
    if (own) r.set(own);
    else follow(residuals, e, r);
    let sum = 0;
    for (let i = 0; i < r.length; i++) sum -= r[i]! * r[i]!;
    for (let k = 0; k < n; k++)
      sum += e[k]! * (e[k]! * (1 / (WIDER * WIDER) - squared[k]!) - 2 * prior[k]!);
    return 0.5 * sum;
  };
  const next = randomStream(SEED);
  const normal = () => normalQuantile(Math.min(1 - 1e-12, Math.max(1e-12, next())));
  const displace = (e: Float64Array, d: Float64Array) => {
    for (let i = 0; i < n; i++) {
      d[i] = 0;
      for (let k = 0; k < n; k++) d[i]! += axis[i * n + k]! * e[k]!;
    }
    return d;
  };
  const axis = axes.to1DArray();
  const other = new Float64Array(n);
  let here = new Float64Array(n);
  let there = new Float64Array(n);
  let level = logRatio(here);
  /** One move along the surrogate. */
  const move = () => {
    for (let k = 0; k < n; k++) other[k] = WIDER * normal();
    const least = level + Math.log(Math.max(1e-300, next()));
    let angle = 2 * Math.PI * next();
    let low = angle - 2 * Math.PI;
    let high = angle;
    for (;;) {
      const c = Math.cos(angle);
      const s = Math.sin(angle);
      for (let k = 0; k < n; k++) there[k] = c * here[k]! + s * other[k]!;
      const found = logRatio(there);
      if (found > least || high - low < 1e-9) {
        level = found;
        break;
      }
      if (angle < 0) low = angle;
      else high = angle;
      angle = low + (high - low) * next();
    }
    [here, there] = [there, here];
  };
  const kept: Draws = {
    count,
    d: new Float64Array(count * n),
  };
  const d = new Float64Array(n);
  const place = new Float64Array(n);
  let atPlace = level;
  // how much likelier a place is than the surrogate has it
  let missed = 0;
  /** Takes or refuses what stands in `here`, by what the core itself says there. */
  const decide = (wanted: (missedHere: number) => number) => {
    displace(here, d);
    const missedHere = logRatio(here, exact(d.map((x, i) => z[i]! + x))) - level;
    if (Math.log(Math.max(1e-300, next())) < wanted(missedHere)) {
      place.set(here);
      atPlace = level;
      missed = missedHere;
    } else {
      here.set(place);
      level = atPlace;
    }
  };
  for (let look = -SETTLE * LOOKS + 1; look <= (count - 1) * LOOKS; look++) {
    for (let k = 0; k < MOVES; k++) move();
    decide((missedHere) => missedHere - missed);
    // one multiplier drawn anew from its prior: reaches tails that the surrogate does not follow
    const i = (look + SETTLE * LOOKS) % n;
    displace(place, d);
    const zOld = z[i]! + d[i]!;
    const zNew = normal();
    let change = 0;
    for (let k = 0; k < n; k++) {
      const step = (axis[i * n + k]! * (zNew - zOld)) / squared[k]!;
      here[k] = place[k]! + step;
      change += (here[k]! * here[k]! - place[k]! * place[k]!) / (WIDER * WIDER);
    }
    level = logRatio(here);
    const before = atPlace;
    // the prior is in the proposal, so that only the readings decide
    decide(
      (missedHere) =>
        missedHere + level - (missed + before) - 0.5 * change + 0.5 * (zNew * zNew - zOld * zOld),
    );
    if (look < 0 || look % LOOKS > 0) continue;
    kept.d.set(displace(place, d), (look / LOOKS) * n);
  }
  return kept;
}
