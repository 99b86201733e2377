import type { EstimateOptions } from '@zugluft/core/estimate';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { planDraws, READOUTS, runDraws } from '@zugluft/core/uncertainty/draws';
import { summarise, type DrawSummary } from '@zugluft/core/uncertainty/summary';

export interface DrawRequest {
  record: CaseRecord;
  options: EstimateOptions & { draws: number; seed: number };
}

export type DrawMessage =
  | { kind: 'progress'; made: number; of: number }
  | { kind: 'done'; summary: DrawSummary }
  | { kind: 'failed'; message: string };

const CHUNK = 40;

/** Makes the draws of one record and tells how far it is; ending the worker cancels them. */
self.onmessage = ({ data }: MessageEvent<DrawRequest>) => {
  const tell = (message: DrawMessage) => self.postMessage(message);
  try {
    const plan = planDraws(data.record, data.options);
    const watts = new Float64Array(plan.draws * plan.caps.length * READOUTS);
    for (let row = 0; row < plan.draws; row += CHUNK) {
      const end = Math.min(plan.draws, row + CHUNK);
      runDraws(plan, row, end, watts);
      tell({ kind: 'progress', made: end, of: plan.draws });
    }
    tell({ kind: 'done', summary: summarise(plan, watts) });
  } catch (cause) {
    tell({ kind: 'failed', message: (cause as Error).message });
  }
};
