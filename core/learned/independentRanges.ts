/**
 * Independent variances that give some outputs the same spread as a covariance does.
 *
 * What many machines tell of factors is mostly sums of them: each alone stays nearly as wide as it was, together they are narrow. A
 * laboratory's defaults are ranges that stand each for itself; drawn so with their own widths, what was learned would be lost. So the
 * variances D_k are sought with `Σ_k g²_mk D_k = g_mᵀ Σ g_m` for what the factors do to the watts of the library's own machines, as
 * near to each factor's own variance as that allows:
 * minimise `Σ_m (Σ_k g²_mk D_k / v_m − 1)² + λ Σ_k (D_k / Σ_kk − 1)²`, `least Σ_kk ≤ D_k ≤ Σ_kk`, by coordinate descent.
 *
 * @param covariance Σ, K × K row by row
 * @param slopes rows of K: change of an output for one deviation of each factor
 * @returns D, one for each factor
 * Source: bounded linear least squares; the idea is this project's own.
 */
export function independentRanges(
  covariance: Float64Array,
  slopes: readonly Float64Array[],
): Float64Array {
  const K = Math.round(Math.sqrt(covariance.length));
  const own = Float64Array.from({ length: K }, (_, k) => covariance[k * K + k]!);
  const share = new Float64Array(K).fill(1);
  // by how much of an output's variance each factor answers at its own width
  const rows = slopes.flatMap((g) => {
    let variance = 0;
    for (let i = 0; i < K; i++) {
      for (let j = 0; j < K; j++) variance += g[i]! * g[j]! * covariance[i * K + j]!;
    }
    return variance > 0 ? [Float64Array.from(g, (x, k) => (x * x * own[k]!) / variance)] : [];
  });
  const ridge = RIDGE * Math.max(1, rows.length);
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    let moved = 0;
    for (let k = 0; k < K; k++) {
      let up = ridge;
      let down = ridge;
      for (const row of rows) {
        let rest = 1;
        for (let j = 0; j < K; j++) if (j !== k) rest -= row[j]! * share[j]!;
        up += row[k]! * rest;
        down += row[k]! * row[k]!;
      }
      const next = Math.min(1, Math.max(LEAST_SHARE, up / down));
      moved = Math.max(moved, Math.abs(next - share[k]!));
      share[k] = next;
    }
    if (moved < STILL) break;
  }
  return own.map((v, k) => v * share[k]!);
}

/** How much nearness to a factor's own variance weighs against one output. */
const RIDGE = 1e-3;
/** Of its own variance a factor keeps at least so much. */
const LEAST_SHARE = 0.05;
const SWEEPS = 500;
const STILL = 1e-6;
