import { carryOnRay, createMemory, type Carried, type CarryMemory } from './envelope/carry';
import { CPU_RAY, GPU_RAY, traceEnvelope, type EnvelopeCorner } from './envelope/envelope';
import { stateForCap, type Cap, type FanState } from './envelope/fanStates';
import type { Binding, Configuration } from './envelope/limits';
import { pointReadout, type PointReadout } from './envelope/pointReadout';
import { buildModel, type MachineModel } from './network/machineModel';
import { figureValue } from './record/figure';
import type { CaseRecord } from './record/recordSchema';
import type { AssumedFigure } from './record/resolver';
import { resolveCase } from './record/resolveCase';

export interface FanReadout {
  id: string;
  rpm: number;
  flowLps: number;
}

export interface Readout {
  watts: number;
  p05: number | null;
  p95: number | null;
  binding: Binding;
  fans: FanReadout[];
}

export interface TogetherReadout extends Readout {
  cpuWatts: number;
  gpuWatts: number;
}

export interface Readouts {
  cpuAlone: Readout | null;
  gpuAlone: Readout | null;
  together: TogetherReadout;
  envelope: EnvelopeCorner[];
}

export interface CapEstimate extends Readouts {
  cap: Cap;
  levelDbA: number | null;
  note: string | null;
  configured: Readouts;
}

/** The answer, as record-format.md describes it. */
export interface Estimate {
  format: 'zugluft-estimate';
  formatVersion: 1;
  caps: CapEstimate[];
  sensitivity: { readout: string; cap: Cap; input: string; share: number }[];
  assumed: AssumedFigure[];
}

export const DEFAULT_CAPS: readonly Cap[] = ['off', 28, 32, 36, 40, 45, 'full'];

export interface EstimateOptions {
  caps?: readonly Cap[] | undefined;
  /** Id of the setting whose limits and CPU:GPU ratio apply; the first one by default. */
  settingId?: string | undefined;
  overrides?: ReadonlyMap<string, number> | undefined;
  /** False leaves the envelopes empty: the three readouts alone are several times faster. */
  envelopes?: boolean | undefined;
}

/** A setting was asked for that the record does not have. */
export class UnknownSettingError extends Error {}

/**
 * How many CPU and GPU watts a recorded cooling system sustains at each noise cap, and what binds.
 *
 * @param record a record that `parseRecord` found complete
 * @param options caps, setting, overrides
 * @throws UnknownSettingError where the setting's id is not in the record
 */
export function estimate(record: CaseRecord, options: EstimateOptions = {}): Estimate {
  const data = resolveCase(record, options.overrides);
  const model = buildModel(data);
  const { config, ratio } = configurationOf(record, model, options.settingId);
  const caps = options.caps ?? DEFAULT_CAPS;
  const memory = createMemory();
  const outlines = options.envelopes ?? true;
  const byCap = caps.map((cap) => {
    const { state, note } = stateForCap(data, cap);
    const carried = readouts(model, state, null, ratio, memory, outlines);
    const configured = readouts(model, state, config, ratio, memory, outlines);
    return { cap, levelDbA: state.levelDbA, note, ...carried, configured };
  });
  return {
    format: 'zugluft-estimate',
    formatVersion: 1,
    caps: byCap,
    sensitivity: [],
    assumed: data.assumed,
  };
}

/**
 * Watts of both dies together at some caps, without outlines: what a list of machines shows.
 *
 * @param record a record that `parseRecord` found complete
 * @param caps noise caps
 * @returns watts per cap, in order
 */
export function sustainedTogether(record: CaseRecord, caps: readonly Cap[]): number[] {
  const model = buildModel(resolveCase(record));
  const { ratio } = configurationOf(record, model, undefined);
  const memory = createMemory();
  return caps.map((cap) => {
    const { state } = stateForCap(model.data, cap);
    return carryOnRay(model, state, ratio, null, memory).point.watts;
  });
}

/**
 * Temperatures, pipe loads, flows and speeds at one pair of watts under a cap.
 *
 * @param record a record that `parseRecord` found complete
 * @param cap the cap whose loudest fan state turns
 * @param cpuW, gpuW reported watts, ≥ 0
 */
export function readPoint(record: CaseRecord, cap: Cap, cpuW: number, gpuW: number): PointReadout {
  const model = buildModel(resolveCase(record));
  return pointReadout(model, stateForCap(model.data, cap).state, cpuW, gpuW);
}

/** Limits and CPU:GPU ratio of a setting; 1:1 without one. */
export function configurationOf(
  record: CaseRecord,
  model: MachineModel,
  settingId: string | undefined,
): { config: Configuration; ratio: { cpu: number; gpu: number } } {
  const settings = record.settings ?? [];
  const setting = settingId === undefined ? settings[0] : settings.find((s) => s.id === settingId);
  if (settingId !== undefined && !setting) {
    throw new UnknownSettingError(`there is no setting called “${settingId}”`);
  }
  const v = figureValue;
  const cpu = v(setting?.cpuSustainedW);
  const gpu = v(setting?.gpuSustainedW);
  const part = (role: 'cpu' | 'gpu') => model.data.dies.find((d) => d.role === role)?.id ?? role;
  let share = { cpu: 0.5, gpu: 0.5 };
  if (cpu !== undefined && gpu !== undefined && cpu > 0 && gpu > 0) {
    share = { cpu: cpu / (cpu + gpu), gpu: gpu / (cpu + gpu) };
  }
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

function readouts(
  model: MachineModel,
  state: FanState,
  config: Configuration | null,
  ratio: { cpu: number; gpu: number },
  memory: CarryMemory,
  outlines: boolean,
): Readouts {
  const on = (ray: { cpu: number; gpu: number }) => carryOnRay(model, state, ray, config, memory);
  const cpu = model.hasCpu ? on(CPU_RAY) : null;
  const gpu = model.hasGpu ? on(GPU_RAY) : null;
  const together = cpu && gpu ? on(ratio) : (cpu ?? gpu)!;
  return {
    cpuAlone: cpu && readout(model, cpu),
    gpuAlone: gpu && readout(model, gpu),
    together: {
      cpuWatts: together.point.cpuW,
      gpuWatts: together.point.gpuW,
      ...readout(model, together),
    },
    envelope: outlines
      ? traceEnvelope(model, chosenStates(state, [cpu, gpu, together]), config, memory, {
          cpu,
          gpu,
        })
      : [],
  };
}

/** The loudest state and, where a readout did better with a quieter one, that one too. */
function chosenStates(loudest: FanState, carried: readonly (Carried | null)[]): FanState[] {
  const states = [loudest];
  for (const c of carried) {
    if (c && !states.some((s) => s.duty === c.state.duty)) states.push(c.state);
  }
  return states;
}

function readout(model: MachineModel, carried: Carried): Readout {
  const { point, state } = carried;
  return {
    watts: point.watts,
    p05: null,
    p95: null,
    binding: point.binding,
    fans: model.data.fans.map((f, i) => ({
      id: f.id,
      rpm: state.rpms[i]!,
      flowLps: point.state.flows.fanM3s[i]! * 1e3,
    })),
  };
}
