import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { DrawOptions } from '@zugluft/core/uncertainty/draws';
import type { DrawSummary } from '@zugluft/core/uncertainty/summary';
import type { DrawMessage, DrawRequest } from './drawWorker';

interface Told {
  progress: (made: number, of: number) => void;
  done: (summary: DrawSummary) => void;
  failed: (message: string) => void;
}

let worker: Worker | null = null;
let count = 0;
let listening: { number: number; tell: Told } | null = null;

/** The one worker that makes draws, kept: starting one takes longer than the draws. */
export function drawWorker(): Worker {
  if (worker) return worker;
  worker = new Worker(new URL('./drawWorker.ts', import.meta.url), { type: 'module' });
  worker.onmessage = ({ data }: MessageEvent<DrawMessage>) => {
    if (data.number !== listening?.number) return;
    const { tell } = listening;
    if (data.kind === 'progress') {
      tell.progress(data.made, data.of);
      return;
    }
    listening = null;
    if (data.kind === 'done') tell.done(data.summary);
    else tell.failed(data.message);
  };
  worker.onerror = (event) => {
    worker?.terminate();
    worker = null;
    listening?.tell.failed(event.message);
    listening = null;
  };
  return worker;
}

/**
 * Makes draws in a worker of their own, so that typing waits for none. Draws still under way are given up for these.
 *
 * @param job case and options
 * @param tell called with progress, and once with the result or a failure
 * @returns gives these draws up
 */
export function startDraws(
  job: { request: CaseRequest; options: DrawOptions },
  tell: Told,
): () => void {
  const number = ++count;
  listening = { number, tell };
  drawWorker().postMessage({ number, job } satisfies DrawRequest);
  return () => {
    if (listening?.number !== number) return;
    listening = null;
    worker?.postMessage({ number: ++count, job: null } satisfies DrawRequest);
  };
}
