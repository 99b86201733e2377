import type { Estimate } from '../case/answer';
import { estimate, type EstimateOptions } from '../case/estimate';
import type { OpenCase } from '../case/openCase';
import { planDraws, type DrawOptions } from './drawPlan';
import { roomForDraws, runDraws } from './draws';
import { summarise, withBands, type DrawSummary } from './summary';

/**
 * The whole answer with bands, shares and what to measure next, in one go.
 *
 * @param open the case
 * @param options as for `estimate`; `draws` ≥ 1, `seed`
 */
export function estimateWithDraws(
  open: OpenCase,
  options: EstimateOptions & DrawOptions,
): { estimate: Estimate; summary: DrawSummary } {
  const plan = planDraws(open, options);
  const drawn = roomForDraws(plan, plan.draws);
  const unsettled = runDraws(plan, 0, plan.draws, drawn);
  const summary = summarise(plan, drawn, unsettled);
  return { estimate: withBands(estimate(open, options), summary), summary };
}
