import { Worker } from 'node:worker_threads';
import type { ComputeWatts, WattsByCap } from './computeWatts';

type Answer = { number: number; watts: Record<string, WattsByCap> };

/** Computes watts in one thread of its own, which leaves the other cores to requests. Started at once: it takes longest then. */
export function computeInThread(): ComputeWatts {
  let worker: Worker | null = null;
  let count = 0;
  const waiting = new Map<number, { done: (a: Answer) => void; failed: (e: Error) => void }>();
  const fail = (cause: Error) => {
    worker = null;
    for (const { failed } of waiting.values()) failed(cause);
    waiting.clear();
  };
  const start = (): Worker => {
    const made = new Worker(new URL('./startWattsWorker.mjs', import.meta.url), { execArgv: [] });
    // nothing but the server keeps the program running
    made.unref();
    made.on('error', fail);
    made.on('exit', () => fail(new Error('the thread that computes watts has ended')));
    made.on('message', (answer: Answer) => {
      waiting.get(answer.number)?.done(answer);
      waiting.delete(answer.number);
    });
    return made;
  };
  const compute: ComputeWatts = async (job) => {
    worker ??= start();
    const number = ++count;
    const answer = await new Promise<Answer>((done, failed) => {
      waiting.set(number, { done, failed });
      worker!.postMessage({ number, job });
    });
    return answer.watts;
  };
  worker = start();
  compute.end = async () => worker?.terminate();
  return compute;
}
