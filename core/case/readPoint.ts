import { stateForCap, type Cap } from '../envelope/fanStates';
import { pointReadout, type PointReadout } from '../envelope/pointReadout';
import type { OpenCase } from './openCase';

/**
 * Temperatures, pipe loads, flows and speeds at one pair of watts under a cap.
 *
 * @param open the case
 * @param cap the cap whose loudest fan state turns
 * @param cpuW, gpuW reported watts, ≥ 0
 */
export function readPoint(
  { model }: Pick<OpenCase, 'model'>,
  cap: Cap,
  cpuW: number,
  gpuW: number,
): PointReadout {
  return pointReadout(model, stateForCap(model.data, cap).state, cpuW, gpuW);
}
