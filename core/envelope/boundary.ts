import type { MachineModel } from '../network/machineModel';
import {
  conditionsAt,
  firstConditions,
  solveLinear,
  type Conditions,
  type LinearState,
} from '../network/steadyState';
import { limitPlanes, type Binding, type Configuration, type HalfPlane, type Ray } from './limits';

/** Where a ray leaves the region, at properties converged there. */
export interface BoundaryPoint {
  ray: Ray;
  watts: number;
  cpuW: number;
  gpuW: number;
  binding: Binding;
  plane: HalfPlane;
  state: LinearState;
  at: Conditions;
}

const TOLERANCE = 1e-6;
const MOST_ROUNDS = 40;
/** Feedback beyond this is left to plain repetition. */
const STEEPEST = 0.95;

/**
 * How far a ray from the origin stays inside all limits: solve at the present properties, go to the nearest limit, take the
 * properties there, repeat until the watts stand still. Secant steps shorten the feedback where warmer parts carry more (a
 * warm pipe pumps better), which plain repetition follows only slowly.
 *
 * @param model the machine
 * @param rpms speed of each fan
 * @param ray direction
 * @param config firmware and adapter limits, or null
 * @param start conditions and flows of a point nearby
 * @returns the point; 0 W where a limit is passed with both dies idle
 */
export function boundaryOnRay(
  model: MachineModel,
  rpms: readonly number[],
  ray: Ray,
  config: Configuration | null,
  start?: { at: Conditions; state: LinearState },
): BoundaryPoint {
  let at = start?.at ?? firstConditions(model);
  let state = solveLinear(model, rpms, at, start?.state.flows);
  let guess = NaN;
  let lastGuess = NaN;
  let lastHit = NaN;
  for (let round = 0; ; round++) {
    const { watts, plane } = firstHit(limitPlanes(model, state, at, config, ray), ray);
    if (Math.abs(watts - guess) <= TOLERANCE * (1 + watts) || round >= MOST_ROUNDS) {
      return {
        ray,
        watts,
        cpuW: watts * ray.cpu,
        gpuW: watts * ray.gpu,
        binding: plane.binding,
        plane,
        state,
        at,
      };
    }
    let next = watts;
    const feedback = (watts - lastHit) / (guess - lastGuess);
    if (round >= 2 && Math.abs(feedback) < STEEPEST) {
      next = Math.max(0, guess + (watts - guess) / (1 - feedback));
    }
    lastGuess = guess;
    lastHit = watts;
    guess = next;
    at = conditionsAt(model, state, guess * ray.cpu, guess * ray.gpu);
    state = solveLinear(model, rpms, at, state.flows);
  }
}

/** The limit that a ray meets first, and the watts up to there (≥ 0). */
export function firstHit(
  planes: readonly HalfPlane[],
  ray: Ray,
): { watts: number; plane: HalfPlane } {
  let best = Infinity;
  let plane: HalfPlane | null = null;
  for (const p of planes) {
    const slope = p.cpu * ray.cpu + p.gpu * ray.gpu;
    if (slope <= 1e-15) {
      if (p.room < 0 && best > 0) {
        best = 0;
        plane = p;
      }
      continue;
    }
    const watts = Math.max(0, p.room / slope);
    if (watts < best) {
      best = watts;
      plane = p;
    }
  }
  if (!plane) throw new Error('no limit lies in this direction');
  return { watts: best, plane };
}
