import type { Carried } from '../envelope/carried';
import { carryOnRay, type CarryMemory } from '../envelope/carry';
import type { FanState } from '../envelope/fanStates';
import type { Configuration, Ray } from '../envelope/limitTypes';
import type { MachineModel } from '../network/networkModel';

/**
 * What the firmware really runs with both dies loaded: along the ray of the setting's ratio until a die reaches its own
 * limit, then the other one alone, up to its own limit, the adapter's or the cooling's. A CPU cut to 30 W leaves the GPU
 * what it can use; it does not take its share of a mix.
 *
 * @param model a machine with both dies
 * @param loudest the loudest fan state allowed
 * @param ratio direction with both dies loaded
 * @param config limits of the setting and the adapter
 * @param memory start values, shared between calls on one model
 * @returns the state and the point, with what stops there
 */
export function setTogether(
  model: MachineModel,
  loudest: FanState,
  ratio: Ray,
  config: Configuration,
  memory: CarryMemory,
): Carried {
  const along = carryOnRay(model, loudest, ratio, config, memory);
  const { binding } = along.point;
  if (binding.limit !== 'firmware') return along;
  const alone = aloneRay(config, binding.part === config.cpuPart ? 'cpu' : 'gpu');
  const other = { ...config, ...(alone.cpu ? { gpuW: null } : { cpuW: null }) };
  const further = carryOnRay(model, loudest, alone, other, memory);
  // the other die stood at its own limit as well, or rounding says so
  return further.point.cpuW + further.point.gpuW > along.point.watts ? further : along;
}

/** From where one die stands at its own limit the other goes on alone. */
export function aloneRay({ cpuW, gpuW }: Configuration, atLimit: 'cpu' | 'gpu'): Ray {
  return atLimit === 'cpu'
    ? { cpu: 0, gpu: 1, fromCpuW: cpuW!, fromGpuW: 0 }
    : { cpu: 1, gpu: 0, fromCpuW: 0, fromGpuW: gpuW! };
}

/**
 * CPU and GPU watts of a total that {@link setTogether} found, or of any other total along the same way: by the ratio until a
 * die stands at its own limit, what is more is the other's.
 *
 * @param watts total, ≥ 0
 */
export function splitAsSet(
  watts: number,
  ratio: Ray,
  { cpuW, gpuW }: Pick<Configuration, 'cpuW' | 'gpuW'>,
): { cpuW: number; gpuW: number } {
  const cpu = watts * ratio.cpu;
  const gpu = watts * ratio.gpu;
  // the die that reaches its limit first stays there
  const overCpu = cpuW !== null && cpu > 0 ? cpu / cpuW : 0;
  const overGpu = gpuW !== null && gpu > 0 ? gpu / gpuW : 0;
  if (Math.max(overCpu, overGpu) <= 1) return { cpuW: cpu, gpuW: gpu };
  return overCpu >= overGpu
    ? { cpuW: cpuW!, gpuW: watts - cpuW! }
    : { cpuW: watts - gpuW!, gpuW: gpuW! };
}
