import type { MachineModel } from './networkModel';
import { junctionC, type LinearState } from './steadyState';

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
