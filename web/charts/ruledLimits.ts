import { configurationOf } from '@zugluft/core/estimate';
import { buildModel } from '@zugluft/core/network/machineModel';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { LabDefaults } from '@zugluft/core/record/resolver';
import { resolveCase } from '@zugluft/core/record/resolveCase';
import type { RuledLimits } from './EnvelopeChart';

/** Firmware and adapter limits of a setting as lines of the chart. */
export function ruledLimits(
  record: CaseRecord,
  settingId: string | undefined,
  lab?: LabDefaults,
): RuledLimits {
  const model = buildModel(resolveCase(record, undefined, { lab }));
  const { config } = configurationOf(record, model, settingId);
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
