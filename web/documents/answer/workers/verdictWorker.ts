import type { OnceMessage } from '../useOnce';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import { verdictOf, type Verdict, type VerdictOptions } from '@zugluft/core/verdict/verdict';

/** One verdict, for which the worker was started. */
export interface VerdictJob {
  request: CaseRequest;
  options: Omit<VerdictOptions, 'progress'>;
}

export type VerdictMessage = OnceMessage<Verdict>;

self.onmessage = ({ data: { request, options } }: MessageEvent<VerdictJob>) => {
  const tell = (message: VerdictMessage) => self.postMessage(message);
  try {
    const result = verdictOf(request, {
      ...options,
      progress: (done, of) => tell({ kind: 'progress', done, of }),
    });
    tell({ kind: 'result', result });
  } catch (cause) {
    tell({ kind: 'failed', message: (cause as Error).message });
  }
};
