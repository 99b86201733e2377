import type { MachineModel } from '../network/machineModel';
import { boundaryOnRay, type BoundaryPoint } from './boundary';
import { fanState, startDuties, type FanState } from './fanStates';
import type { Configuration, Ray } from './limits';

/** The best that can be carried along a ray, and the fan state that does it. */
export interface Carried {
  point: BoundaryPoint;
  state: FanState;
}

/** What one ray's solution leaves behind for the next. */
export interface CarryMemory {
  /** Last point with fans on and off: where the next solve starts. */
  near: Map<string, BoundaryPoint>;
  /** Best state over the whole range of duty, by ray and configuration; no cap enters, so every cap may use it. */
  best: Map<string, Carried>;
}

export function createMemory(): CarryMemory {
  return { near: new Map(), best: new Map() };
}

function solveAt(
  model: MachineModel,
  state: FanState,
  ray: Ray,
  config: Configuration | null,
  memory: CarryMemory,
): Carried {
  const key = isRunning(state) ? 'on' : 'off';
  const point = boundaryOnRay(model, state.rpms, ray, config, memory.near.get(key));
  memory.near.set(key, point);
  return { point, state };
}

function isRunning(state: FanState): boolean {
  return state.rpms.some((x) => x > 0);
}

const SLOWER = 0.985;
const SEARCH_STEPS = 14;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** A quieter state must be clearly better, so that rounding does not choose. */
function better(a: Carried, b: Carried): Carried {
  return b.point.watts > a.point.watts * (1 + 1e-6) + 1e-9 ? b : a;
}

/**
 * The most that can be carried along a ray by any fan state up to the given one, hence never less at a higher cap.
 *
 * More air nearly always carries more. Where a slightly slower state carries more (a cooler pipe pumps worse), the best duty
 * is sought over the whole range, so that every cap above the best finds the same state. The states at which a further fan
 * just starts are candidates as well.
 *
 * @param model the machine
 * @param loudest the loudest state allowed
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
  const { data } = model;
  const solve = (state: FanState) => solveAt(model, state, ray, config, memory);
  let best = solve(loudest);
  // no fan state moves a firmware limit
  if (!isRunning(loudest) || best.point.binding.limit === 'firmware') return best;
  const starts = startDuties(data).filter((d) => d < loudest.duty);
  for (const d of starts.slice(0, -1)) best = better(best, solve(fanState(data, d)));
  const from = starts[starts.length - 1];
  if (from === undefined) return best;
  const slower = solve(fanState(data, Math.max(from, loudest.duty * SLOWER)));
  if (better(best, slower) === best) return best;
  const key = `${ray.cpu.toFixed(9)} ${config ? 'configured' : 'carry'}`;
  let top = memory.best.get(key);
  if (!top) {
    top = searchDuty((duty) => solve(fanState(data, duty)), from);
    memory.best.set(key, top);
  }
  return top.state.duty <= loudest.duty ? better(better(best, slower), top) : better(best, slower);
}

/** Golden section over duty for the state that carries most, between a fan's start and full speed. */
function searchDuty(solve: (duty: number) => Carried, from: number): Carried {
  let lo = from;
  let hi = 1;
  let a = solve(hi - GOLDEN * (hi - lo));
  let b = solve(lo + GOLDEN * (hi - lo));
  for (let i = 0; i < SEARCH_STEPS; i++) {
    if (a.point.watts > b.point.watts) {
      hi = b.state.duty;
      b = a;
      a = solve(hi - GOLDEN * (hi - lo));
    } else {
      lo = a.state.duty;
      a = b;
      b = solve(lo + GOLDEN * (hi - lo));
    }
  }
  return better(a, b);
}

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
  let best = solveAt(model, states[0]!, ray, config, memory);
  for (const state of states.slice(1)) {
    best = better(best, solveAt(model, state, ray, config, memory));
  }
  return best;
}
