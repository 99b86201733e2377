import { openCase } from '@zugluft/core/case/openCase';
import { planDraws } from '@zugluft/core/uncertainty/drawPlan';
import { roomForDraws, runDraws } from '@zugluft/core/uncertainty/draws';
import { summarise, type DrawSummary } from '@zugluft/core/uncertainty/summary';
import { comesFirst } from './comesFirst';
import { drawItems, placePart, rowsOf, type DrawJob, type DrawPart } from './drawPart';
import { runLevers, type LeverMessage, type LeverRequest } from './runLevers';
import { helpersOf, shareOut } from './shareOut';
import { sparingly } from './sparingly';

/** Draws that are wanted, in place of those under way; null: none. */
export interface DrawRequest {
  number: number;
  job: DrawJob | null;
}

export type DrawMessage = { number: number } & (
  | { kind: 'progress'; made: number; of: number }
  | { kind: 'done'; summary: DrawSummary }
  | { kind: 'failed'; message: string }
);

/** The first look at levers is taken here, where all that it needs is warm; one at a time for each place that asks. */
export interface FirstLook {
  place: number;
  levers: LeverRequest;
}
export interface FirstLookMessage {
  place: number;
  levers: LeverMessage;
}

/** Fewer draws are made here before a helper is ready. */
const SHARED_DRAWS = 2000;
let wanted = 0;
const helpers = helpersOf(
  () => new Worker(new URL('./drawHelper.ts', import.meta.url), { type: 'module' }),
  navigator.hardwareConcurrency,
);

/** Bands come before levers. */
const draws = comesFirst();

const looks = new Map<number, { run: ReturnType<typeof runLevers>; latest: number }>();

async function lookFirst({ place, levers }: FirstLook): Promise<void> {
  const tell = (message: LeverMessage) =>
    self.postMessage({ place, levers: message } satisfies FirstLookMessage);
  const look = looks.get(place) ?? { run: runLevers(tell, () => [], draws.rest), latest: 0 };
  look.latest = levers.number;
  if (!levers.job) {
    looks.delete(place);
    return look.run(levers);
  }
  looks.set(place, look);
  await draws.rest();
  if (look.latest === levers.number) await look.run(levers);
}

self.onmessage = ({ data }: MessageEvent<DrawRequest | FirstLook>) => {
  if ('levers' in data) void lookFirst(data);
  else draws.run(() => makeDraws(data));
};

/** Makes the draws of one case at a time and tells how far it is; a newer request takes the place of the one before. */
async function makeDraws({ number, job }: DrawRequest): Promise<void> {
  wanted = number;
  if (!job) return;
  const tell = (message: DrawMessage) => self.postMessage(message);
  try {
    const plan = planDraws(openCase(job.request), job.options);
    const drawn = roomForDraws(plan, plan.draws);
    let made = 0;
    const progress = sparingly<number>((all) =>
      tell({ number, kind: 'progress', made: all.at(-1)!, of: plan.draws }),
    );
    let unsettled = 0;
    await shareOut<DrawJob, DrawPart | null>({
      job,
      items: drawItems(plan),
      work: (item) => {
        const { from, to } = rowsOf(plan, item);
        unsettled += runDraws(plan, from, to, drawn);
        return null;
      },
      helpers: () => (plan.draws < SHARED_DRAWS ? [] : helpers.all()),
      isWanted: () => wanted === number,
      done: (item, part) => {
        if (part) {
          placePart(plan, item, part, drawn);
          unsettled += part.unsettled;
        }
        const { from, to } = rowsOf(plan, item);
        made += to - from;
        progress.add(made);
      },
    });
    if (wanted !== number) return;
    tell({ number, kind: 'done', summary: summarise(plan, drawn, unsettled) });
  } catch (cause) {
    tell({ number, kind: 'failed', message: (cause as Error).message });
  }
}
