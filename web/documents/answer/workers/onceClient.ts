import type { OnceMessage } from '../useOnce';

/**
 * Does one thing in a worker of its own, which ends with it: what is given up takes no time from what comes next.
 *
 * @param worker just started
 * @param job what it is to do
 * @param tell told of progress, the result, or why there is none
 * @returns gives it up
 */
export function doOnce<Job, Result>(
  worker: Worker,
  job: Job,
  tell: (message: OnceMessage<Result>) => void,
): () => void {
  worker.onmessage = ({ data }: MessageEvent<OnceMessage<Result>>) => {
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
