import type { Configuration, HalfPlane, Ray } from '../envelope/limitTypes';
import type { MachineModel } from '../network/networkModel';
import { fanPower } from '../network/steadyState';
import { figureValue } from '../record/figure';
import type { SettingRecord } from '../record/partSchema';

/**
 * Limits and CPU:GPU ratio of a setting; 1:1 without one.
 *
 * @param setting or none
 * @param model of the machine
 * @param chosen a ratio in place of the setting's
 */
export function configurationOf(
  setting: SettingRecord | undefined,
  model: MachineModel,
  chosen?: { cpu: number; gpu: number },
): { config: Configuration; ratio: Ray } {
  const v = figureValue;
  const cpu = v(setting?.cpuSustainedW);
  const gpu = v(setting?.gpuSustainedW);
  const part = (role: 'cpu' | 'gpu') => model.data.dies.find((d) => d.role === role)?.id ?? role;
  let share = { cpu: 0.5, gpu: 0.5 };
  if (cpu !== undefined && gpu !== undefined && cpu > 0 && gpu > 0) {
    share = sharesOf(cpu, gpu);
  }
  if (chosen) share = sharesOf(chosen.cpu, chosen.gpu);
  if (!model.hasGpu) share = { cpu: 1, gpu: 0 };
  if (!model.hasCpu) share = { cpu: 0, gpu: 1 };
  return {
    ratio: share,
    config: {
      cpuW: v(setting?.later?.cpuSustainedW) ?? cpu ?? null,
      gpuW: v(setting?.later?.gpuSustainedW) ?? gpu ?? null,
      adapterW: model.data.power.adapterW,
      cpuPart: part('cpu'),
      gpuPart: part('gpu'),
    },
  };
}

function sharesOf(cpu: number, gpu: number): Ray {
  return { cpu: cpu / (cpu + gpu), gpu: gpu / (cpu + gpu) };
}

/** Firmware and adapter as half-planes, with the fans at a state. */
export function configuredPlanes(
  model: MachineModel,
  config: Configuration,
  rpms: readonly number[],
): HalfPlane[] {
  const planes: HalfPlane[] = [];
  const { cpuW, gpuW, adapterW } = config;
  const firmware = (part: string) => ({ limit: 'firmware', part }) as const;
  if (cpuW !== null && model.hasCpu) {
    planes.push({ cpu: 1, gpu: 0, headroom: cpuW, binding: firmware(config.cpuPart) });
  }
  if (gpuW !== null && model.hasGpu) {
    planes.push({ cpu: 0, gpu: 1, headroom: gpuW, binding: firmware(config.gpuPart) });
  }
  if (adapterW !== null) {
    planes.push({
      cpu: model.drawPerCpuW,
      gpu: model.drawPerGpuW,
      headroom: adapterW - model.data.power.restW - fanPower(model, rpms),
      binding: { limit: 'adapter', part: 'adapter' },
    });
  }
  return planes;
}
