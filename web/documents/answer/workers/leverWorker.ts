import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { Lever } from '@zugluft/core/levers/lever';
import {
  drawMachine,
  gainsOfChange,
  type GainOptions,
  type LeverGain,
} from '@zugluft/core/levers/leverGains';
import { turn } from './turn';

/** Levers whose gains are wanted, in place of those under way; null: none. */
export interface LeverRequest {
  number: number;
  job: LeverJob | null;
}

export interface LeverJob {
  request: CaseRequest;
  options: Omit<GainOptions, 'draws'>;
  /** Passes over all levers, each with so many draws: the first few are there at once. */
  passes: readonly number[];
  levers: readonly Pick<Lever, 'id' | 'change' | 'moves'>[];
}

export type LeverMessage = { number: number } & (
  | { kind: 'gain'; id: string; draws: number; at: LeverGain[] }
  | { kind: 'done' }
  | { kind: 'failed'; message: string }
);

let wanted = 0;

/** Computes what levers bring, one after the other, and tells each; a newer request takes the place of the one before. */
self.onmessage = async ({ data }: MessageEvent<LeverRequest>) => {
  const { number, job } = data;
  wanted = number;
  if (!job) return;
  const tell = (message: LeverMessage) => self.postMessage(message);
  try {
    for (const draws of job.passes) {
      const options = { ...job.options, draws };
      const before = drawMachine(job.request, options);
      for (const lever of job.levers) {
        await turn();
        if (wanted !== number) return;
        const at = gainsOfChange(before, lever, options);
        tell({ number, kind: 'gain', id: lever.id, draws, at });
      }
    }
    tell({ number, kind: 'done' });
  } catch (cause) {
    tell({ number, kind: 'failed', message: (cause as Error).message });
  }
};
