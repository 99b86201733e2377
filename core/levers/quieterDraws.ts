import type { Cap } from '../envelope/fanStates';
import type { DrawPlan } from '../uncertainty/drawPlan';
import { roomForDraws, runDraws, type Drawn } from '../uncertainty/draws';

/** Levels below those asked for, drawn only in the rows that turn out to need them. */
export interface QuieterDraws {
  plan: DrawPlan;
  drawn: Drawn;
  /** 1 for each row that is drawn. */
  made: Uint8Array;
}

/** A plan for some of its caps. */
export const onlyCaps = (plan: DrawPlan, wanted: (cap: Cap) => boolean): DrawPlan => {
  const kept = plan.caps.flatMap((cap, c) => (wanted(cap) ? [c] : []));
  return {
    ...plan,
    caps: kept.map((c) => plan.caps[c]!),
    duties: kept.map((c) => plan.duties[c]!),
    ends: {
      ...plan.ends,
      caps: kept.map((c) => plan.ends.caps[c]!),
      splits: kept.map((c) => plan.ends.splits[c]!),
    },
  };
};

/** Levels of a plan that may be needed, with no row drawn yet. */
export function quieterDraws(plan: DrawPlan): QuieterDraws {
  return { plan, drawn: roomForDraws(plan, plan.draws), made: new Uint8Array(plan.draws) };
}

/** Where more of the rows are needed than this, all are drawn: what a stretch of rows needs made once costs as much as a row. */
const MOST = 0.5;

/**
 * Draws those rows that are needed and not there yet.
 *
 * @param quieter overwritten
 * @param needs whether a row is needed
 */
export function drawQuieter({ plan, drawn, made }: QuieterDraws, needs: (row: number) => boolean) {
  if (plan.caps.length === 0) return;
  const missing = Uint8Array.from(made, (there, row) => (!there && needs(row) ? 1 : 0));
  const count = missing.reduce((sum, x) => sum + x, 0);
  if (count > MOST * plan.draws) missing.forEach((_, row) => (missing[row] = made[row] ? 0 : 1));
  for (let from = 0; from < plan.draws; from++) {
    if (!missing[from]) continue;
    let to = from;
    while (to < plan.draws && missing[to]) made[to++] = 1;
    runDraws(plan, from, to, drawn);
    from = to;
  }
}
