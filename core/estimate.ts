import {
  carryOnRay,
  createMemory,
  isRunning,
  type Carried,
  type CarryMemory,
} from './envelope/carry';
import { clipEnvelope } from './envelope/clipEnvelope';
import { CPU_RAY, GPU_RAY, traceEnvelope, type EnvelopeCorner } from './envelope/envelope';
import { stateForCap, type Cap, type FanState } from './envelope/fanStates';
import type { Binding, Configuration, HalfPlane, Ray } from './envelope/limitTypes';
import { pointReadout, type PointReadout } from './envelope/pointReadout';
import { buildModel, type MachineModel } from './network/machineModel';
import { figureValue } from './record/figure';
import { rangeNotes, type RangeNote } from './network/rangeNotes';
import { fanPower } from './network/steadyState';
import type { CaseRecord } from './record/recordSchema';
import type { AssumedFigure, LabDefaults } from './record/resolver';
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
  sensitivity: SensitivityShare[];
  assumed: AssumedFigure[];
  /** Where a correlation was used outside its range, or a pipe's neighbours would take over. */
  notes: RangeNote[];
}

/** What share of a readout's spread an input causes, by rank regression. */
export interface SensitivityShare {
  readout: ReadoutName;
  cap: Cap;
  input: string;
  share: number;
}

export const READOUT_NAMES = ['cpuAlone', 'gpuAlone', 'together'] as const;
export type ReadoutName = (typeof READOUT_NAMES)[number];

export const DEFAULT_CAPS: readonly Cap[] = ['off', 28, 32, 36, 40, 45, 'full'];

export interface EstimateOptions {
  caps?: readonly Cap[] | undefined;
  /** Id of the setting whose limits and CPU:GPU ratio apply; the first one by default. */
  settingId?: string | undefined;
  overrides?: ReadonlyMap<string, number> | undefined;
  /** A lab's own defaults in place of the built-in ones. */
  lab?: LabDefaults | undefined;
  /** False leaves the envelopes empty: the three readouts alone are several times faster. */
  envelopes?: boolean | undefined;
}

/** A setting was asked for that the record does not have. */
export class UnknownSettingError extends Error {}

/**
 * How many CPU and GPU watts a recorded cooling system sustains at each noise cap, and what binds.
 *
 * @param record a record that `parseRecord` found complete
 * @param options caps, setting, overrides, a lab's defaults
 * @throws UnknownSettingError where the setting's id is not in the record
 */
export function estimate(record: CaseRecord, options: EstimateOptions = {}): Estimate {
  const data = resolveCase(record, options.overrides, { lab: options.lab });
  const model = buildModel(data);
  const { config, ratio } = configurationOf(record, model, options.settingId);
  const caps = options.caps ?? DEFAULT_CAPS;
  const memory = createMemory(model);
  const outlines = options.envelopes ?? true;
  const notes: RangeNote[] = [];
  // from the quietest up: what a quiet cap finds, a louder one may use
  const states = caps.map((cap) => stateForCap(data, cap));
  const order = caps
    .map((_, i) => i)
    .sort((a, b) => levelOf(states[a]!.state) - levelOf(states[b]!.state) || a - b);
  const byCap = new Array<CapEstimate>(caps.length);
  for (const i of order) {
    const { state, note } = states[i]!;
    byCap[i] = {
      cap: caps[i]!,
      levelDbA: state.levelDbA,
      note,
      ...bothReadouts(model, state, config, ratio, memory, outlines, notes),
    };
  }
  return {
    format: 'zugluft-estimate',
    formatVersion: 1,
    caps: byCap,
    sensitivity: [],
    assumed: data.assumed,
    notes,
  };
}

function levelOf(state: FanState): number {
  return state.levelDbA ?? -Infinity;
}

/**
 * Watts of both dies together at some caps, without outlines: what a list of machines shows.
 *
 * @param record a record that `parseRecord` found complete
 * @param caps noise caps
 * @param lab a lab's own defaults
 * @param overrides values in place of figures and defaults, by path
 * @returns watts per cap, in order
 */
export function sustainedTogether(
  record: CaseRecord,
  caps: readonly Cap[],
  lab?: LabDefaults,
  overrides?: ReadonlyMap<string, number>,
): number[] {
  const model = buildModel(
    resolveCase(record, overrides, { lab, silent: overrides !== undefined }),
  );
  const { ratio } = configurationOf(record, model, undefined);
  const memory = createMemory(model);
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
export function readPoint(
  record: CaseRecord,
  cap: Cap,
  cpuW: number,
  gpuW: number,
  lab?: LabDefaults,
): PointReadout {
  const model = buildModel(resolveCase(record, undefined, { lab }));
  return pointReadout(model, stateForCap(model.data, cap).state, cpuW, gpuW);
}

/** Limits and CPU:GPU ratio of a setting; 1:1 without one. */
export function configurationOf(
  record: CaseRecord,
  model: MachineModel,
  settingId: string | undefined,
): { config: Configuration; ratio: Ray } {
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

function bothReadouts(
  model: MachineModel,
  state: FanState,
  config: Configuration,
  ratio: Ray,
  memory: CarryMemory,
  outlines: boolean,
  notes: RangeNote[],
): Readouts & { configured: Readouts } {
  const onRay = (ray: Ray) => {
    const carried = carryOnRay(model, state, ray, null, memory);
    const { cpuW, gpuW } = carried.point;
    rangeNotes(model, isRunning(carried.state) ? memory.on : memory.off, cpuW, gpuW, notes);
    dryOutNote(model, carried.point.binding, notes);
    const cut = configuredPlanes(model, config, carried.state.rpms).some(
      (p) => p.cpu * carried.point.cpuW + p.gpu * carried.point.gpuW > p.headroom,
    );
    return { carried, set: cut ? carryOnRay(model, state, ray, config, memory) : carried };
  };
  const cpu = model.hasCpu ? onRay(CPU_RAY) : null;
  const gpu = model.hasGpu ? onRay(GPU_RAY) : null;
  const both = cpu && gpu ? onRay(ratio) : (cpu ?? gpu)!;
  const side = (of: 'carried' | 'set', envelope: EnvelopeCorner[]): Readouts => ({
    cpuAlone: cpu && readout(model, cpu[of]),
    gpuAlone: gpu && readout(model, gpu[of]),
    together: {
      cpuWatts: both[of].point.cpuW,
      gpuWatts: both[of].point.gpuW,
      ...readout(model, both[of]),
    },
    envelope,
  });
  if (!outlines) return { ...side('carried', []), configured: side('set', []) };
  const outline = traceEnvelope(
    model,
    chosenStates(state, [cpu?.carried, gpu?.carried, both.carried]),
    memory,
    {
      cpu: cpu?.carried ?? null,
      gpu: gpu?.carried ?? null,
      ...(ratio.cpu > 0.1 && ratio.gpu > 0.1 ? { between: both.carried } : {}),
    },
  );
  const cut =
    cpu && gpu
      ? clipEnvelope(outline, configuredPlanes(model, config, state.rpms))
      : [
          {
            cpuWatts: cpu?.set.point.watts ?? 0,
            gpuWatts: gpu?.set.point.watts ?? 0,
            edge: null,
          },
        ];
  return { ...side('carried', outline), configured: side('set', cut) };
}

/** A dry pipe's neighbours take over its load, which the half-planes do not follow. */
function dryOutNote(model: MachineModel, binding: Binding, notes: RangeNote[]): void {
  if (binding.limit !== 'pipe') return;
  const { pipes } = model.data;
  const at = pipes.findIndex((p) => p.id === binding.part);
  const parts = new Set(pipes[at]!.contacts.map((c) => `${c.part.kind} ${c.part.index}`));
  const parallel = pipes.some(
    (p, k) =>
      k !== at && p.contacts.filter((c) => parts.has(`${c.part.kind} ${c.part.index}`)).length > 1,
  );
  if (pipes[at]!.count < 2 && !parallel) return;
  const path = `heatPipes.${binding.part}`;
  if (notes.some((n) => n.path === path)) return;
  notes.push({
    path,
    message:
      'its first dry-out is the limit reported here; the pipes beside it would then take over some of its load',
  });
}

/** The loudest state and, where a readout did better with another one, that one too. */
function chosenStates(loudest: FanState, carried: readonly (Carried | undefined)[]): FanState[] {
  const states = [loudest];
  for (const c of carried) {
    if (c && !states.some((s) => s.rpms.every((x, i) => x === c.state.rpms[i]))) {
      states.push(c.state);
    }
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
      flowLps: point.fanM3s[i]! * 1e3,
    })),
  };
}
