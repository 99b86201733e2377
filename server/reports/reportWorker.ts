import { parentPort } from 'node:worker_threads';
import type { ThreadAnswer, ThreadJob } from '../derived/inThread';
import type { WrittenFile } from '@zugluft/publish/writeReport';
import { makeReport, type ReportJob } from './makeReport';

/** Makes reports beside the server's own thread, one after the other. */
let tail: Promise<unknown> = Promise.resolve();
parentPort!.on('message', ({ number, job }: ThreadJob<ReportJob>) => {
  tail = tail.then(async () => {
    let said: ThreadAnswer<WrittenFile[]>;
    try {
      said = { number, answer: await makeReport(job) };
    } catch (cause) {
      said = { number, failed: (cause as Error).message };
    }
    parentPort!.postMessage(said);
  });
});
