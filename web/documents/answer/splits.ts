import { splitAsSet } from '@zugluft/core/case/setTogether';
import { openCase, type CaseRequest } from '@zugluft/core/case/openCase';
import type { Splits } from './NoiseLadder';

/**
 * How watts together are shared out over the dies of a case: by its ratio, as set until a die stands at its own limit.
 *
 * @param request a case with a complete record, or null
 * @returns null where the machine has one die
 */
export function splitsOf(request: CaseRequest | null): Splits | null {
  if (!request) return null;
  const { model, ratio, config } = openCase(request);
  if (!model.hasCpu || !model.hasGpu) return null;
  return {
    carried: (watts) => ({ cpuW: watts * ratio.cpu, gpuW: watts * ratio.gpu }),
    set: (watts) => splitAsSet(watts, ratio, config),
  };
}
