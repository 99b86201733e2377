import type { DrawSummary } from '@zugluft/core/uncertainty/summary';
import type { DrawMessage, DrawRequest } from './drawWorker';

/**
 * Makes draws in a worker of their own, so that typing waits for none.
 *
 * @param request case and options
 * @param tell called with progress, and once with the result or a failure
 * @returns ends the worker and forgets the draws
 */
export function startDraws(
  request: DrawRequest,
  tell: {
    progress: (made: number, of: number) => void;
    done: (summary: DrawSummary) => void;
    failed: (message: string) => void;
  },
): () => void {
  const worker = new Worker(new URL('./drawWorker.ts', import.meta.url), { type: 'module' });
  worker.onmessage = ({ data }: MessageEvent<DrawMessage>) => {
    if (data.kind === 'progress') {
      tell.progress(data.made, data.of);
      return;
    }
    worker.terminate();
    if (data.kind === 'done') tell.done(data.summary);
    else tell.failed(data.message);
  };
  worker.onerror = (event) => {
    worker.terminate();
    tell.failed(event.message);
  };
  worker.postMessage(request);
  return () => worker.terminate();
}
