/**
 * A-weighting of a frequency in dB, 0 dB at 1 kHz.
 *
 * `R_A = 12194² f⁴ / ((f² + 20.6²)(f² + 12194²) √((f² + 107.7²)(f² + 737.9²)))`, `A = 20·log10 R_A + 2.00`
 *
 * @param frequencyHz frequency, > 0
 * Source: IEC 61672-1, annex E; from memory.
 * @example aWeighting(1000) // 0
 */
export function aWeighting(frequencyHz: number): number {
  const f2 = frequencyHz * frequencyHz;
  const f4 = 12194.217 ** 2;
  const r =
    (f4 * f2 * f2) /
    ((f2 + 20.598997 ** 2) * (f2 + f4) * Math.sqrt((f2 + 107.65265 ** 2) * (f2 + 737.86223 ** 2)));
  return 20 * Math.log10(r) + 1.9997;
}
