import { codeOf } from '../envelope/limitNames';
import type { Ray } from '../envelope/limitTypes';
import { EXHAUST, JUNCTION, SKIN } from '../envelope/limitVisit';
import { visitTemperatures } from '../envelope/visitLimits';
import type { MachineModel } from '../network/networkModel';
import type { LinearState } from '../network/steadyState';

/** Limits at more than this many times the watts that a ray carries are of no concern to it. */
export const FAR_OFF = 1.5;

/** Codes of the limits of temperature of a machine, each with a place of its own: junctions, skin, exhaust air. */
export function temperatureCodes(model: MachineModel): number[] {
  return [
    ...model.data.dies.map((_, i) => codeOf(JUNCTION, i)),
    ...model.skinNode.map((_, i) => codeOf(SKIN, i)),
    ...model.data.stacks.map((_, i) => codeOf(EXHAUST, i)),
  ];
}

/** Reads where the limits of temperature lie along a ray. */
export type ReadTemperatureLimits = (model: MachineModel, state: LinearState, ray: Ray) => void;

/**
 * Reads where each limit of temperature of a solved state lies along a ray, W; 0 where a ray does not meet it.
 *
 * @param model any of the machine's
 * @param out by the places of {@link temperatureCodes}, overwritten
 */
export function createTemperatureLimits(
  model: MachineModel,
  out: Float64Array,
): ReadTemperatureLimits {
  const skins = model.data.dies.length;
  const stacks = skins + model.skinNode.length;
  let along: Ray = { cpu: 0, gpu: 0 };
  const keep = (cpu: number, gpu: number, headroom: number, limit: number, part: number): void => {
    const slope = cpu * along.cpu + gpu * along.gpu;
    const left = headroom - cpu * (along.fromCpuW ?? 0) - gpu * (along.fromGpuW ?? 0);
    const at = limit === JUNCTION ? part : limit === SKIN ? skins + part : stacks + part;
    if (slope > 1e-15 && left > 0) out[at] = left / slope;
  };
  return (of, state, ray) => {
    along = ray;
    out.fill(0);
    visitTemperatures(of, state, keep);
  };
}
