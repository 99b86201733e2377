/** Mean of a series of samples, and how well it is known. */
export interface SeriesStats {
  count: number;
  mean: number;
  /** Of the samples, with n − 1. */
  sd: number;
  /** Standard error of the mean: samples that hang on each other count for less. */
  se: number;
}

/** A mean over fewer independent samples than this says nothing of its own error. */
const FEWEST = 2;

/**
 * Correlation of a series with itself some samples later, about its mean.
 *
 * @param x the samples, evenly spaced
 * @param lag in samples, ≥ 0
 * @returns −1…1; 0 where nothing varies
 * Source: NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.5.12.
 */
export function autocorrelation(x: ArrayLike<number>, lag: number): number {
  const n = x.length;
  let mean = 0;
  for (let i = 0; i < n; i++) mean += x[i]! / n;
  let square = 0;
  let product = 0;
  for (let i = 0; i < n; i++) {
    square += (x[i]! - mean) ** 2;
    if (i >= lag) product += (x[i]! - mean) * (x[i - lag]! - mean);
  }
  return square > 0 ? product / square : 0;
}

/**
 * Mean, deviation and standard error of a series whose samples follow each other: `se = sd √((1 + 2 Σ ρ_k) / n)`, the sum
 * ended before the first pair of neighbours that is not positive.
 *
 * @param x samples, evenly spaced, at least one
 * @throws RangeError where there is none
 * Source: Geyer, Statistical Science 7 (1992), initial positive sequence; from memory.
 */
export function seriesStats(x: ArrayLike<number>): SeriesStats {
  const n = x.length;
  if (n === 0) throw new RangeError('a mean needs at least one sample');
  let mean = 0;
  for (let i = 0; i < n; i++) mean += x[i]! / n;
  let square = 0;
  for (let i = 0; i < n; i++) square += (x[i]! - mean) ** 2;
  const sd = n > 1 ? Math.sqrt(square / (n - 1)) : 0;
  let sum = 0;
  for (let lag = 1; lag + 1 < n; lag += 2) {
    const pair = autocorrelation(x, lag) + autocorrelation(x, lag + 1);
    if (pair <= 0) break;
    sum += pair;
  }
  const worth = Math.max(Math.min(FEWEST, n), n / (1 + 2 * sum));
  return { count: n, mean, sd, se: sd / Math.sqrt(worth) };
}

/**
 * Level whose energy is the mean of some levels' energies: `10 log₁₀ (Σ wᵢ 10^(Lᵢ/10) / Σ wᵢ)`.
 *
 * @param levelsDb at least one
 * @param weights how long each lasted; all alike by default
 * Source: IEC 61672-1, equivalent continuous level; from memory.
 */
export function energyMeanDb(levelsDb: ArrayLike<number>, weights?: ArrayLike<number>): number {
  let energy = 0;
  let total = 0;
  // from the loudest down, so that nothing overflows
  let most = -Infinity;
  for (let i = 0; i < levelsDb.length; i++) most = Math.max(most, levelsDb[i]!);
  for (let i = 0; i < levelsDb.length; i++) {
    const w = weights?.[i] ?? 1;
    energy += w * Math.pow(10, (levelsDb[i]! - most) / 10);
    total += w;
  }
  return most + 10 * Math.log10(energy / total);
}
