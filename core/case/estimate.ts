import { carryOnRay, createMemory, isRunning, type CarryMemory } from '../envelope/carry';
import type { Carried } from '../envelope/carried';
import { clipEnvelope } from '../envelope/clipEnvelope';
import { CPU_RAY, GPU_RAY, traceEnvelope, type EnvelopeCorner } from '../envelope/envelope';
import { stateForCap, type Cap, type FanState } from '../envelope/fanStates';
import type { Binding, Ray } from '../envelope/limitTypes';
import type { MachineModel } from '../network/networkModel';
import { questionsOf } from '../record/questions';
import { rangeNotes, type RangeNote } from '../network/rangeNotes';
import { unsettledNotes } from '../network/unsettledNotes';
import type { CapEstimate, Estimate, Readout, Readouts } from './answer';
import { configuredPlanes } from './configuration';
import { capsOf } from './laboratory';
import { setTogether } from './setTogether';
import type { OpenCase } from './openCase';

export interface EstimateOptions {
  /** Those of the laboratory by default. */
  caps?: readonly Cap[] | undefined;
  /** False leaves the envelopes empty: the three readouts alone are several times faster. */
  envelopes?: boolean | undefined;
}

/**
 * How many CPU and GPU watts a recorded cooling system sustains at each noise cap, and what binds.
 *
 * @param open the case
 * @param options caps, and whether envelopes are wanted
 */
export function estimate(open: OpenCase, options: EstimateOptions = {}): Estimate {
  const { data, model } = open;
  const caps = options.caps ?? capsOf(open.lab);
  const memory = createMemory(model);
  const outlines = options.envelopes ?? true;
  const notes: RangeNote[] = [];
  // from the quietest up: what a quiet cap finds, a louder one may use
  const states = caps.map((cap) => stateForCap(data, cap));
  const order = caps
    .map((_, i) => i)
    .sort((a, b) => levelOf(states[a]!.state) - levelOf(states[b]!.state) || a - b);
  const quieter: FanState[] = [];
  const byCap = new Array<CapEstimate>(caps.length);
  for (const i of order) {
    const { state, note } = states[i]!;
    const readouts = bothReadouts(open, state, memory, outlines, notes, quieter);
    byCap[i] = {
      cap: caps[i]!,
      levelDbA: state.levelDbA,
      note: note ?? noGainNote(state, readouts.together.fans),
      ...readouts,
    };
  }
  return {
    format: 'zugluft-estimate',
    formatVersion: 1,
    caps: byCap,
    sensitivity: [],
    assumed: data.assumed,
    notes: [...askedOf(open), ...notes, ...unsettledNotes([memory.on, memory.off])],
  };
}

/** What should be looked at once more, parts by their names. */
function askedOf({ record }: OpenCase): RangeNote[] {
  return questionsOf(record).map(({ path, message }) => {
    const [list, index, ...field] = path.split('.');
    const part = record[list as 'fans']?.[Number(index)];
    return { path: [list, part?.id ?? index, ...field].join('.'), message };
  });
}

/** Where slower fans carry as much as any: a pipe holds it, and cooler vapor carries less. */
function noGainNote(loudest: FanState, fans: Readout['fans']): string | null {
  if (!fans.some((f, i) => f.rpm < SLOWER * loudest.rpms[i]!)) return null;
  const speeds = fans.map((f) => `${f.id} at ${f.rpm.toFixed(0)} rpm`);
  return `louder is no gain: ${speeds.join(', ')}`;
}

/** Speeds nearer than this are the same. */
const SLOWER = 0.995;

function levelOf(state: FanState): number {
  return state.levelDbA ?? -Infinity;
}

function bothReadouts(
  { model, config, ratio }: OpenCase,
  state: FanState,
  memory: CarryMemory,
  outlines: boolean,
  notes: RangeNote[],
  quieter: FanState[],
): Readouts & { configured: Readouts } {
  const onRay = (ray: Ray, bothLoaded: boolean) => {
    const carried = carryOnRay(model, state, ray, null, memory);
    const { cpuW, gpuW } = carried.point;
    rangeNotes(model, isRunning(carried.state) ? memory.on : memory.off, cpuW, gpuW, notes);
    dryOutNote(model, carried.point.binding, notes);
    const cut = configuredPlanes(model, config, carried.state.rpms).some(
      (p) => p.cpu * carried.point.cpuW + p.gpu * carried.point.gpuW > p.headroom,
    );
    if (!cut) return { carried, set: carried };
    const stopped = bothLoaded ? setTogether : carryOnRay;
    return { carried, set: stopped(model, state, ray, config, memory) };
  };
  const cpu = model.hasCpu ? onRay(CPU_RAY, false) : null;
  const gpu = model.hasGpu ? onRay(GPU_RAY, false) : null;
  const both = cpu && gpu ? onRay(ratio, true) : (cpu ?? gpu)!;
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
  const chosen = chosenStates(state, [cpu?.carried, gpu?.carried, both.carried]);
  // where a slower state does better another one may be best in each direction: those of quieter caps are at hand
  const states = chosen.length > 1 ? distinct([...chosen, ...quieter]) : chosen;
  quieter.push(...chosen);
  const outline = traceEnvelope(model, states, memory, {
    cpu: cpu?.carried ?? null,
    gpu: gpu?.carried ?? null,
    ...(ratio.cpu > 0.1 && ratio.gpu > 0.1 ? { between: both.carried } : {}),
  });
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
  return distinct([loudest, ...carried.flatMap((c) => (c ? [c.state] : []))]);
}

function distinct(states: readonly FanState[]): FanState[] {
  return states.filter(
    (s, i) => states.findIndex((t) => t.rpms.every((x, k) => x === s.rpms[k])) === i,
  );
}

function readout(model: MachineModel, carried: Carried): Readout {
  const { point, state } = carried;
  return {
    watts: point.cpuW + point.gpuW,
    p05: null,
    p50: null,
    p95: null,
    held: [],
    binding: point.binding,
    fans: model.data.fans.map((f, i) => ({
      id: f.id,
      rpm: state.rpms[i]!,
      flowLps: point.fanM3s[i]! * 1e3,
    })),
  };
}
