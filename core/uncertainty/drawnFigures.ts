import { normalQuantile } from './normal';
import type { DrawPlan } from './drawPlan';

/** Column of what the equations are off where one is used outside its range. */
export const RANGE_COLUMN = 'model.outOfRange';
/** Log deviation added to every readout then. */
export const OUT_OF_RANGE = 0.1;

/** Figures of one row in the order in which a case asks for them; NaN where it takes its own. */
export interface DrawnFigures {
  drawn: Float64Array;
  next: number;
}

/** Room for the figures of a row, with those that are given filled in. */
export function figuresOf(plan: DrawPlan): DrawnFigures {
  const drawn = new Float64Array(plan.asked).fill(NaN);
  for (const { value, at } of plan.given) for (const k of at) drawn[k] = value;
  return { drawn, next: 0 };
}

/**
 * Draws the figures of one row, ready to be asked for.
 *
 * @param plan the plan
 * @param row which of its rows
 * @param figures overwritten
 * @returns factor on every readout: 1, or what the equations are off outside their range
 */
export function drawFigures(plan: DrawPlan, row: number, figures: DrawnFigures): number {
  const { columns, u, z, draws } = plan;
  const { drawn } = figures;
  let factor = 1;
  for (let c = 0; c < columns.length; c++) {
    const normal = z ? z[c]![row]! : normalQuantile(u[c * draws + row]!);
    const { inputs, name } = columns[c]!;
    for (let i = 0; i < inputs.length; i++) {
      const { valueAt, at, also } = inputs[i]!;
      let value = valueAt(normal);
      if (also) value *= Math.exp(also.logSd * normalQuantile(u[also.column * draws + row]!));
      for (let k = 0; k < at.length; k++) drawn[at[k]!] = value;
    }
    if (name === RANGE_COLUMN) factor = Math.exp(OUT_OF_RANGE * normal);
  }
  for (const { values, at } of plan.calibrated) {
    for (let k = 0; k < at.length; k++) drawn[at[k]!] = values[row]!;
  }
  figures.next = 0;
  return factor;
}
