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

export type CompareMessage =
  | { kind: 'progress'; done: number; of: number }
  | { kind: 'comparison'; comparison: Comparison }
  | { kind: 'failed'; message: string };

self.onmessage = ({ data: { machines, ...options } }: MessageEvent<CompareJob>) => {
  const tell = (message: CompareMessage) => self.postMessage(message);
  try {
    const comparison = compareMachines(machines, {
      ...options,
      progress: (done, of) => tell({ kind: 'progress', done, of }),
    });
    tell({ kind: 'comparison', comparison });
  } catch (cause) {
    tell({ kind: 'failed', message: (cause as Error).message });
  }
};
