import { parentPort } from 'node:worker_threads';
import type { ThreadAnswer, ThreadJob } from '../derived/inThread';
import { doRunJob, type RunJob, type RunJobAnswer } from './runJobs';

/** Reads and analyses logs beside the server's own thread, one after the other. */
let tail: Promise<unknown> = Promise.resolve();
parentPort!.on('message', ({ number, job }: ThreadJob<RunJob>) => {
  tail = tail.then(async () => {
    let said: ThreadAnswer<RunJobAnswer>;
    try {
      said = { number, answer: await doRunJob(job) };
    } catch (cause) {
      said = { number, failed: (cause as Error).message };
    }
    parentPort!.postMessage(said);
  });
});
