import { openCase, type CaseRequest } from '@zugluft/core/case/openCase';
import { planDraws, roomForDraws, runDraws, type DrawOptions } from '@zugluft/core/uncertainty/draws';
import { summarise, type DrawSummary } from '@zugluft/core/uncertainty/summary';

export interface DrawRequest {
  request: CaseRequest;
  options: DrawOptions;
}

export type DrawMessage =
  | { kind: 'progress'; made: number; of: number }
  | { kind: 'done'; summary: DrawSummary }
  | { kind: 'failed'; message: string };

const CHUNK = 40;

/** Makes the draws of one case and tells how far it is; ending the worker cancels them. */
self.onmessage = ({ data }: MessageEvent<DrawRequest>) => {
  const tell = (message: DrawMessage) => self.postMessage(message);
  try {
    const plan = planDraws(openCase(data.request), data.options);
    const drawn = roomForDraws(plan, plan.draws);
    let unsettled = 0;
    for (let row = 0; row < plan.draws; row += CHUNK) {
      const end = Math.min(plan.draws, row + CHUNK);
      unsettled += runDraws(plan, row, end, drawn);
      tell({ kind: 'progress', made: end, of: plan.draws });
    }
    tell({ kind: 'done', summary: summarise(plan, drawn, unsettled) });
  } catch (cause) {
    tell({ kind: 'failed', message: (cause as Error).message });
  }
};
