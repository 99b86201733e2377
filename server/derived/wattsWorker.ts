import { parentPort } from 'node:worker_threads';
import { computeWatts, type WattsJob } from './computeWatts';

/** Computes watts beside the server's own thread, so that no request waits for them. */
parentPort!.on('message', ({ number, job }: { number: number; job: WattsJob }) => {
  parentPort!.postMessage({ number, watts: computeWatts(job) });
});
