import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { DrawOptions, DrawPlan } from '@zugluft/core/uncertainty/drawPlan';
import { roomForDraws, type Drawn } from '@zugluft/core/uncertainty/draws';

export interface DrawJob {
  request: CaseRequest;
  options: DrawOptions;
  from: number;
  to: number;
}

/** All rows, and in how many a solver ended at its bound. */
export interface DrawnByThreads extends Drawn {
  unsettled: number;
}

type Message = { made: number } | ({ from: number } & DrawnByThreads);

/** Fewer draws than this are not worth another thread. */
const MIN_PER_THREAD = 200;
const MAX_THREADS = 16;

/**
 * Makes all draws of a plan, shared out over the processor's cores.
 *
 * @param plan the plan
 * @param job case and options it was made from
 * @param progress told how many of how many are made
 */
export async function drawInThreads(
  plan: DrawPlan,
  job: Pick<DrawJob, 'request' | 'options'>,
  progress: (made: number, of: number) => void,
): Promise<DrawnByThreads> {
  const threads = Math.max(
    1,
    Math.min(MAX_THREADS, availableParallelism(), Math.ceil(plan.draws / MIN_PER_THREAD)),
  );
  const { watts, held, readings } = roomForDraws(plan, plan.draws);
  const rowLength = watts.length / plan.draws;
  let made = 0;
  let unsettled = 0;
  await Promise.all(
    Array.from({ length: threads }, (_, k) => {
      const from = Math.floor((plan.draws * k) / threads);
      const to = Math.floor((plan.draws * (k + 1)) / threads);
      return new Promise<void>((resolve, reject) => {
        const worker = new Worker(new URL('./startDrawWorker.mjs', import.meta.url), {
          execArgv: [],
          workerData: { ...job, from, to } satisfies DrawJob,
        });
        worker.on('error', reject);
        worker.on('message', (message: Message) => {
          if ('made' in message) {
            made += message.made;
            progress(made, plan.draws);
            return;
          }
          watts.set(message.watts, message.from * rowLength);
          held.set(message.held, message.from * rowLength);
          readings.set(message.readings, message.from * (readings.length / plan.draws));
          unsettled += message.unsettled;
          resolve();
        });
      });
    }),
  );
  return { watts, held, readings, unsettled };
}
