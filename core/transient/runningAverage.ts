/**
 * One step of the running average of power that firmware keeps: `a' = k a + (1 − k) P`, `k = e^(−Δt/τ)`.
 *
 * @param average a, W
 * @param watts P held over the step, W
 * @param keep k, 0…1
 * @example runningAverage(0, 95, Math.exp(-28 / 28)) // 60.05
 */
export function runningAverage(average: number, watts: number, keep: number): number {
  return keep * average + (1 - keep) * watts;
}

/**
 * The watts that bring the average exactly to a limit at the end of a step: `(L − k a) / (1 − k)`.
 *
 * A load at the short-term limit S from idle is held there for `−τ ln(1 − L/S)`.
 *
 * @returns W; below zero where the average stays above the limit even at rest
 * @throws RangeError where `keep` is not below 1
 */
export function roomInAverage(average: number, limit: number, keep: number): number {
  if (!(keep < 1)) throw new RangeError('a window needs a step longer than nothing');
  return (limit - keep * average) / (1 - keep);
}
