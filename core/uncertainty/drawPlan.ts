import { carryOnRay, createMemory, type CarryMemory } from '../envelope/carry';
import { CPU_RAY, GPU_RAY } from '../envelope/envelope';
import { stateForCap, type Cap } from '../envelope/fanStates';
import type { Ray } from '../envelope/limitTypes';
import { capsOf } from '../case/laboratory';
import type { OpenCase } from '../case/openCase';
import type { MachineModel } from '../network/networkModel';
import { rangeNotes, type RangeNote } from '../network/rangeNotes';
import type { LinearState } from '../network/steadyState';
import type { CaseInput } from '../record/resolver';
import { latinHypercube } from './random';
import { centralEnds, type CentralEnds } from './centralEnds';
import { sharesOf } from './centralSplits';
import { OUT_OF_RANGE, RANGE_COLUMN } from './drawnFigures';
import { runAt, type RunToMake } from './runReadings';
import { spreadOf, type Spread } from './spread';

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
      /** Its value by the standard normal variable of its column. */
      valueAt: Spread['at'];
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
  /** The standard normal variables that have them, column by column, where they are known already. */
  z?: readonly Float64Array[];
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
  // caps beyond full speed are one state
  const byDuty = new Map<number, number[][]>();
  const duties = caps.map((cap) => {
    const { state } = stateForCap(data, cap);
    const duty = state.duties[0] ?? 0;
    const known = byDuty.get(duty);
    if (known) return known;
    const best = rays.map((ray) => {
      if (!ray) return [];
      const carried = carryOnRay(central, state, ray, null, memory);
      const running = carried.state.rpms.some((x) => x > 0);
      const { cpuW, gpuW } = carried.point;
      rangeNotes(central, running ? memory.on : memory.off, cpuW, gpuW, notes);
      return sharesOf(data, carried.state, duty);
    });
    byDuty.set(duty, best);
    return best;
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
    column.inputs.push({ path: input.path, valueAt: shared?.ownAt ?? spread.at, at });
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
