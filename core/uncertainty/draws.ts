import { READOUT_NAMES } from '../case/answer';
import { fillModel } from '../network/fillModel';
import { buildModel } from '../network/machineModel';
import { createState, startFrom, type LinearState } from '../network/steadyState';
import { resolveBy } from '../record/resolveCase';
import { createResolver } from '../record/resolver';
import { forgetUnsettled, isUnsettled } from '../network/unsettledNotes';
import type { DrawPlan } from './drawPlan';
import { createConfiguredRow, type ConfiguredRow } from './configuredRow';
import { createRowCarry, createRowWork, setDuties, type RowWatts } from './rowCarry';
import { DRAW_TOLERANCE } from './rowFound';
import { createRowEnds } from './rowEnds';
import { drawFigures, figuresOf } from './drawnFigures';
import { readRun, runReadings } from './runReadings';
import { copyJunctions, keepJunctions, type RowJunctions } from './rowJunctions';

export const READOUTS = READOUT_NAMES.length;
/** Columns of a row at a cap: the readouts of the cooling, then those of the machine as configured. */
export const COLUMNS = 2 * READOUTS;
/** Among what holds: no such readout. */
export const HELD_BY_NOTHING = 65_535;

/** What draws give. */
export interface Drawn {
  /** `watts[(row · caps + cap) · COLUMNS + readout]`; NaN where the machine has no such readout. */
  watts: Float64Array;
  /** What holds each, as `lastHitCode` says it. */
  held: Uint16Array;
  /** What a steady run would read of each row, see `readRun`; empty where the plan has none. */
  readings: Float64Array;
}

/** Room for some rows of a plan. */
export function roomForDraws(plan: DrawPlan, rows: number): Drawn {
  const size = rows * plan.caps.length * COLUMNS;
  return {
    watts: new Float64Array(size).fill(NaN),
    held: new Uint16Array(size).fill(HELD_BY_NOTHING),
    readings: new Float64Array(plan.run ? rows * runReadings(plan.central) : 0),
  };
}

const DRAW_FLOW_TOLERANCE = 1e-4;
/** A stack's resistance is taken anew where its flow came out otherwise by more than this share: to the second order it holds. */
const DRAW_FLOW_CHANGE = 3e-2;
const DRAW_FLOW_ROUNDS = 8;
const DRAW_VAPOR_TOLERANCE = 1e-4;

/**
 * Makes some of a plan's draws: for each the best fan state of its own at or below every cap, and what firmware and adapter
 * leave of it.
 *
 * @param plan from {@link planDraws}
 * @param from, to rows to make, `from` inclusive, `to` exclusive
 * @param out room for all rows of the plan, see {@link roomForDraws}
 * @param junctions where given, what the dies read is kept too; for plans with a single readout
 * @returns in how many of these rows a solver ended at its bound
 */
export function runDraws(
  plan: DrawPlan,
  from: number,
  to: number,
  out: Drawn,
  junctions?: RowJunctions,
): number {
  const figures = figuresOf(plan);
  const { caps, open, rays, wanted } = plan;
  const work = createRowWork(createState(plan.central), createState(plan.central), caps.length);
  work.on.flows.tolerance = DRAW_FLOW_TOLERANCE;
  work.on.flows.nearRounds = DRAW_FLOW_ROUNDS;
  work.on.flows.nearChange = DRAW_FLOW_CHANGE;
  work.on.vaporTolerance = work.off.vaporTolerance = DRAW_VAPOR_TOLERANCE;
  const carried = rays.map((): RowWatts => ({
    watts: new Float64Array(caps.length),
    held: new Uint16Array(caps.length),
    fanW: new Float64Array(caps.length),
  }));
  const ends = createRowEnds(plan.central, plan.ends, rays.length, work, DRAW_TOLERANCE);
  const wantedRays = rays.map((ray, r) => (wanted[r] ? ray : null));
  const resolver = createResolver(figures, open.labDefaults, true);
  const model = buildModel(plan.central.data, plan.central);
  let firstPlace = 0;
  const keep =
    junctions &&
    ((c: number, state: LinearState | number) => {
      if (typeof state === 'number') copyJunctions(junctions, firstPlace + state, firstPlace + c);
      else keepJunctions(model, state, junctions, firstPlace + c);
    });
  const carry = createRowCarry(
    plan.central,
    wantedRays,
    plan.ends.splits,
    ends,
    work,
    carried,
    keep,
  );
  const configured: ConfiguredRow = createConfiguredRow(open, plan.duties, work);
  let unsettled = 0;
  for (let row = from; row < to; row++) {
    forgetUnsettled(work.on);
    forgetUnsettled(work.off);
    startFrom(work.on, plan.start.on);
    startFrom(work.off, plan.start.off);
    const factor = drawFigures(plan, row, figures);
    fillModel(model, resolveBy(open.record, resolver));
    setDuties(model, caps, work);
    firstPlace = row * caps.length;
    carry(model);
    for (let r = 0; r < READOUTS; r++) {
      if (!wanted[r]) continue;
      const of = carried[r]!;
      configured.set(model, rays[r]!, r === 2, of, factor);
      for (let c = 0; c < caps.length; c++) {
        const at = (firstPlace + c) * COLUMNS + r;
        out.watts[at] = factor * of.watts[c]!;
        out.held[at] = of.held[c]!;
        out.watts[at + READOUTS] = configured.watts[c]!;
        out.held[at + READOUTS] = configured.held[c]!;
      }
    }
    if (plan.run) readRun(model, plan.run, work.on, out.readings, row * runReadings(model));
    if (isUnsettled(work.on) || isUnsettled(work.off)) unsettled++;
  }
  return unsettled;
}
