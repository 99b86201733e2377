import { figureValue, type Figure } from '../record/figure';
import type { Count } from './countSchema';

const n = (x: Figure | null | undefined) => figureValue(x ?? undefined);

/** Whether anybody said how many pipes there are. */
export function saysPipes(count: Count): boolean {
  return [count.pipesShared, count.pipesCpu, count.pipesGpu].some((x) => n(x) !== undefined);
}

/**
 * Whether a counted machine has a GPU of its own: its class says so; else pipes that lead to one; where nothing is said a
 * chamber or a second fan hints at one (common practice, no source).
 */
export function hasGpu(count: Count): boolean {
  const watts = n(count.gpuClassW);
  if (watts !== undefined) return watts > 0;
  if (saysPipes(count)) return (n(count.pipesShared) ?? 0) + (n(count.pipesGpu) ?? 0) > 0;
  return Boolean(count.chamber) || (n(count.fans) ?? 0) > 1;
}
