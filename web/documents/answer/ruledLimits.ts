import type { OpenCase } from '@zugluft/core/case/openCase';
import type { RuledLimits } from './EnvelopeChart';

/** Firmware and adapter limits of a case's setting as lines of the chart. */
export function ruledLimits({ model, config }: OpenCase): RuledLimits {
  const left =
    config.adapterW === null
      ? null
      : config.adapterW - model.data.power.restW - model.data.power.fanW * model.data.fans.length;
  return {
    cpuW: config.cpuW,
    gpuW: model.hasGpu ? config.gpuW : null,
    adapter:
      left === null || left <= 0 || !model.hasCpu || !model.hasGpu
        ? null
        : [
            { cpu: 0, gpu: left / model.drawPerGpuW },
            { cpu: left / model.drawPerCpuW, gpu: 0 },
          ],
  };
}
