import { Worker } from 'node:worker_threads';

/** Work that is done in a thread of its own, one job after the other. */
export interface Thread<Job, Answer> {
  (job: Job): Promise<Answer>;
  end: () => Promise<unknown>;
}

const IDLE_MS = 5000;

/** What goes to the thread and comes back; a thread that fails in one job says why and goes on with the next. */
export interface ThreadJob<Job> {
  number: number;
  job: Job;
}
export type ThreadAnswer<Answer> = { number: number } & ({ answer: Answer } | { failed: string });

/**
 * Starts a thread for some work, which leaves the other cores to requests; at once, since starting takes longest. One that ended is
 * started anew with the next job.
 *
 * @param script a module that sets up the loader of TypeScript and takes jobs
 * @param when `later`: with the first job, for work that is rare; `for a while`: so too, and it ends with what it holds in memory once
 *   nothing was asked of it for some seconds
 */
export function inThread<Job, Answer>(
  script: URL,
  when: 'at once' | 'later' | 'for a while' = 'at once',
  idleMs = IDLE_MS,
): Thread<Job, Answer> {
  let worker: Worker | null = null;
  let count = 0;
  const waiting = new Map<number, { done: (a: Answer) => void; failed: (e: Error) => void }>();
  let idle: NodeJS.Timeout | undefined;
  const rest = () => {
    if (waiting.size) return;
    const resting = worker;
    worker = null;
    // what ends it is no failure of a job that comes meanwhile
    resting?.removeAllListeners('exit');
    void resting?.terminate();
  };
  const fail = (cause: Error) => {
    worker = null;
    for (const { failed } of waiting.values()) failed(cause);
    waiting.clear();
  };
  const start = (): Worker => {
    const made = new Worker(script, { execArgv: [] });
    // nothing but the server keeps the program running
    made.unref();
    made.on('error', fail);
    made.on('exit', () => fail(new Error('the thread has ended')));
    made.on('message', (said: ThreadAnswer<Answer>) => {
      const own = waiting.get(said.number);
      waiting.delete(said.number);
      if (when === 'for a while') {
        clearTimeout(idle);
        idle = setTimeout(rest, idleMs).unref();
      }
      if ('failed' in said) own?.failed(new Error(said.failed));
      else own?.done(said.answer);
    });
    return made;
  };
  const thread = async (job: Job): Promise<Answer> => {
    clearTimeout(idle);
    worker ??= start();
    const number = ++count;
    return new Promise<Answer>((done, failed) => {
      waiting.set(number, { done, failed });
      worker!.postMessage({ number, job } satisfies ThreadJob<Job>);
    });
  };
  if (when === 'at once') worker = start();
  return Object.assign(thread, { end: async () => worker?.terminate() });
}
