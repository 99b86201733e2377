import type { OpenCase } from '../case/openCase';
import { fanState, stateForCap, startDuties, type Cap, type FanState } from '../envelope/fanStates';
import type { MachineModel } from '../network/networkModel';
import { fanPower } from '../network/steadyState';
import { firstLimit } from '../envelope/limits';
import { settleAt } from '../envelope/pointReadout';
import { figureValue } from '../record/figure';
import type { RangeNote } from '../network/rangeNotes';
import { unsettledNotes } from '../network/unsettledNotes';
import type { SettingRecord } from '../record/partSchema';
import type { AssumedFigure } from '../record/resolver';
import { firmwareFigures, type FirmwareFigures } from './firmwareFigures';
import { heatCapacities } from './heatCapacities';
import { dynamicsAt, propagatorOf, step, type Propagator } from './propagator';
import { runningAverage, roomInAverage } from './runningAverage';

/** Fan duty is held on this many levels, each with its step made once. */
export const DUTY_LEVELS = 40;
const MAX_STEPS = 200_000;
/** The end of a run over which its sustained figures are the mean. */
const SETTLED_S = 300;

export const EVENT_KINDS = [
  'short-limit-ends',
  'later-limit',
  'junction',
  'skin',
  'adapter',
  'fans',
] as const;

/** Something the firmware did for the first time. */
export interface FirmwareEvent {
  atS: number;
  kind: (typeof EVENT_KINDS)[number];
  part: string;
}

export interface SimulationOptions {
  durationS?: number | undefined;
  stepS?: number | undefined;
  /** The fans stay at or below this; `full` leaves them to the firmware. */
  cap?: Cap | undefined;
  /** What the load would draw where nothing held it back; as much as it gets by default. */
  cpuLoadW?: number | undefined;
  gpuLoadW?: number | undefined;
  /** What the load would draw at each moment, in place of one load from the beginning on. */
  loadAt?: ((atS: number) => { cpuW: number; gpuW: number }) | undefined;
  /** Told every step: temperature of any node but the intake, °C, and what the machine draws. */
  watch?: ((k: number, nodeC: (node: number) => number, drawnW: number) => void) | undefined;
}

/** A load in time; entry k holds from `k · stepS` on, temperatures are those at that moment under these watts. */
export interface Simulation {
  stepS: number;
  steps: number;
  cpuW: Float64Array;
  gpuW: Float64Array;
  /** Share of full speed. */
  duty: Float64Array;
  levelDbA: Float64Array;
  junctionC: { id: string; limitC: number; temperatureC: Float64Array }[];
  /** Hottest skin. */
  skinC: Float64Array;
  /** Its limit, and whether the setting says that the firmware holds it. */
  skin: { limitC: number; held: boolean };
  events: FirmwareEvent[];
  /** Means over the last five minutes, or the last half of a shorter run. */
  sustained: { cpuW: number; gpuW: number; levelDbA: number | null };
  assumed: AssumedFigure[];
  /** Where a solver ended at its bound. */
  notes: RangeNote[];
}

/**
 * What a machine does in time under a load from idle: firmware samples temperatures, sets watts and fans, and holds them for
 * a step.
 *
 * Watts of each role are the least of: the load; the sustained limit, or for the CPU as much as keeps a running average
 * `a' = a + (P − a)(1 − e^(−Δt/τ))` at or below it, up to the short-term limit; after `later.afterS` the later limits; what
 * holds each junction at its limit; where the setting says that the firmware holds the skin, what brings that back to its limit;
 * what the adapter leaves. Fans follow the hottest junction along a ramp, up at once as
 * fast as they turn, down with a hysteresis. Between samples the network is linear and its step exact.
 *
 * @param open the case
 * @param options cap, load, duration (1800 s) and step (0.5 s)
 * @throws RangeError where duration or step are not positive, or make too many steps
 */
export function simulateFirmware(open: OpenCase, options: SimulationOptions = {}): Simulation {
  const stepS = options.stepS ?? 0.5;
  const steps = Math.round((options.durationS ?? 1800) / stepS);
  if (!(stepS > 0) || !(steps >= 1) || steps > MAX_STEPS) {
    throw new RangeError(`a run needs 1 to ${MAX_STEPS} steps`);
  }
  const { data, model, config, ratio } = open;
  const capacities = heatCapacities(open);
  const firmware = firmwareFigures(open);
  const limits = powerLimits(open.setting);
  const load = {
    cpu: model.hasCpu ? (options.cpuLoadW ?? Infinity) : 0,
    gpu: model.hasGpu ? (options.gpuLoadW ?? Infinity) : 0,
  };
  const reach = wattsWithin(model, ratio);
  const usual = {
    cpu: Math.min(load.cpu, limits.cpuSustainedW, reach.cpu),
    gpu: Math.min(load.gpu, limits.gpuSustainedW, reach.gpu),
  };
  const most = maxDuty(model, options.cap ?? 'full');
  const least = Math.min(most, startDuties(data)[0] ?? 0);
  const states: (FanState | undefined)[] = [];
  const propagators: (Propagator | undefined)[] = [];
  const levelOf = (duty: number) => (duty <= 0 ? 0 : Math.max(1, Math.round(duty * DUTY_LEVELS)));
  const stateOf = (level: number) =>
    (states[level] ??= fanState(data, Math.min(most, Math.max(least, level / DUTY_LEVELS))));
  const propagatorFor = (level: number) =>
    (propagators[level] ??= propagatorOf(
      dynamicsAt(model, capacities.nodeJPerK, stateOf(level).rpms, usual.cpu, usual.gpu),
      stepS,
    ));

  let duty = least;
  let propagator = propagatorFor(levelOf(duty));
  const { nodes, n } = propagator.dynamics;
  const idle = settleAt(model, stateOf(levelOf(duty)).rpms, 0, 0);
  let x: Float64Array = Float64Array.from(nodes, (node) => idle.base[node]!);
  let next: Float64Array = new Float64Array(n);
  const placeOf = new Int32Array(model.nodeCount).fill(-1);
  nodes.forEach((node, i) => (placeOf[node] = i));
  const dieAt = model.dieNode.map((node) => placeOf[node]!);
  const skinAt = model.skinNode.map((node) => placeOf[node]!);

  const out: Simulation = {
    stepS,
    steps,
    cpuW: new Float64Array(steps),
    gpuW: new Float64Array(steps),
    duty: new Float64Array(steps),
    levelDbA: new Float64Array(steps),
    junctionC: data.dies.map((d) => ({
      id: d.id,
      limitC: d.maxJunctionC,
      temperatureC: new Float64Array(steps),
    })),
    skinC: new Float64Array(steps),
    skin: { limitC: data.shell.skinLimitC, held: open.setting?.skinHeld === true },
    events: [],
    sustained: { cpuW: 0, gpuW: 0, levelDbA: null },
    assumed: [...data.assumed, ...capacities.assumed, ...firmware.assumed],
    notes: [],
  };
  const say = (atS: number, kind: FirmwareEvent['kind'], part: string) => {
    if (!out.events.some((e) => e.kind === kind && e.part === part)) {
      out.events.push({ atS, kind, part });
    }
  };
  const keep = Math.exp(-stepS / firmware.windowS);
  let average = 0;
  const skin = skinHold(stepS, firmware);
  const ambientC = data.room.temperatureC;
  for (let k = 0; k < steps; k++) {
    const atS = k * stepS;
    const later = atS >= limits.laterAfterS;
    if (later) say(atS, 'later-limit', config.cpuPart);
    const cpuLimit = later ? limits.laterCpuW : limits.cpuSustainedW;
    const gpuLimit = later ? limits.laterGpuW : limits.gpuSustainedW;
    const short = Math.max(cpuLimit, limits.cpuShortW);
    const free = Number.isFinite(cpuLimit)
      ? Math.min(short, Math.max(cpuLimit, roomInAverage(average, cpuLimit, keep)))
      : Infinity;
    const now = options.loadAt?.(atS);
    const wanted = now
      ? { cpu: Math.min(load.cpu, now.cpuW), gpu: Math.min(load.gpu, now.gpuW) }
      : load;
    if (short > cpuLimit && free < short && wanted.cpu > free) {
      say(atS, 'short-limit-ends', config.cpuPart);
    }
    let cpuW = Math.min(wanted.cpu, free);
    let gpuW = Math.min(wanted.gpu, gpuLimit);
    for (let round = 0; round < 3; round++) {
      for (let i = 0; i < data.dies.length; i++) {
        const left = data.dies[i]!.maxJunctionC - ambientC - x[dieAt[i]!]!;
        const perC = model.dieBeyondCpuKPerW[i]!;
        const perG = model.dieBeyondGpuKPerW[i]!;
        if (!(cpuW * perC + gpuW * perG > left)) continue;
        // firmware slows the die that is too hot
        if (data.dies[i]!.role === 'cpu') cpuW = Math.max(0, (left - gpuW * perG) / perC);
        else gpuW = Math.max(0, (left - cpuW * perC) / perG);
        say(atS, 'junction', data.dies[i]!.id);
      }
    }
    let hottest = -Infinity;
    for (const i of skinAt) hottest = Math.max(hottest, x[i]!);
    out.skinC[k] = ambientC + hottest;
    if (out.skin.held) {
      const left = skin(out.skinC[k]! - out.skin.limitC, cpuW + gpuW);
      if (left < 1) say(atS, 'skin', 'skin');
      cpuW *= left;
      gpuW *= left;
    }
    const level = levelOf(duty);
    const state = stateOf(level);
    if (config.adapterW !== null) {
      const left = Math.max(0, config.adapterW - data.power.restW - fanPower(model, state.rpms));
      const drawn = cpuW * model.drawPerCpuW + gpuW * model.drawPerGpuW;
      if (drawn > left) {
        cpuW *= left / drawn;
        gpuW *= left / drawn;
        say(atS, 'adapter', 'adapter');
      }
    }
    if (!Number.isFinite(cpuW) || !Number.isFinite(gpuW)) {
      throw new Error('nothing limits the watts of this load');
    }
    out.cpuW[k] = cpuW;
    out.gpuW[k] = gpuW;
    out.duty[k] = level === 0 ? 0 : Math.min(most, Math.max(least, level / DUTY_LEVELS));
    out.levelDbA[k] = state.levelDbA ?? NaN;
    for (let i = 0; i < data.dies.length; i++) {
      out.junctionC[i]!.temperatureC[k] =
        ambientC +
        x[dieAt[i]!]! +
        cpuW * model.dieBeyondCpuKPerW[i]! +
        gpuW * model.dieBeyondGpuKPerW[i]!;
    }
    options.watch?.(
      k,
      (node) => ambientC + x[placeOf[node]!]!,
      cpuW * model.drawPerCpuW +
        gpuW * model.drawPerGpuW +
        data.power.restW +
        fanPower(model, state.rpms),
    );
    duty = nextDuty(out, k, duty, { least, most, ...firmware });
    if (duty >= most - 1e-9 && most > least) say(atS, 'fans', 'fans');
    average = runningAverage(average, cpuW, keep);
    propagator = propagatorFor(level);
    step(propagator, x, cpuW, gpuW, next);
    [x, next] = [next, x];
  }
  out.sustained = meansAtEnd(out);
  out.notes = unsettledNotes([idle, ...propagators.flatMap((p) => (p ? [p.dynamics.at] : []))]);
  return out;
}

/** Limits of a setting, without one nothing but the junctions and the adapter holds. */
function powerLimits(s: SettingRecord | undefined) {
  const v = figureValue;
  const cpuSustainedW = v(s?.cpuSustainedW) ?? Infinity;
  const gpuSustainedW = v(s?.gpuSustainedW) ?? Infinity;
  const hasLater =
    s?.later !== undefined &&
    (v(s.later.cpuSustainedW) !== undefined || v(s.later.gpuSustainedW) !== undefined);
  return {
    cpuSustainedW,
    gpuSustainedW,
    cpuShortW: v(s?.cpuShortW) ?? 0,
    laterAfterS: hasLater ? (v(s.later?.afterS) ?? 0) : Infinity,
    laterCpuW: v(s?.later?.cpuSustainedW) ?? cpuSustainedW,
    laterGpuW: v(s?.later?.gpuSustainedW) ?? gpuSustainedW,
  };
}

/**
 * How firmware that holds the skin cuts watts: a proportional and integral controller on what the skin is above its limit.
 *
 * @param stepS time between samples
 * @param figures span and time of the controller
 * @returns told kelvin above the limit and watts wanted, the share of these that is left
 * Source: common practice, no source.
 */
function skinHold(
  stepS: number,
  { skinSpanK, skinIntegralS }: FirmwareFigures,
): (aboveK: number, wantedW: number) => number {
  let sum = 0;
  return (aboveK, wantedW) => {
    if (!(wantedW > 0) || !Number.isFinite(wantedW)) return 1;
    // held within what it can do, so that it does not wind up
    sum = Math.min(skinSpanK, Math.max(0, sum + (aboveK * stepS) / skinIntegralS));
    return Math.min(1, Math.max(0, 1 - (aboveK + sum) / skinSpanK));
  };
}

/** Watts on the setting's ray that stay within the limits at full speed: where properties are taken without a setting. */
function wattsWithin(model: MachineModel, ray: { cpu: number; gpu: number }) {
  const { rpms } = fanState(model.data, 1);
  const state = settleAt(model, rpms, 0, 0);
  const watts = firstLimit(model, state, null, ray);
  return { cpu: watts * ray.cpu, gpu: watts * ray.gpu };
}

function maxDuty(model: MachineModel, cap: Cap): number {
  return Math.max(0, ...stateForCap(model.data, cap).state.duties);
}

function nextDuty(
  out: Simulation,
  k: number,
  duty: number,
  f: FirmwareFigures & { least: number; most: number },
): number {
  const target = (warmer: number) => {
    let share = 0;
    for (const j of out.junctionC) {
      const full = f.fanFullC ?? j.limitC - f.fanFullBelowLimitK;
      const span = Math.max(1, full - f.fanStartC);
      share = Math.max(share, (j.temperatureC[k]! + warmer - f.fanStartC) / span);
    }
    return Math.min(f.most, Math.max(f.least, f.least + (1 - f.least) * share));
  };
  const move = f.dutyPerS * out.stepS;
  const up = target(0);
  if (up > duty) return Math.min(up, duty + move);
  const down = target(f.hysteresisK);
  return down < duty ? Math.max(down, duty - move) : duty;
}

function meansAtEnd(out: Simulation): Simulation['sustained'] {
  const from = Math.max(Math.floor(out.steps / 2), out.steps - Math.round(SETTLED_S / out.stepS));
  const mean = (values: Float64Array) => {
    let sum = 0;
    for (let k = from; k < out.steps; k++) sum += values[k]!;
    return sum / (out.steps - from);
  };
  const level = mean(out.levelDbA);
  return {
    cpuW: mean(out.cpuW),
    gpuW: mean(out.gpuW),
    levelDbA: Number.isNaN(level) ? null : level,
  };
}
