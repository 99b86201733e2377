import { keepFlows, stillAir, type AirFlows } from '../airflow/airSystem';
import { maxPowerAlongRay } from '../envelope/boundary';
import { fanState, startDuties, stateForCap, type Cap } from '../envelope/fanStates';
import { codeOf } from '../envelope/limitNames';
import { firstLimit, lastHitCode } from '../envelope/limits';
import type { Ray } from '../envelope/limitTypes';
import { visitTemperatures } from '../envelope/visitLimits';
import type { MachineModel } from '../network/networkModel';
import { centralSplits, type SplitSet } from './centralSplits';
import { whichTurn } from './expectedFlows';
import {
  createState,
  moveConditions,
  solveInto,
  type Conditions,
  type LinearState,
} from '../network/steadyState';

/** Where some rays end at the central values at one state of the fans. */
export interface StateEnds {
  /** By ray, W; 0 where there is no ray. */
  watts: number[];
  /** By ray, the temperatures at which properties are taken there, see {@link readTemperatures}; null where there is no ray. */
  temperatures: (Float64Array | null)[];
  /** Air at the last of these ends, and which fans turn there as `whichTurn` says it. */
  flows: AirFlows;
  turn: number;
  /** By ray and code of a limit: the share by which its watts move for each kelvin of each of these temperatures. */
  shares: ReadonlyMap<number, Float64Array>[];
}

/** Where some rays end at the central values. */
export interface CentralEnds {
  /**
   * With all fans on the common duty of each cap; where even the least is louder, as the first fan starts, since a draw may be
   * quieter. Null for fans off.
   */
  caps: (StateEnds | null)[];
  off: StateEnds;
  /** Fans controlled apart: the best splits of each cap; none where there is nothing to split. */
  splits: SplitSet[][];
  /** Air with only some of the fans turning, as it was sought so far, by which of them. */
  airByTurn: Map<number, AirFlows>;
}

/** How many temperatures the properties of a machine with its fans on hang on. */
export const temperatureCount = (model: MachineModel): number => 2 + model.segments.length;

/** Intake, shell, and the mean air of each stack, °C. */
export function readTemperatures(at: Conditions, out: Float64Array): void {
  out[0] = at.intakeC;
  out[1] = at.shellC;
  for (let i = 0; i < at.filmC.length; i++) out[2 + i] = at.filmC[i]!;
}

/** Sets what {@link readTemperatures} reads. */
export function writeTemperatures(from: Float64Array, at: Conditions): void {
  at.intakeC = from[0]!;
  at.shellC = from[1]!;
  for (let i = 0; i < at.filmC.length; i++) at.filmC[i] = from[2 + i]!;
}

/** Sets a state's temperatures to those at some watts along a ray. */
export function moveAlong(model: MachineModel, state: LinearState, ray: Ray, watts: number): void {
  moveConditions(
    model,
    state,
    (ray.fromCpuW ?? 0) + watts * ray.cpu,
    (ray.fromGpuW ?? 0) + watts * ray.gpu,
  );
}

const TOLERANCE = 1e-5;
/** Kelvin by which a temperature is moved to see what it does. */
const MOVED_K = 2;

/**
 * Finds where rays end at the central values, and what moves those ends.
 *
 * @param model at the central values
 * @param caps levels
 * @param rays null is passed over
 * @param duties of groups of fans controlled apart over the cap's common duty that are best, by cap and ray
 */
export function centralEnds(
  model: MachineModel,
  caps: readonly Cap[],
  rays: readonly (Ray | null)[],
  duties: readonly (readonly (readonly number[])[])[],
): CentralEnds {
  const { data } = model;
  const on = createState(model);
  const firstStart = startDuties(data).find((x) => x > 0);
  const at = (duty: number, state: LinearState) =>
    stateEnds(model, fanState(data, duty).rpms, rays, state);
  /** Caps beyond full speed are one state. */
  const known = new Map<number, StateEnds>();
  const onAt = (duty: number): StateEnds => {
    const there = known.get(duty) ?? at(duty, on);
    known.set(duty, there);
    return there;
  };
  const ends: CentralEnds = {
    caps: caps.map((cap) => {
      if (cap === 'off') return null;
      const { state } = stateForCap(data, cap);
      const duty = state.rpms.some((x) => x > 0) ? state.duties[0] : firstStart;
      return duty === undefined ? null : onAt(duty);
    }),
    off: at(0, createState(model)),
    splits: [],
    airByTurn: new Map(),
  };
  ends.splits = centralSplits(model, caps, rays, duties, ends);
  return ends;
}

/**
 * Finds where rays end at the central values at given speeds, and what moves those ends.
 *
 * @param model at the central values
 * @param rays null is passed over
 * @param state working memory
 */
export function stateEnds(
  model: MachineModel,
  rpms: readonly number[],
  rays: readonly (Ray | null)[],
  state: LinearState,
): StateEnds {
  const watts = rays.map(() => 0);
  const temperatures = rays.map((ray, r) => {
    if (!ray) return null;
    watts[r] = maxPowerAlongRay(model, rpms, ray, null, state, TOLERANCE);
    moveAlong(model, state, ray, watts[r]!);
    const own = new Float64Array(temperatureCount(model));
    readTemperatures(state.at, own);
    return own;
  });
  const flows = stillAir(model.air);
  keepFlows(state.flows, flows);
  const shares = sharesAt(model, rpms, rays, temperatures, state);
  return { watts, temperatures, flows, turn: whichTurn(rpms), shares };
}

/** Moves one temperature after the other, from the mean of the rays' ends. */
function sharesAt(
  model: MachineModel,
  rpms: readonly number[],
  rays: readonly (Ray | null)[],
  temperatures: readonly (Float64Array | null)[],
  state: LinearState,
): Map<number, Float64Array>[] {
  const count = temperatureCount(model);
  const mean = new Float64Array(count);
  const ends = temperatures.filter((own) => own !== null);
  for (const own of ends) for (let i = 0; i < count; i++) mean[i]! += own[i]! / ends.length;
  const wattsAt = (at: Float64Array): Map<number, number>[] => {
    writeTemperatures(at, state.at);
    solveInto(model, rpms, state);
    return rays.map((ray) => (ray ? limitWatts(model, state, ray) : new Map()));
  };
  const start = wattsAt(mean);
  const out = rays.map(() => new Map<number, Float64Array>());
  for (let i = 0; i < count; i++) {
    const at = mean.slice();
    at[i]! += MOVED_K;
    wattsAt(at).forEach((of, r) => {
      for (const [code, watts] of of) {
        const before = start[r]!.get(code);
        if (!before) continue;
        const shares = out[r]!.get(code) ?? new Float64Array(count);
        shares[i] = (watts / before - 1) / MOVED_K;
        out[r]!.set(code, shares);
      }
    });
  }
  return out;
}

/** Watts at which each limit of temperature lies along a ray, and the first of all limits, by code. */
export function limitWatts(model: MachineModel, state: LinearState, ray: Ray): Map<number, number> {
  const out = new Map<number, number>();
  visitTemperatures(model, state, (cpu, gpu, headroom, limit, part, kind) => {
    const slope = cpu * ray.cpu + gpu * ray.gpu;
    const left = headroom - cpu * (ray.fromCpuW ?? 0) - gpu * (ray.fromGpuW ?? 0);
    if (slope > 1e-15 && left > 0) out.set(codeOf(limit, part, kind), left / slope);
  });
  const watts = firstLimit(model, state, null, ray);
  out.set(lastHitCode(), watts);
  return out;
}
