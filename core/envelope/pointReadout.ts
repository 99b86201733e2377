import { water } from '../fluids/water';
import { axialIntegral } from '../pipes/axialProfile';
import { capillaryReach } from '../pipes/capillaryLimit';
import type { MachineModel } from '../network/machineModel';
import {
  conditionsAt,
  exhaustC,
  firstConditions,
  nodeC,
  solveLinear,
} from '../network/steadyState';
import type { FanState } from './fanStates';
import { pipeHeat } from './limits';

export interface TemperatureReadout {
  id: string;
  temperatureC: number;
  limitC: number;
}

/** All that can be read off at one pair of watts and one fan state. */
export interface PointReadout {
  cpuWatts: number;
  gpuWatts: number;
  levelDbA: number | null;
  junctions: TemperatureReadout[];
  skin: TemperatureReadout[];
  exhaust: TemperatureReadout[];
  /** Load of each pipe as a share of what dries it out. */
  pipes: { id: string; shareOfLimit: number; vaporC: number }[];
  fans: { id: string; rpm: number; flowLps: number }[];
  intakeC: number;
  shellC: number;
}

const ROUNDS = 12;

/**
 * Temperatures, pipe loads and flows at given watts, at properties converged there.
 *
 * @param model the machine
 * @param fans the fan state
 * @param cpuW, gpuW reported watts, ≥ 0
 */
export function pointReadout(
  model: MachineModel,
  fans: FanState,
  cpuW: number,
  gpuW: number,
): PointReadout {
  const { data } = model;
  let at = firstConditions(model);
  let state = solveLinear(model, fans.rpms, at);
  for (let round = 0; round < ROUNDS; round++) {
    at = conditionsAt(model, state, cpuW, gpuW);
    state = solveLinear(model, fans.rpms, at, state.flows);
  }
  const read = (node: number) => nodeC(model, state, node, cpuW, gpuW);
  const temps = state.base.map((x, i) => x + cpuW * state.perCpuW[i]! + gpuW * state.perGpuW[i]!);
  return {
    cpuWatts: cpuW,
    gpuWatts: gpuW,
    levelDbA: fans.levelDbA,
    junctions: data.dies.map((d, i) => ({
      id: d.id,
      temperatureC:
        read(model.dieNode[i]!) +
        (d.role === 'cpu' ? cpuW : gpuW) * d.roleShare * d.insideShare * model.dieResistanceKW[i]!,
      limitC: d.maxJunctionC,
    })),
    skin: model.skinNode.map((node, i) => ({
      id: data.plates[i]!.id,
      temperatureC: read(node),
      limitC: data.shell.skinLimitC,
    })),
    exhaust: model.stackNode.map((_, i) => ({
      id: data.stacks[i]!.id,
      temperatureC: exhaustC(model, state, i, cpuW, gpuW),
      limitC: data.shell.exhaustLimitC,
    })),
    pipes: data.pipes.map((pipe, k) => {
      const heat = pipeHeat(model, k, temps);
      const integrals = model.pipePlaces[k]!.map((x) => axialIntegral(heat, x));
      const range = Math.max(0, ...integrals) - Math.min(0, ...integrals);
      const reach = capillaryReach(pipe, water(at.pipeC[k]!));
      return {
        id: pipe.id,
        shareOfLimit: reach > 0 ? range / reach : Infinity,
        vaporC: read(model.pipeNode[k]!),
      };
    }),
    fans: data.fans.map((f, i) => ({
      id: f.id,
      rpm: fans.rpms[i]!,
      flowLps: state.flows.fanM3s[i]! * 1e3,
    })),
    intakeC: read(model.intakeNode),
    shellC: read(model.shellNode),
  };
}
