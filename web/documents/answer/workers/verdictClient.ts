import type { VerdictJob, VerdictMessage } from './verdictWorker';

/**
 * Computes one verdict in a worker of its own, which ends with it: what is given up takes no time from what comes next.
 *
 * @param tell told of progress, the verdict, or why there is none
 * @returns gives it up
 */
export function computeVerdict(
  job: VerdictJob,
  tell: (message: VerdictMessage) => void,
): () => void {
  const worker = new Worker(new URL('./verdictWorker.ts', import.meta.url), { type: 'module' });
  worker.onmessage = ({ data }: MessageEvent<VerdictMessage>) => {
    if (data.kind !== 'progress') worker.terminate();
    tell(data);
  };
  worker.onerror = (event) => {
    worker.terminate();
    tell({ kind: 'failed', message: event.message || 'the computation broke off' });
  };
  worker.postMessage(job);
  return () => worker.terminate();
}
