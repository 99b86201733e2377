import type { ComputeWatts, WattsByCap, WattsJob } from './computeWatts';
import { inThread } from './inThread';

/** Computes watts in one thread of its own. */
export function computeInThread(): ComputeWatts {
  return inThread<WattsJob, Record<string, WattsByCap>>(
    new URL('./startWattsWorker.mjs', import.meta.url),
  );
}
