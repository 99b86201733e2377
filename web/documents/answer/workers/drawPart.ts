import { openCase, type CaseRequest } from '@zugluft/core/case/openCase';
import { planDraws, type DrawOptions, type DrawPlan } from '@zugluft/core/uncertainty/drawPlan';
import { roomForDraws, runDraws, type Drawn } from '@zugluft/core/uncertainty/draws';

export interface DrawJob {
  request: CaseRequest;
  options: DrawOptions;
}

/** Some rows of a plan, cut out of all. */
export interface DrawPart extends Drawn {
  unsettled: number;
}

/** Rows of one item. */
const ROWS = 40;

/** How many items a plan has. */
export const drawItems = (plan: DrawPlan): number => Math.ceil(plan.draws / ROWS);

/** The rows of one item: `from` inclusive, `to` exclusive. */
export function rowsOf(plan: DrawPlan, item: number): { from: number; to: number } {
  const from = item * ROWS;
  return { from, to: Math.min(plan.draws, from + ROWS) };
}

/** Prepares draws of which an item is some rows. */
export function drawPart({ request, options }: DrawJob): (item: number) => DrawPart {
  const plan = planDraws(openCase(request), options);
  const drawn = roomForDraws(plan, plan.draws);
  return (item) => {
    const { from, to } = rowsOf(plan, item);
    const unsettled = runDraws(plan, from, to, drawn);
    const cut = (length: number): [number, number] => {
      const perRow = length / plan.draws;
      return [from * perRow, to * perRow];
    };
    return {
      watts: drawn.watts.slice(...cut(drawn.watts.length)),
      held: drawn.held.slice(...cut(drawn.held.length)),
      readings: drawn.readings.slice(...cut(drawn.readings.length)),
      unsettled,
    };
  };
}

/** Puts rows that were made elsewhere into their place. */
export function placePart(plan: DrawPlan, item: number, part: DrawPart, drawn: Drawn): void {
  const { from } = rowsOf(plan, item);
  const at = (length: number) => (from * length) / plan.draws;
  drawn.watts.set(part.watts, at(drawn.watts.length));
  drawn.held.set(part.held, at(drawn.held.length));
  drawn.readings.set(part.readings, at(drawn.readings.length));
}
