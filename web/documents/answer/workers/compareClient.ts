import type { CompareJob, CompareMessage } from './compareWorker';
import { doOnce } from './onceClient';

/** Computes one comparison in a worker of its own, as {@link doOnce}. */
export const computeComparison = (
  job: CompareJob,
  tell: (message: CompareMessage) => void,
): (() => void) =>
  doOnce<CompareJob, CompareMessage>(
    new Worker(new URL('./compareWorker.ts', import.meta.url), { type: 'module' }),
    job,
    tell,
  );
