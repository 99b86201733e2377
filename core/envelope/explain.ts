import { configurationOf, type ReadoutName } from '../estimate';
import { buildModel, type MachineModel } from '../network/machineModel';
import { junctionC, type LinearState } from '../network/steadyState';
import type { CaseRecord } from '../record/recordSchema';
import { resolveCase } from '../record/resolveCase';
import type { LabDefaults } from '../record/resolver';
import { carryOnRay, createMemory } from './carry';
import { CPU_RAY, GPU_RAY } from './envelope';
import { stateForCap, type Cap } from './fanStates';
import { type Binding } from './limitTypes';
import { limitsAlong } from './limits';
import { settleAt } from './pointReadout';

export const STEP_NAMES = [
  'air-in',
  'fins-to-air',
  'condenser',
  'evaporator',
  'shell',
  'board',
  'plate',
  'interface',
  'die',
] as const;
export type StepName = (typeof STEP_NAMES)[number];

/** One piece of the way from the room to a junction. */
export interface KelvinStep {
  step: StepName;
  kelvin: number;
  /** Over the die's reported watts; null with the die idle. */
  kelvinPerWatt: number | null;
}

/** Where the kelvins of one die go; the steps add up to its junction. */
export interface DieChain {
  die: string;
  watts: number;
  ambientC: number;
  junctionC: number;
  limitC: number;
  steps: KelvinStep[];
}

/** A limit and how many more watts along the same direction lie before it. */
export interface LimitAhead {
  binding: Binding;
  moreWatts: number;
}

export interface Explanation {
  cap: Cap;
  cpuWatts: number;
  gpuWatts: number;
  levelDbA: number | null;
  chains: DieChain[];
  /** What binds first, then what would bind next, at the properties of this point: what the cooling can carry. */
  limits: LimitAhead[];
  /** Where firmware and adapter stop, before or after. */
  configured: LimitAhead[];
}

const MAX_LIMITS = 8;

function isConfigured({ binding }: LimitAhead): boolean {
  return binding.limit === 'firmware' || binding.limit === 'adapter';
}

/** Mean temperature of where heat goes, weighted by how much goes there. */
function meanOf(flows: readonly { watts: number; temperature: number }[]): number | null {
  let sum = 0;
  let heat = 0;
  for (const f of flows) {
    if (f.watts <= 0) continue;
    sum += f.watts * f.temperature;
    heat += f.watts;
  }
  return heat > 0 ? sum / heat : null;
}

/** Heat that leaves a node along each of its links, with the node it goes to. */
function leaving(model: MachineModel, t: Float64Array, node: number) {
  return model.links.flatMap((l) => {
    if (l.a !== node && l.b !== node) return [];
    const to = l.a === node ? l.b : l.a;
    return [{ to, watts: l.conductanceWPerK * (t[node]! - t[to]!) }];
  });
}

/**
 * The chain of temperature steps from the room to each die at given watts.
 *
 * Where heat takes several ways at once, a step runs between the means of both its sides, weighted by the heat that takes
 * each way, so that the steps add up exactly.
 *
 * @param model the machine
 * @param state settled at these watts
 * @param cpuW, gpuW reported watts, ≥ 0
 */
export function kelvinChains(
  model: MachineModel,
  state: LinearState,
  cpuW: number,
  gpuW: number,
): DieChain[] {
  const { data } = model;
  const t = state.base.map((x, i) => x + cpuW * state.perCpuW[i]! + gpuW * state.perGpuW[i]!);
  const isSegment = new Set(model.segments.flatMap((s) => s.map((x) => x.node)));
  const isPipe = new Set(model.pipeNode);
  const blown = state.totalCapacityWPerK > 0;
  return data.dies.map((d, i) => {
    const node = model.dieNode[i]!;
    const watts = (d.role === 'cpu' ? cpuW : gpuW) * d.roleShare;
    const junction = junctionC(model, state, i, cpuW, gpuW);
    const own = model.dieSteps[i]!;
    const inside = watts * d.insideShare;
    const ways = leaving(model, t, node).filter((w) => w.watts > 0);
    const vapor = ways.flatMap((w) =>
      isPipe.has(w.to) || isSegment.has(w.to)
        ? [{ watts: w.watts, temperature: isPipe.has(w.to) ? t[w.to]! : t[node]! }]
        : [],
    );
    const wall = ways.flatMap((w) => {
      if (isSegment.has(w.to)) return [{ watts: w.watts, temperature: t[w.to]! }];
      if (!isPipe.has(w.to)) return [];
      const mean = meanOf(
        leaving(model, t, w.to)
          .filter((x) => isSegment.has(x.to))
          .map((x) => ({ watts: x.watts, temperature: t[x.to]! })),
      );
      return [{ watts: w.watts, temperature: mean ?? t[w.to]! }];
    });
    const vaporT = meanOf(vapor);
    const wallT = meanOf(wall);
    const steps: [StepName, number][] = [];
    if (blown && vaporT !== null && wallT !== null) {
      const intake = t[model.intakeNode]!;
      steps.push(
        ['air-in', intake],
        ['fins-to-air', wallT - intake],
        ['condenser', vaporT - wallT],
        ['evaporator', t[node]! - vaporT],
      );
    } else {
      const shell = t[model.shellNode]!;
      steps.push(['shell', shell], ['board', t[node]! - shell]);
    }
    const above = junction - data.room.temperatureC - t[node]!;
    const dieK = own.dieKPerW * inside;
    const interfaceK = own.interfaceKPerW * inside;
    steps.push(['plate', above - dieK - interfaceK], ['interface', interfaceK], ['die', dieK]);
    return {
      die: d.id,
      watts,
      ambientC: data.room.temperatureC,
      junctionC: junction,
      limitC: d.maxJunctionC,
      steps: steps.map(([step, kelvin]) => ({
        step,
        kelvin,
        kelvinPerWatt: watts > 1e-9 ? kelvin / watts : null,
      })),
    };
  });
}

/**
 * Why a machine carries what it carries at a cap, or at any pair of watts under it.
 *
 * @param record a record that `parseRecord` found complete
 * @param cap the cap
 * @param at a readout, at what the cooling carries there; or a pair of watts
 * @param options setting and a lab's defaults
 */
export function explain(
  record: CaseRecord,
  cap: Cap,
  at: ReadoutName | { cpuW: number; gpuW: number },
  options: { settingId?: string | undefined; lab?: LabDefaults | undefined } = {},
): Explanation {
  const model = buildModel(resolveCase(record, undefined, { lab: options.lab }));
  const { ratio, config } = configurationOf(record, model, options.settingId);
  let { state: fans } = stateForCap(model.data, cap);
  let pair: { cpuW: number; gpuW: number };
  if (typeof at === 'string') {
    const ray = { cpuAlone: CPU_RAY, gpuAlone: GPU_RAY, together: ratio }[at];
    const carried = carryOnRay(model, fans, ray, null, createMemory(model));
    fans = carried.state;
    pair = { cpuW: carried.point.cpuW, gpuW: carried.point.gpuW };
  } else pair = at;
  const { cpuW, gpuW } = pair;
  const state = settleAt(model, fans.rpms, cpuW, gpuW);
  const sum = cpuW + gpuW;
  const ray = sum > 1e-9 ? { cpu: cpuW / sum, gpu: gpuW / sum } : ratio;
  const ahead = limitsAlong(model, state, config, ray).map((l) => ({
    binding: l.binding,
    moreWatts: l.watts - sum,
  }));
  return {
    cap,
    cpuWatts: cpuW,
    gpuWatts: gpuW,
    levelDbA: fans.levelDbA,
    chains: kelvinChains(model, state, cpuW, gpuW),
    limits: ahead.filter((l) => !isConfigured(l)).slice(0, MAX_LIMITS),
    configured: ahead.filter(isConfigured),
  };
}
