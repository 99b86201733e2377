import { carryOnRay, createMemory } from '../envelope/carry';
import { fanNoise, noiseSum } from '../envelope/fanNoise';
import { controlGroups, fanState, speeds, startDuties } from '../envelope/fanStates';
import type { Ray } from '../envelope/limitTypes';
import { maxPowerAlongRay } from '../envelope/boundary';
import { fillModel } from '../network/fillModel';
import { buildModel } from '../network/machineModel';
import type { MachineModel } from '../network/networkModel';
import { createState, startFrom, type LinearState } from '../network/steadyState';
import { resolveBy } from '../record/resolveCase';
import { createResolver } from '../record/resolver';
import type { OpenCase } from '../case/openCase';
import { alikeSplits, nearStops, sharesOf } from './centralSplits';
import { planDraws } from './drawPlan';
import { drawFigures, figuresOf } from './drawnFigures';
import { createRowCarry, createRowWork } from './rowCarry';

/** How quiet a machine is at some watts. */
export interface LeastLevel {
  /** Least level that holds the watts, dB(A): median of the draws and their 5–95 %; −∞ with fans off, +∞ at no level. */
  p05: number;
  p50: number;
  p95: number;
  /** Share of the draws that hold the watts at some level, and with fans off. */
  reached: number;
  withFansOff: number;
}

export interface Need {
  cpuW: number;
  gpuW: number;
}

const TOLERANCE = 5e-4;
const BISECTIONS = 9;
const LOOKS = 5;

/**
 * The least level at which a pair of watts is sustained, in each draw: fans off where that holds them, else the slowest common
 * duty at which the cooling carries them, found by bisection; where a pipe makes the loudest state carry less, the quieter
 * ones are looked at too. Fans controlled apart take the best split of each level.
 *
 * @param open the case
 * @param need watts of both dies, ≥ 0, at least one above 0
 * @param options number of draws, seed
 */
export function leastLevel(
  open: OpenCase,
  need: Need,
  options: { draws: number; seed?: number | undefined },
): LeastLevel {
  const plan = planDraws(open, { ...options, caps: ['full'], togetherOnly: true });
  const { model } = open;
  const cpuW = model.hasCpu ? need.cpuW : 0;
  const gpuW = model.hasGpu ? need.gpuW : 0;
  const watts = cpuW + gpuW;
  if (!(watts > 0)) throw new Error('needs watts above 0');
  const ray: Ray = { cpu: cpuW / watts, gpu: gpuW / watts };
  const on = createState(plan.central);
  const off = createState(plan.central);
  const figures = figuresOf(plan);
  const levels = new Float64Array(plan.draws);
  const resolver = createResolver(figures, open.labDefaults, true);
  const carry = carriedBy(plan.central, ray, on, off);
  const drawn = buildModel(plan.central.data, plan.central);
  for (let row = 0; row < plan.draws; row++) {
    startFrom(on, plan.start.on);
    startFrom(off, plan.start.off);
    const factor = drawFigures(plan, row, figures);
    fillModel(drawn, resolveBy(open.record, resolver));
    levels[row] = leastOfRow(drawn, watts / factor, carry);
  }
  levels.sort();
  const at = (p: number) => levels[Math.round(p * (plan.draws - 1))]!;
  const share = (holds: (x: number) => boolean) => levels.filter(holds).length / plan.draws;
  return {
    p05: at(0.05),
    p50: at(0.5),
    p95: at(0.95),
    reached: share((x) => x < Infinity),
    withFansOff: share((x) => x === -Infinity),
  };
}

/** What a row carries along a ray as loud as all fans on a duty are. */
type CarriedAt = (model: MachineModel, duty: number) => number;

function carriedBy(central: MachineModel, ray: Ray, on: LinearState, off: LinearState): CarriedAt {
  const groups = controlGroups(central.data);
  if (groups.length < 2) {
    return (model, duty) => {
      const rpms = speeds(model.data, groups, new Array(groups.length).fill(duty));
      const work = rpms.some((x) => x > 0) ? on : off;
      return maxPowerAlongRay(model, rpms, ray, null, work, TOLERANCE);
    };
  }
  const [from = 1] = startDuties(central.data);
  const middle = fanState(central.data, Math.sqrt(from));
  const { state } = carryOnRay(central, middle, ray, null, createMemory(central));
  const shares = sharesOf(central.data, state, middle.duties[0]!);
  const out = {
    watts: new Float64Array(1),
    held: new Uint16Array(1),
    fanW: new Float64Array(1),
  };
  const work = createRowWork(on, off, 1);
  const sets = [alikeSplits([shares], [ray], groups.length)];
  const noise = fanNoise(central.data, groups);
  const most = noiseSum(noise, middle.duties[0]!);
  for (const set of sets[0]!) set.stops = nearStops(central, noise, set, [ray], most, on);
  const carry = createRowCarry(central, [ray], sets, null, work, [out]);
  return (model, duty) => {
    work.duty[0] = duty;
    carry(model);
    return out.watts[0]!;
  };
}

function leastOfRow(model: MachineModel, watts: number, carry: CarriedAt): number {
  const { data } = model;
  const holds = (duty: number): boolean => carry(model, duty) >= watts;
  if (holds(0)) return -Infinity;
  const [from] = startDuties(data);
  if (from === undefined) return Infinity;
  // from the loudest down: where a pipe holds it a slower state may carry what full speed does not
  let hi = NaN;
  for (let k = 0; k < LOOKS && !(hi > 0); k++) {
    const duty = from ** (k / LOOKS);
    if (holds(duty)) hi = duty;
  }
  if (!(hi > 0)) return Infinity;
  const levelOf = (duty: number) => fanState(data, duty).levelDbA ?? -Infinity;
  if (holds(from)) return levelOf(from);
  let lo = from;
  for (let i = 0; i < BISECTIONS; i++) {
    const mid = Math.sqrt(lo * hi);
    if (holds(mid)) hi = mid;
    else lo = mid;
  }
  return levelOf(hi);
}
