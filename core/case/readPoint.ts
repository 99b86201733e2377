import { carryOnRay, createMemory } from '../envelope/carry';
import { stateForCap, type Cap } from '../envelope/fanStates';
import { pointReadout, type PointReadout } from '../envelope/pointReadout';
import type { OpenCase } from './openCase';

/** Watts beyond what is carried by less than this share are at the limit, not beyond it. */
const AT_LIMIT = 1e-3;

/**
 * Temperatures, pipe loads, flows and speeds at one pair of watts under a cap: with its loudest fan state, or where a pipe would
 * run dry at that and a slower one, with warmer vapor, holds these watts, with the slower one.
 *
 * @param open the case
 * @param cap the cap
 * @param cpuW, gpuW reported watts, ≥ 0
 */
export function readPoint(
  { model }: Pick<OpenCase, 'model'>,
  cap: Cap,
  cpuW: number,
  gpuW: number,
): PointReadout {
  const { state } = stateForCap(model.data, cap);
  const loudest = pointReadout(model, state, cpuW, gpuW);
  const sum = cpuW + gpuW;
  if (!(sum > 0) || loudest.pipes.every((p) => p.shareOfLimit <= 1)) return loudest;
  const ray = { cpu: cpuW / sum, gpu: gpuW / sum };
  const best = carryOnRay(model, state, ray, null, createMemory(model));
  if (best.point.watts < sum * (1 - AT_LIMIT)) return loudest;
  return pointReadout(model, best.state, cpuW, gpuW);
}
