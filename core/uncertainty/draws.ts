import { carryOnRay, createMemory, type CarryMemory } from '../envelope/carry';
import { CPU_RAY, GPU_RAY } from '../envelope/envelope';
import { stateForCap, type Cap } from '../envelope/fanStates';
import type { Ray } from '../envelope/limitTypes';
import { READOUT_NAMES } from '../case/answer';
import { capsOf } from '../case/laboratory';
import type { OpenCase } from '../case/openCase';
import { fillModel } from '../network/fillModel';
import { buildModel } from '../network/machineModel';
import type { MachineModel } from '../network/networkModel';
import { rangeNotes, type RangeNote } from '../network/rangeNotes';
import { createState, startFrom, type LinearState } from '../network/steadyState';
import { resolveBy } from '../record/resolveCase';
import { createResolver, type CaseInput } from '../record/resolver';
import { forgetUnsettled, isUnsettled } from '../network/unsettledNotes';
import { latinHypercube } from './random';
import { createConfiguredRow, type ConfiguredRow } from './configuredRow';
import { createRowCarry, createRowWork, setDuties, type RowWatts } from './rowCarry';
import { DRAW_TOLERANCE } from './rowFound';
import { centralEnds, type CentralEnds } from './centralEnds';
import { createRowEnds } from './rowEnds';
import { drawFigures, figuresOf, OUT_OF_RANGE, RANGE_COLUMN } from './drawnFigures';
import { readRun, runAt, runReadings, type RunToMake } from './runReadings';
import { copyJunctions, keepJunctions, type RowJunctions } from './rowJunctions';
import { spreadOf, type Spread } from './spread';

export const READOUTS = READOUT_NAMES.length;
/** Columns of a row at a cap: the readouts of the cooling, then those of the machine as configured. */
export const COLUMNS = 2 * READOUTS;
/** Among what holds: no such readout. */
export const HELD_BY_NOTHING = 65_535;
export interface DrawOptions {
  /** Those of the laboratory by default. */
  caps?: readonly Cap[] | undefined;
  /** At least 1. */
  draws: number;
  seed?: number | undefined;
  /** True leaves all readouts but both dies together out: what a list of machines needs. */
  togetherOnly?: boolean | undefined;
  /** False leaves the probabilities at 0, for those who draw them otherwise. */
  drawn?: false | undefined;
}

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

/** A figure that a calibration moved, as it is in each draw. */
interface CalibratedColumn {
  name: string;
  at: number[];
  values: Float64Array;
  relative: number;
}

/** Everything a sampling needs, made once; the same case, options and seed give the same plan anywhere. */
export interface DrawPlan {
  open: OpenCase;
  caps: readonly Cap[];
  draws: number;
  /** Columns of the hypercube, each a cause; its inputs are drawn together. */
  columns: {
    name: string;
    /** Each with the places at which it is asked for. */
    inputs: {
      path: string;
      quantile: Spread['quantile'];
      at: number[];
      /** Another cause by which it is multiplied: its column, and one standard deviation of its logarithm. */
      also?: { column: number; logSd: number };
    }[];
    relative: number;
  }[];
  /** Figures that bench runs taught: drawn from what is still possible after the fit, all together. */
  calibrated: CalibratedColumn[];
  /** Figures that are given and stay as they are. */
  given: { value: number; at: number[] }[];
  inputs: readonly CaseInput[];
  /** How many figures a case asks for. */
  asked: number;
  /** Column-major probabilities. */
  u: Float64Array;
  rays: (Ray | null)[];
  central: MachineModel;
  /** Solved at the central values: where every draw starts, so that its result depends on nothing but its row. */
  start: { on: LinearState; off: LinearState };
  /** Duty of each group over the cap's common duty that is best at the central values, per cap and readout. */
  duties: number[][][];
  /** Where the rays end at the central values. */
  ends: CentralEnds;
  /** Readouts that are wanted; the others stay NaN. */
  wanted: readonly boolean[];
  /** The steady run whose effect is foretold; null for a list of machines. */
  run: RunToMake | null;
  outOfRange: boolean;
}

/**
 * Plans a seeded Latin hypercube over everything that is not exactly known. What a calibration moved is drawn from what is
 * possible after it; what is overridden stays as it is.
 *
 * @param open the case
 * @param options caps, number of draws, seed
 */
export function planDraws(open: OpenCase, options: DrawOptions): DrawPlan {
  const caps = options.caps ?? capsOf(open.lab);
  const { data, model: central, ratio } = open;
  const both = central.hasCpu && central.hasGpu;
  const rays = [
    central.hasCpu ? CPU_RAY : null,
    central.hasGpu ? GPU_RAY : null,
    both ? ratio : null,
  ];
  // a machine with one die has its watts alone as those together
  const wanted = rays.map((ray, r) => ray !== null && (!options.togetherOnly || !both || r === 2));
  const memory = createMemory(central);
  const notes: RangeNote[] = [];
  const duties = caps.map((cap) => {
    const { state } = stateForCap(data, cap);
    return rays.map((ray) => {
      if (!ray) return [];
      const carried = carryOnRay(central, state, ray, null, memory);
      const running = carried.state.rpms.some((x) => x > 0);
      const { cpuW, gpuW } = carried.point;
      rangeNotes(central, running ? memory.on : memory.off, cpuW, gpuW, notes);
      return carried.state.duties.map((d, g) => (state.duties[g]! > 0 ? d / state.duties[g]! : 0));
    });
  });
  const outOfRange = notes.length > 0;
  const run = options.togetherOnly ? null : likelyRun(open, memory);
  const byGroup = new Map<string, DrawPlan['columns'][number]>();
  const common: {
    input: DrawPlan['columns'][number]['inputs'][number];
    group: string;
    relative: number;
  }[] = [];
  const places = new Map<string, number[]>();
  data.order.forEach((path, k) => {
    const at = places.get(path);
    if (at) at.push(k);
    else places.set(path, [k]);
  });
  const { overrides } = open.request;
  const taught = new Set(open.calibration?.paths);
  const given: DrawPlan['given'] = [];
  for (const input of data.inputs) {
    const at = places.get(input.path) ?? [];
    const exact = overrides?.get(input.path) ?? overrides?.get(input.key ?? '');
    if (exact !== undefined) {
      given.push({ value: exact, at });
      continue;
    }
    if (taught.has(input.path)) continue;
    const spread = spreadOf(input, open.labDefaults);
    if (!spread) continue;
    const column = byGroup.get(spread.group) ?? {
      name: spread.group,
      inputs: [],
      relative: spread.relative,
    };
    const { shared } = spread;
    column.inputs.push({ path: input.path, quantile: shared?.ownQuantile ?? spread.quantile, at });
    byGroup.set(spread.group, column);
    if (shared) common.push({ input: column.inputs.at(-1)!, ...shared });
  }
  for (const { group, relative } of common) {
    if (!byGroup.has(group)) byGroup.set(group, { name: group, inputs: [], relative });
  }
  const columns = [...byGroup.values()];
  const columnOf = new Map(columns.map((c, i) => [c.name, i]));
  for (const { input, group, relative } of common) {
    input.also = { column: columnOf.get(group)!, logSd: relative };
  }
  if (outOfRange) columns.push({ name: RANGE_COLUMN, inputs: [], relative: OUT_OF_RANGE });
  const { draws } = options;
  // the last column chooses among what the calibration leaves possible
  const width = columns.length + (open.calibration ? 1 : 0);
  const u =
    options.drawn === false
      ? new Float64Array(draws * width)
      : latinHypercube(draws, width, options.seed ?? 1);
  return {
    open,
    caps,
    draws,
    columns,
    calibrated: calibratedColumns(open, places, u.subarray(columns.length * draws)),
    given,
    inputs: data.inputs,
    asked: data.order.length,
    u,
    rays,
    central,
    start: { on: memory.on, off: memory.off },
    duties,
    ends: centralEnds(
      central,
      caps,
      rays.map((ray, r) => (wanted[r] ? ray : null)),
      duties,
    ),
    wanted,
    run,
    outOfRange,
  };
}

/** The run that would be made of a machine: both dies in their ratio, by what full speed carries at the central values. */
function likelyRun({ data, model, ratio }: OpenCase, memory: CarryMemory): RunToMake {
  const { state } = stateForCap(data, 'full');
  const { point } = carryOnRay(model, state, ratio, null, memory);
  return runAt(point.cpuW, point.gpuW);
}

/** Each draw takes one whole set of a calibration, so that what its figures have to do with each other is kept. */
function calibratedColumns(
  { calibration, request }: OpenCase,
  places: ReadonlyMap<string, number[]>,
  u: Float64Array,
): CalibratedColumn[] {
  if (!calibration) return [];
  const { paths, rows, count } = calibration;
  const out: CalibratedColumn[] = [];
  paths.forEach((name, i) => {
    const at = places.get(name);
    if (!at || request.overrides?.has(name)) return;
    const values = u.map(
      (p) => rows[Math.min(count - 1, Math.floor(p * count)) * paths.length + i]!,
    );
    out.push({ name, at, values, relative: relativeDeviation(values) });
  });
  return out;
}

function relativeDeviation(values: Float64Array): number {
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  const squares = values.reduce((sum, x) => sum + (x - mean) ** 2, 0);
  return Math.sqrt(squares / values.length) / Math.max(Math.abs(mean), 1e-12);
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
