/**
 * Level of the machine alone from a reading with background noise: `L − K₁`, `K₁ = −10·log10(1 − 10^(−0.1 ΔL))`.
 *
 * @param readingDbA level with the machine running
 * @param backgroundDbA level with the machine off
 * @returns corrected level and whether it is only an upper bound: above 15 dB no correction; below 6 dB the correction
 *   is capped at 1.3 dB and the machine may be quieter than stated
 * Source: ISO 3744; from memory.
 * @example correctForBackground(40, 34).levelDbA // 38.74
 */
export function correctForBackground(
  readingDbA: number,
  backgroundDbA: number,
): { levelDbA: number; upperBound: boolean } {
  const difference = readingDbA - backgroundDbA;
  if (difference > 15) return { levelDbA: readingDbA, upperBound: false };
  if (difference < 6) return { levelDbA: readingDbA - 1.3, upperBound: true };
  return {
    levelDbA: readingDbA + 10 * Math.log10(1 - 10 ** (-0.1 * difference)),
    upperBound: false,
  };
}
