import { doOnce } from './onceClient';
import type { VerdictJob, VerdictMessage } from './verdictWorker';

/** Computes one verdict in a worker of its own, as {@link doOnce}. */
export const computeVerdict = (
  job: VerdictJob,
  tell: (message: VerdictMessage) => void,
): (() => void) =>
  doOnce<VerdictJob, VerdictMessage>(
    new Worker(new URL('./verdictWorker.ts', import.meta.url), { type: 'module' }),
    job,
    tell,
  );
