import { openCase, type CaseRequest } from '@zugluft/core/case/openCase';
import {
  planDraws,
  roomForDraws,
  runDraws,
  type DrawOptions,
} from '@zugluft/core/uncertainty/draws';
import { summarise, type DrawSummary } from '@zugluft/core/uncertainty/summary';
import { turn } from './turn';

/** Draws that are wanted, in place of those under way; null: none. */
export interface DrawRequest {
  number: number;
  job: { request: CaseRequest; options: DrawOptions } | null;
}

export type DrawMessage = { number: number } & (
  | { kind: 'progress'; made: number; of: number }
  | { kind: 'done'; summary: DrawSummary }
  | { kind: 'failed'; message: string }
);

const CHUNK = 40;
let wanted = 0;

/** Makes the draws of one case at a time and tells how far it is; a newer request takes the place of the one before. */
self.onmessage = async ({ data }: MessageEvent<DrawRequest>) => {
  const { number, job } = data;
  wanted = number;
  if (!job) return;
  const tell = (message: DrawMessage) => self.postMessage(message);
  try {
    const plan = planDraws(openCase(job.request), job.options);
    const drawn = roomForDraws(plan, plan.draws);
    let unsettled = 0;
    for (let row = 0; row < plan.draws; row += CHUNK) {
      const end = Math.min(plan.draws, row + CHUNK);
      unsettled += runDraws(plan, row, end, drawn);
      tell({ number, kind: 'progress', made: end, of: plan.draws });
      await turn();
      if (wanted !== number) return;
    }
    tell({ number, kind: 'done', summary: summarise(plan, drawn, unsettled) });
  } catch (cause) {
    tell({ number, kind: 'failed', message: (cause as Error).message });
  }
};
