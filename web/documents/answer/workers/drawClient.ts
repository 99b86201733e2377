import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { DrawOptions } from '@zugluft/core/uncertainty/drawPlan';
import type { DrawSummary } from '@zugluft/core/uncertainty/summary';
import type { DrawMessage, DrawRequest, FirstLook, FirstLookMessage } from './drawWorker';
import type { LeverMessage, LeverRequest } from './runLevers';

interface Told {
  progress: (made: number, of: number) => void;
  done: (summary: DrawSummary) => void;
  failed: (message: string) => void;
}

let worker: Worker | null = null;
let count = 0;
let listening: { number: number; tell: Told } | null = null;
/** Told of first looks at levers, by the place that asks. */
const looking = new Map<number, (message: LeverMessage) => void>();

/** The one worker that makes draws, kept: starting one takes longer than the draws. */
export function drawWorker(): Worker {
  if (worker) return worker;
  worker = new Worker(new URL('./drawWorker.ts', import.meta.url), { type: 'module' });
  worker.onmessage = ({ data }: MessageEvent<DrawMessage | FirstLookMessage>) => {
    if ('levers' in data) {
      looking.get(data.place)?.(data.levers);
      return;
    }
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

/**
 * Has a first look at levers taken by the worker that makes draws.
 *
 * @param place that asks; what it asked before is given up for this
 * @param tell told of gains, and how it ended
 * @returns gives it up
 */
export function lookFirst(
  place: number,
  request: LeverRequest,
  tell: (message: LeverMessage) => void,
): () => void {
  looking.set(place, tell);
  drawWorker().postMessage({ place, levers: request } satisfies FirstLook);
  return () => {
    if (looking.get(place) !== tell) return;
    looking.delete(place);
    worker?.postMessage({ place, levers: { number: NO_LOOK, job: null } } satisfies FirstLook);
  };
}

const NO_LOOK = 0;
