import { leverPart, type LeverJob, type LeverPart } from './leverPart';
import { shareOut, type Helper } from './shareOut';
import { sparingly } from './sparingly';

/** Levers whose gains are wanted, in place of those under way; null: none. */
export interface LeverRequest {
  number: number;
  job: LeverJob | null;
}

export type LeverMessage = { number: number } & (
  { kind: 'gains'; all: LeverPart[] } | { kind: 'done' } | { kind: 'failed'; message: string }
);

/**
 * Computes what levers bring, one job at a time, and tells each; a newer request takes the place of the one before.
 *
 * @param tell told of gains, and how it ended
 * @param helpers asked for help
 * @param pause between levers, where other work comes first
 * @returns takes a request
 */
export function runLevers(
  tell: (message: LeverMessage) => void,
  helpers: () => readonly Helper[],
  pause?: () => Promise<void>,
): (request: LeverRequest) => Promise<void> {
  let wanted = 0;
  return async ({ number, job }) => {
    wanted = number;
    if (!job) return;
    const gains = sparingly<LeverPart>((all) => tell({ number, kind: 'gains', all }));
    try {
      await shareOut<LeverJob, LeverPart>({
        job,
        items: job.passes.length * job.levers.length,
        work: leverPart(job),
        helpers,
        isWanted: () => wanted === number,
        done: (_, part) => gains.add(part),
        pause,
      });
      if (wanted !== number) return;
      gains.rest();
      tell({ number, kind: 'done' });
    } catch (cause) {
      tell({ number, kind: 'failed', message: (cause as Error).message });
    }
  };
}
