import { parentPort } from 'node:worker_threads';
import { computeWatts, type WattsByCap, type WattsJob } from './computeWatts';
import type { ThreadAnswer, ThreadJob } from './inThread';

/** Computes watts beside the server's own thread, so that no request waits for them. */
parentPort!.on('message', ({ number, job }: ThreadJob<WattsJob>) => {
  parentPort!.postMessage({
    number,
    answer: computeWatts(job),
  } satisfies ThreadAnswer<Record<string, WattsByCap>>);
});
