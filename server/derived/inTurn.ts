import { parentPort } from 'node:worker_threads';
import type { ThreadAnswer, ThreadJob } from './inThread';

/**
 * Does jobs in this thread, one after the other; one that fails says why and holds up no other.
 *
 * @param work does one job
 */
export function inTurn<Job, Answer>(work: (job: Job) => Answer | Promise<Answer>): void {
  let tail: Promise<unknown> = Promise.resolve();
  parentPort!.on('message', ({ number, job }: ThreadJob<Job>) => {
    tail = tail.then(async () => {
      let said: ThreadAnswer<Answer>;
      try {
        said = { number, answer: await work(job) };
      } catch (cause) {
        said = { number, failed: (cause as Error).message };
      }
      parentPort!.postMessage(said);
    });
  });
}
