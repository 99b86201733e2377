import type { Verdict } from '@zugluft/core/verdict/verdict';
import type { OnceMessage } from '../useOnce';
import { doOnce } from './onceClient';
import type { VerdictJob } from './verdictWorker';

/** Computes one verdict in a worker of its own, as {@link doOnce}. */
export const computeVerdict = (
  job: VerdictJob,
  tell: (message: OnceMessage<Verdict>) => void,
): (() => void) =>
  doOnce(new Worker(new URL('./verdictWorker.ts', import.meta.url), { type: 'module' }), job, tell);
