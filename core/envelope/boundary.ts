import type { MachineModel } from '../network/networkModel';
import { moveConditions, solveInto, type LinearState } from '../network/steadyState';
import { type Binding, type Configuration, type HalfPlane, type Ray } from './limitTypes';
import { firstLimit, lastHit } from './limits';

/** Where a ray leaves the region, at properties converged there. */
export interface BoundaryPoint {
  ray: Ray;
  /** Beyond the ray's start. */
  watts: number;
  cpuW: number;
  gpuW: number;
  binding: Binding;
  plane: HalfPlane;
  /** Flow of each fan there, m³/s. */
  fanM3s: number[];
}

export const TOLERANCE = 5e-6;
const MAX_ROUNDS = 40;
/** Feedback beyond this is left to plain repetition. */
const STEEPEST = 0.95;
/** How much of a change of watts comes back through the properties, before anything is known. */
const USUAL_FEEDBACK = 0.1;
/** A measured feedback is not believed to be less than this. */
const MIN_FEEDBACK = 0.02;

/**
 * Watts at which a ray leaves all limits: go to the nearest limit, take the properties there, solve, repeat until the watts
 * stand still. Secant steps shorten the feedback through the properties. The last step is taken without another solve once what it could still move is within the
 * tolerance.
 *
 * @param model the machine
 * @param rpms speed of each fan
 * @param ray direction, and where it starts
 * @param config firmware and adapter limits, or null
 * @param state a solution nearby is the start; afterwards solved at the point's own properties
 * @param tolerance share of the watts that may still move
 * @param maxRounds bound on the rounds
 * @returns W beyond the ray's start; 0 where a limit is passed with both dies idle; what still moved at the bound of rounds is left in the state
 */
export function maxPowerAlongRay(
  model: MachineModel,
  rpms: ArrayLike<number>,
  ray: Ray,
  config: Configuration | null,
  state: LinearState,
  tolerance: number,
  maxRounds = MAX_ROUNDS,
): number {
  if (!state.solved) solveInto(model, rpms, state);
  const fromCpuW = ray.fromCpuW ?? 0;
  const fromGpuW = ray.fromGpuW ?? 0;
  let running = false;
  for (let i = 0; i < rpms.length; i++) running ||= rpms[i]! > 0;
  let guess = firstLimit(model, state, config, ray);
  let lastGuess = NaN;
  let lastFound = NaN;
  for (let round = 0; ; round++) {
    moveConditions(model, state, fromCpuW + guess * ray.cpu, fromGpuW + guess * ray.gpu);
    solveInto(model, rpms, state);
    const found = firstLimit(model, state, config, ray);
    const measured = (found - lastFound) / (guess - lastGuess);
    const known = round > 0 && Math.abs(measured) < STEEPEST;
    const feedback = known ? measured : 0;
    const next = Math.max(0, guess + (found - guess) / (1 - feedback));
    const least = known ? MIN_FEEDBACK : USUAL_FEEDBACK;
    const left = Math.abs(next - guess) * Math.max(Math.abs(feedback), least);
    // without fans a first agreement may be chance: shell and air have not followed yet
    if (left <= tolerance * (1 + found) && (round > 0 || running)) return next;
    if (round >= maxRounds) {
      const { unsettled } = state;
      unsettled.wattsShare = Math.max(unsettled.wattsShare, left / (1 + found));
      return next;
    }
    lastGuess = guess;
    lastFound = found;
    guess = next;
  }
}

/** {@link maxPowerAlongRay} with what binds there and the flows. */
export function boundaryOnRay(
  model: MachineModel,
  rpms: ArrayLike<number>,
  ray: Ray,
  config: Configuration | null,
  state: LinearState,
  tolerance = TOLERANCE,
): BoundaryPoint {
  const watts = maxPowerAlongRay(model, rpms, ray, config, state, tolerance);
  const plane = lastHit(model, config);
  return {
    ray,
    watts,
    cpuW: (ray.fromCpuW ?? 0) + watts * ray.cpu,
    gpuW: (ray.fromGpuW ?? 0) + watts * ray.gpu,
    binding: plane.binding,
    plane,
    fanM3s: Array.from(state.flows.fanM3s),
  };
}
