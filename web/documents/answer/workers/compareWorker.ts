import type { OnceMessage } from '../useOnce';
import { compareMachines, type Comparison } from '@zugluft/core/compare/compareMachines';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { Cap } from '@zugluft/core/envelope/fanStates';

/** One comparison, for which the worker was started. */
export interface CompareJob {
  machines: { name: string; request: CaseRequest }[];
  caps: readonly Cap[];
  draws: number;
  seed: number;
}

export type CompareMessage = OnceMessage<Comparison>;

self.onmessage = ({ data: { machines, ...options } }: MessageEvent<CompareJob>) => {
  const tell = (message: CompareMessage) => self.postMessage(message);
  try {
    const result = compareMachines(machines, {
      ...options,
      progress: (done, of) => tell({ kind: 'progress', done, of }),
    });
    tell({ kind: 'result', result });
  } catch (cause) {
    tell({ kind: 'failed', message: (cause as Error).message });
  }
};
