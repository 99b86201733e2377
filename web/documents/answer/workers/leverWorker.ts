import { leverPart, type LeverJob, type LeverPart } from './leverPart';
import { helpersOf, shareOut } from './shareOut';
import { sparingly } from './sparingly';

/** Levers whose gains are wanted, in place of those under way; null: none. */
export interface LeverRequest {
  number: number;
  job: LeverJob | null;
}

export type LeverMessage = { number: number } & (
  { kind: 'gains'; all: LeverPart[] } | { kind: 'done' } | { kind: 'failed'; message: string }
);

let wanted = 0;
const helpers = helpersOf(
  () => new Worker(new URL('./leverHelper.ts', import.meta.url), { type: 'module' }),
  navigator.hardwareConcurrency,
);

/** Computes what levers bring and tells each; a newer request takes the place of the one before. */
self.onmessage = async ({ data }: MessageEvent<LeverRequest>) => {
  const { number, job } = data;
  wanted = number;
  if (!job) return;
  const tell = (message: LeverMessage) => self.postMessage(message);
  /** A helper may be late with a pass that was already gone beyond. */
  const most = new Map<string, number>();
  const gains = sparingly<LeverPart>((all) => tell({ number, kind: 'gains', all }));
  try {
    await shareOut<LeverJob, LeverPart>({
      job,
      items: job.passes.length * job.levers.length,
      work: leverPart(job),
      helpers: helpers.all,
      isWanted: () => wanted === number,
      done: (_, part) => {
        if (part.draws < (most.get(part.id) ?? 0)) return;
        most.set(part.id, part.draws);
        gains.add(part);
      },
    });
    if (wanted !== number) return;
    gains.rest();
    tell({ number, kind: 'done' });
  } catch (cause) {
    tell({ number, kind: 'failed', message: (cause as Error).message });
  }
};
