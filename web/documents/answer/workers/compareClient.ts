import type { Comparison } from '@zugluft/core/compare/compareMachines';
import type { OnceMessage } from '../useOnce';
import { doOnce } from './onceClient';
import type { CompareJob } from './compareWorker';

/** Computes one comparison in a worker of its own, as {@link doOnce}. */
export const computeComparison = (
  job: CompareJob,
  tell: (message: OnceMessage<Comparison>) => void,
): (() => void) =>
  doOnce(new Worker(new URL('./compareWorker.ts', import.meta.url), { type: 'module' }), job, tell);
