import type { CapEstimate, Readout } from '../case/answer';
import { medianOutline } from '../uncertainty/medianOutline';

/**
 * A cap's outline after a change, without draws of its own: as far from its central solution as today's medians lie from today's.
 *
 * @param today with bands
 * @param after the same cap after the change, central
 */
export function outlineAfter(today: CapEstimate, after: CapEstimate): CapEstimate {
  const moved = <R extends Readout | null>(own: R, before: Readout | null): R =>
    own && before && before.p50 !== null && before.watts > 0
      ? { ...own, p50: (own.watts * before.p50) / before.watts }
      : own;
  const shown: CapEstimate = {
    ...after,
    cpuAlone: moved(after.cpuAlone, today.cpuAlone),
    gpuAlone: moved(after.gpuAlone, today.gpuAlone),
    together: moved(after.together, today.together),
  };
  return { ...shown, envelope: medianOutline(shown) };
}
