import type { OpenCase } from '../case/openCase';
import type { WattsBand } from './wattsBand';
import { planDraws, type DrawOptions } from './drawPlan';
import { roomForDraws, runDraws, COLUMNS, READOUTS } from './draws';
import { quantileOfSorted } from './quantile';

/** Place of the readout of both dies together among a row's columns. */
const TOGETHER = 2;

/**
 * Watts of both dies together at some caps with their bands, and nothing else: what a list of machines shows. A machine with
 * one die has that die's watts.
 *
 * @param open the case
 * @param options caps, number of draws, seed
 * @returns median and 5–95 % per cap, in order, of what the cooling carries and of what the setting leaves
 */
export function sustainedBands(
  open: OpenCase,
  options: Omit<DrawOptions, 'togetherOnly'>,
): WattsBand[] {
  const plan = planDraws(open, { ...options, togetherOnly: true });
  const drawn = roomForDraws(plan, plan.draws);
  runDraws(plan, 0, plan.draws, drawn);
  const readout = plan.rays[TOGETHER] ? TOGETHER : plan.rays.findIndex((r) => r !== null);
  const column = new Float64Array(plan.draws);
  const bandAt = (cap: number, of: number) => {
    for (let i = 0; i < plan.draws; i++) {
      column[i] = drawn.watts[(i * plan.caps.length + cap) * COLUMNS + of]!;
    }
    column.sort();
    return {
      p05: quantileOfSorted(column, 0.05),
      p50: quantileOfSorted(column, 0.5),
      p95: quantileOfSorted(column, 0.95),
    };
  };
  return plan.caps.map((_, c) => ({
    ...bandAt(c, readout),
    configured: bandAt(c, readout + READOUTS),
  }));
}
