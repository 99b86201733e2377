import { estimate, type Estimate, type EstimateOptions } from '../estimate';
import type { CaseRecord } from '../record/recordSchema';
import { planDraws, READOUTS, runDraws } from './draws';
import { summarise, withBands, type DrawSummary } from './summary';

/**
 * The whole answer with bands, shares and what to measure next, in one go.
 *
 * @param record a record that `parseRecord` found complete
 * @param options as for `estimate`; `draws` ≥ 1, `seed`
 */
export function estimateWithDraws(
  record: CaseRecord,
  options: EstimateOptions & { draws: number; seed?: number },
): { estimate: Estimate; summary: DrawSummary } {
  const plan = planDraws(record, options);
  const watts = new Float64Array(plan.draws * plan.caps.length * READOUTS);
  runDraws(plan, 0, plan.draws, watts);
  const summary = summarise(plan, watts);
  return { estimate: withBands(estimate(record, options), summary), summary };
}
