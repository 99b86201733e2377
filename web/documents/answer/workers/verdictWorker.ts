import type { CaseRequest } from '@zugluft/core/case/openCase';
import { verdictOf, type Verdict, type VerdictOptions } from '@zugluft/core/verdict/verdict';

/** One verdict, for which the worker was started. */
export interface VerdictJob {
  request: CaseRequest;
  options: Omit<VerdictOptions, 'progress'>;
}

export type VerdictMessage =
  | { kind: 'progress'; done: number; of: number }
  | { kind: 'verdict'; verdict: Verdict }
  | { kind: 'failed'; message: string };

self.onmessage = ({ data: { request, options } }: MessageEvent<VerdictJob>) => {
  const tell = (message: VerdictMessage) => self.postMessage(message);
  try {
    const verdict = verdictOf(request, {
      ...options,
      progress: (done, of) => tell({ kind: 'progress', done, of }),
    });
    tell({ kind: 'verdict', verdict });
  } catch (cause) {
    tell({ kind: 'failed', message: (cause as Error).message });
  }
};
