import { carryOnRay, createMemory } from '../envelope/carry';
import { stateForCap, type Cap } from '../envelope/fanStates';
import type { OpenCase } from './openCase';

/**
 * Watts of both dies together at some caps, without outlines: what a list of machines shows.
 *
 * @param open the case
 * @param caps noise caps
 * @returns watts per cap, in order
 */
export function sustainedTogether(
  { model, ratio }: Pick<OpenCase, 'model' | 'ratio'>,
  caps: readonly Cap[],
): number[] {
  const memory = createMemory(model);
  return caps.map((cap) => {
    const { state } = stateForCap(model.data, cap);
    return carryOnRay(model, state, ratio, null, memory).point.watts;
  });
}
