import { maxPowerAlongRay } from '../envelope/boundary';
import { carryOnRay, createMemory } from '../envelope/carry';
import { CPU_RAY, GPU_RAY } from '../envelope/envelope';
import {
  controlGroups,
  dutyForLevel,
  fanState,
  speeds,
  stateForCap,
  type Cap,
} from '../envelope/fanStates';
import type { Ray } from '../envelope/limitTypes';
import { READOUT_NAMES } from '../case/answer';
import { capsOf } from '../case/laboratory';
import type { OpenCase } from '../case/openCase';
import { buildModel } from '../network/machineModel';
import type { MachineModel } from '../network/networkModel';
import { rangeNotes, type RangeNote } from '../network/rangeNotes';
import { createState, startFrom, type LinearState } from '../network/steadyState';
import type { CaseData } from '../record/caseData';
import { resolveCase } from '../record/resolveCase';
import type { CaseInput } from '../record/resolver';
import { machineLevelDbA } from '../sound/machineLevel';
import { normalQuantile } from './normal';
import { forgetUnsettled, isUnsettled } from '../network/unsettledNotes';
import { latinHypercube } from './random';
import { spreadOf, type Spread } from './spread';

export const READOUTS = READOUT_NAMES.length;
const RANGE_COLUMN = 'model.outOfRange';
/** Log deviation added to every readout where an equation is used outside its range. */
const OUT_OF_RANGE = 0.1;

export interface DrawOptions {
  /** Those of the laboratory by default. */
  caps?: readonly Cap[] | undefined;
  /** At least 1. */
  draws: number;
  seed?: number | undefined;
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
    inputs: { path: string; quantile: Spread['quantile']; at: number[] }[];
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
  /** Watts at the central values and duty over the cap's common duty, per cap and readout. */
  centralWatts: Float64Array;
  duties: number[][][];
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
  const memory = createMemory(central);
  const notes: RangeNote[] = [];
  const centralWatts = new Float64Array(caps.length * READOUTS);
  const duties = caps.map((cap, c) => {
    const { state } = stateForCap(data, cap);
    return rays.map((ray, r) => {
      if (!ray) return [];
      const carried = carryOnRay(central, state, ray, null, memory);
      const running = carried.state.rpms.some((x) => x > 0);
      const { cpuW, gpuW } = carried.point;
      rangeNotes(central, running ? memory.on : memory.off, cpuW, gpuW, notes);
      centralWatts[c * READOUTS + r] = carried.point.watts;
      return carried.state.duties.map((d, g) => (state.duties[g]! > 0 ? d / state.duties[g]! : 0));
    });
  });
  const outOfRange = notes.length > 0;
  const byGroup = new Map<string, DrawPlan['columns'][number]>();
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
    column.inputs.push({ path: input.path, quantile: spread.quantile, at });
    byGroup.set(spread.group, column);
  }
  const columns = [...byGroup.values()];
  if (outOfRange) columns.push({ name: RANGE_COLUMN, inputs: [], relative: OUT_OF_RANGE });
  const { draws } = options;
  // the last column chooses among what the calibration leaves possible
  const width = columns.length + (open.calibration ? 1 : 0);
  const u = latinHypercube(draws, width, options.seed ?? 1);
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
    centralWatts,
    duties,
    outOfRange,
  };
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

/** Watts along a ray that a draw settles to within this share. */
const DRAW_TOLERANCE = 5e-4;
const DRAW_FLOW_TOLERANCE = 1e-5;

/**
 * Makes some of a plan's draws.
 *
 * @param plan from {@link planDraws}
 * @param from, to rows to make, `from` inclusive, `to` exclusive
 * @param out receives watts, `out[(row · caps + cap) · 3 + readout]`; a readout the machine does not have stays NaN
 * @returns in how many of these rows a solver ended at its bound
 */
export function runDraws(plan: DrawPlan, from: number, to: number, out: Float64Array): number {
  const figures = { drawn: new Float64Array(plan.asked).fill(NaN), next: 0 };
  const on = createState(plan.central);
  const off = createState(plan.central);
  on.flows.tolerance = DRAW_FLOW_TOLERANCE;
  const groups = controlGroups(plan.central.data);
  const { columns, u, draws, caps, open } = plan;
  for (const { value, at } of plan.given) for (const k of at) figures.drawn[k] = value;
  let unsettled = 0;
  for (let row = from; row < to; row++) {
    forgetUnsettled(on);
    forgetUnsettled(off);
    startFrom(on, plan.start.on);
    startFrom(off, plan.start.off);
    let factor = 1;
    for (let c = 0; c < columns.length; c++) {
      const p = u[c * draws + row]!;
      const { inputs, name } = columns[c]!;
      for (let i = 0; i < inputs.length; i++) {
        const { quantile, at } = inputs[i]!;
        const value = quantile(p);
        for (let k = 0; k < at.length; k++) figures.drawn[at[k]!] = value;
      }
      if (name === RANGE_COLUMN) factor = Math.exp(OUT_OF_RANGE * normalQuantile(p));
    }
    for (const { values, at } of plan.calibrated) {
      for (let k = 0; k < at.length; k++) figures.drawn[at[k]!] = values[row]!;
    }
    figures.next = 0;
    const data = resolveCase(open.record, figures, { lab: open.labDefaults, silent: true });
    const model = buildModel(data, plan.central);
    const full = machineLevelDbA(data, speedsAt(data, 1));
    for (let c = 0; c < caps.length; c++) {
      const duty = commonDuty(data, caps[c]!, full);
      for (let r = 0; r < READOUTS; r++) {
        const ray = plan.rays[r];
        const at = (row * caps.length + c) * READOUTS + r;
        if (!ray) {
          out[at] = NaN;
          continue;
        }
        const rpms = drawnSpeeds(data, groups, plan.duties[c]![r]!, duty);
        const work: LinearState = rpms.some((x) => x > 0) ? on : off;
        out[at] = factor * maxPowerAlongRay(model, rpms, ray, null, work, DRAW_TOLERANCE);
      }
    }
    if (isUnsettled(on) || isUnsettled(off)) unsettled++;
  }
  return unsettled;
}

function commonDuty(data: CaseData, cap: Cap, full: number | null): number {
  if (cap === 'off') return 0;
  if (cap === 'full') return 1;
  return full === null || full <= cap ? 1 : dutyForLevel(data, cap, full);
}

/** Speeds with all fans on one duty. */
function speedsAt(data: CaseData, duty: number): number[] {
  return data.fans.map((f) => (f.maxRpm * duty >= f.minRpm * (1 - 1e-12) ? f.maxRpm * duty : 0));
}

/** The split found at the central values, at this draw's duty; scaled down where it would be louder than the common duty. */
function drawnSpeeds(
  data: CaseData,
  groups: number[][],
  shares: readonly number[],
  duty: number,
): number[] {
  if (groups.length < 2) return speedsAt(data, Math.min(1, (shares[0] ?? 0) * duty));
  const split = (scale: number) =>
    speeds(
      data,
      groups,
      shares.map((s) => Math.min(1, s * duty * scale)),
    );
  if (duty === 0) return split(1);
  const cap = fanState(data, duty).levelDbA ?? -Infinity;
  let scale = 1;
  for (let i = 0; i < 12; i++) {
    const level = machineLevelDbA(data, split(scale));
    if (level === null || level <= cap) break;
    scale *= 10 ** ((cap - level - 1e-6) / 50);
  }
  return split(scale);
}
