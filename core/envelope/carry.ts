import type { MachineModel } from '../network/networkModel';
import { createState, type LinearState } from '../network/steadyState';
import { goldenSection } from '../numerics/goldenSection';
import { boundaryOnRay, maxPowerAlongRay } from './boundary';
import { better, type Carried } from './carried';
import { controlGroups, fanState, startDuties, type FanState } from './fanStates';
import type { Configuration, Ray } from './limitTypes';
import { bestSplit } from './splitFans';

/** What one ray's solution leaves behind for the next. */
export interface CarryMemory {
  /** Working states with fans on and off: each solve starts where the last one ended. */
  on: LinearState;
  off: LinearState;
  /** Best state over the whole range of duty, by ray and configuration; no cap enters, so every cap may use it. */
  best: Map<string, Carried>;
  /** What fans off, and the states at which a fan just starts, carry, by ray, configuration and duty. */
  starts: Map<string, Carried>;
  /** Best splits found so far with fans controlled apart, by ray and configuration. */
  splits: Map<string, Carried[]>;
}

export function createMemory(model: MachineModel): CarryMemory {
  return {
    on: createState(model),
    off: createState(model),
    best: new Map(),
    starts: new Map(),
    splits: new Map(),
  };
}

export function isRunning(state: FanState): boolean {
  return state.rpms.some((x) => x > 0);
}

/** What one fan state carries along a ray. */
export function solveAt(
  model: MachineModel,
  state: FanState,
  ray: Ray,
  config: Configuration | null,
  memory: CarryMemory,
  tolerance?: number,
): Carried {
  const work = isRunning(state) ? memory.on : memory.off;
  return { point: boundaryOnRay(model, state.rpms, ray, config, work, tolerance), state };
}

/**
 * Limits that more air always moves outwards. Where one of these binds at the loudest state, every slower one is held by it
 * sooner, whatever else would hold it.
 */
const MOVED_BY_AIR: ReadonlySet<string> = new Set(['junction', 'skin', 'exhaust-air']);
const SLOWER = 0.985;
/** The look at a slightly slower state needs no more than this. */
const LOOK_TOLERANCE = 2e-4;
const SEARCH_STEPS = 14;

/**
 * The most that can be carried along a ray by any fan state up to the given one, hence never less at a higher cap.
 *
 * More air moves every temperature limit outwards, so that where one of these binds no slower state carries more. A cooler pipe
 * pumps worse, and the fans' own watts come out of the adapter: where another limit binds a slightly slower state is looked at,
 * and if it carries more the best duty is sought over the whole range, so that every cap above the best finds the same state. Fans off and the states at
 * which a further fan just starts are candidates as well. Fans controlled apart get the best split of the same level.
 *
 * @param model the machine
 * @param loudest the loudest state allowed, all fans on one duty
 * @param ray direction in the (CPU, GPU) plane
 * @param config firmware and adapter limits, or null
 * @param memory start values and found optima, shared between calls on one model
 */
export function carryOnRay(
  model: MachineModel,
  loudest: FanState,
  ray: Ray,
  config: Configuration | null,
  memory: CarryMemory,
): Carried {
  const solve = (state: FanState) => solveAt(model, state, ray, config, memory);
  const first = solve(loudest);
  // no fan state moves a firmware limit
  if (!isRunning(loudest) || first.point.binding.limit === 'firmware') return first;
  const together = bestCommonDuty(model, loudest, ray, config, memory, first);
  if (controlGroups(model.data).length < 2) return together;
  const key = rayKey(ray, config);
  const found = memory.splits.get(key) ?? [];
  let best = bestSplit(model, loudest, together, solve);
  for (const c of found) {
    if ((c.state.levelDbA ?? -Infinity) <= (loudest.levelDbA ?? -Infinity)) best = better(best, c);
  }
  memory.splits.set(key, [...found, best]);
  return best;
}

function rayKey(ray: Ray, config: Configuration | null): string {
  const from = `${(ray.fromCpuW ?? 0).toFixed(6)} ${(ray.fromGpuW ?? 0).toFixed(6)}`;
  const by = config ? `${config.cpuW} ${config.gpuW} ${config.adapterW}` : 'carry';
  return `${ray.cpu.toFixed(9)} ${from} ${by}`;
}

function bestCommonDuty(
  model: MachineModel,
  loudest: FanState,
  ray: Ray,
  config: Configuration | null,
  memory: CarryMemory,
  first: Carried,
): Carried {
  const { data } = model;
  const duty = loudest.duties[0]!;
  const solve = (d: number) => solveAt(model, fanState(data, d), ray, config, memory);
  let best = first;
  const starts = startDuties(data).filter((d) => d < duty);
  const key = rayKey(ray, config);
  // of the starts the last one is part of the range up to the loudest state
  for (const d of [0, ...starts.slice(0, -1)]) {
    const startKey = `${key} ${d}`;
    const known = memory.starts.get(startKey) ?? solve(d);
    memory.starts.set(startKey, known);
    best = better(best, known);
  }
  const from = starts[starts.length - 1];
  if (from === undefined || MOVED_BY_AIR.has(first.point.binding.limit)) return best;
  const slowerDuty = Math.max(from, duty * SLOWER);
  const { rpms } = fanState(data, slowerDuty);
  const look = maxPowerAlongRay(model, rpms, ray, config, memory.on, LOOK_TOLERANCE);
  if (look <= first.point.watts * (1 + 2 * LOOK_TOLERANCE)) return best;
  best = better(best, solve(slowerDuty));
  let top = memory.best.get(key);
  if (!top) {
    top = searchDuty(solve, from, 1);
    memory.best.set(key, top);
  }
  // where the best of all is louder there may be a second one below the cap
  return better(best, top.state.duties[0]! <= duty ? top : searchDuty(solve, from, duty));
}

/** The state that carries most over a range of duty. */
function searchDuty(solve: (duty: number) => Carried, from: number, to: number): Carried {
  let best: Carried | null = null;
  const at = (duty: number): number => {
    const found = solve(duty);
    best = best ? better(best, found) : found;
    return found.point.watts;
  };
  goldenSection(at, from, to, SEARCH_STEPS);
  return best!;
}

/** Share by which a corner of an outline may be off; an edge may be off by thirty times as much. */
const OUTLINE_TOLERANCE = 1e-4;

/**
 * The most that any of a few given states carries along a ray: for the many rays of an outline, with the states that the
 * readouts at its cap chose.
 */
export function carryAmong(
  model: MachineModel,
  states: readonly FanState[],
  ray: Ray,
  config: Configuration | null,
  memory: CarryMemory,
): Carried {
  const solve = (state: FanState) => solveAt(model, state, ray, config, memory, OUTLINE_TOLERANCE);
  let best = solve(states[0]!);
  for (const state of states.slice(1)) {
    best = better(best, solve(state));
  }
  return best;
}
