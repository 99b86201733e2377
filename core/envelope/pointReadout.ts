import type { MachineModel } from '../network/networkModel';
import type { RangeNote } from '../network/rangeNotes';
import {
  createState,
  exhaustC,
  junctionC,
  moveConditions,
  nodeC,
  solveInto,
  type LinearState,
} from '../network/steadyState';
import { unsettledNotes } from '../network/unsettledNotes';
import type { FanState } from './fanStates';
import { FAILURES } from './limitTypes';
import { firstLimit } from './limits';
import { contactHeat, pipeCapability } from './pipeLimitPlanes';

export interface TemperatureReadout {
  id: string;
  temperatureC: number;
  limitC: number;
}

/** How near a pipe is to drying out or boiling, by the kind that is nearest. */
export interface PipeReadout {
  id: string;
  shareOfLimit: number;
  kind: (typeof FAILURES)[number];
  /** Watts that enter one of alike pipes. */
  watts: number;
  vaporC: number;
  /** In the order along it: what each part gives to all of the alike pipes together, W; negative where it takes heat up. */
  along: { part: string; watts: number }[];
}

/** All that can be read off at one pair of watts and one fan state. */
export interface PointReadout {
  cpuWatts: number;
  gpuWatts: number;
  levelDbA: number | null;
  junctions: TemperatureReadout[];
  skin: TemperatureReadout[];
  exhaust: TemperatureReadout[];
  pipes: PipeReadout[];
  fans: { id: string; rpm: number; flowLps: number }[];
  intakeC: number;
  shellC: number;
  /** Where a solver ended at its bound. */
  notes: RangeNote[];
  /** Every node of the network, for those who want to see all. */
  nodes: { name: string; temperatureC: number }[];
}

const MAX_ROUNDS = 60;
const STILL_K = 1e-7;

/**
 * A state solved at given watts, at properties converged there.
 *
 * @param model the machine
 * @param rpms speed of each fan
 * @param cpuW, gpuW reported watts, ≥ 0
 * @param state where to solve, a fresh one by default
 * @param stillK mean change of a node between two rounds that counts as still, kelvin
 * @param maxRounds bound on the rounds; what still moved there is left in the state
 */
export function settleAt(
  model: MachineModel,
  rpms: ArrayLike<number>,
  cpuW: number,
  gpuW: number,
  state: LinearState = createState(model),
  stillK = STILL_K,
  maxRounds = MAX_ROUNDS,
): LinearState {
  let last = NaN;
  let movedK = Infinity;
  for (let round = 0; round < maxRounds; round++) {
    solveInto(model, rpms, state);
    let sum = 0;
    for (let i = 0; i < model.nodeCount; i++) sum += nodeC(model, state, i, cpuW, gpuW);
    if (Math.abs(sum - last) < stillK * model.nodeCount) return state;
    movedK = Math.abs(sum - last) / model.nodeCount;
    last = sum;
    moveConditions(model, state, cpuW, gpuW);
  }
  state.unsettled.kelvin = Math.max(state.unsettled.kelvin, movedK);
  return state;
}

/** How near a pipe is to each of its limits at a vector of temperatures above the room. */
function pipeReadout(
  model: MachineModel,
  state: LinearState,
  pipe: number,
  temperatures: Float64Array,
): Omit<PipeReadout, 'id' | 'vaporC'> {
  const contacts = model.pipeContacts[pipe]!;
  const { places, integral, flow } = model.pipeProfiles[pipe]!;
  const m = contacts.length;
  const heat = new Float64Array(m);
  contactHeat(model, pipe, temperatures, heat);
  const along = (weights: Float64Array) =>
    Array.from({ length: places }, (_, i) =>
      heat.reduce((sum, q, j) => sum + weights[i * m + j]! * q, 0),
    );
  const integrals = along(integral);
  const flows = along(flow);
  const { count } = model.data.pipes[pipe]!;
  const can = pipeCapability(model, pipe, state.at.pipeC[pipe]!);
  const loads = [
    {
      kind: can.transportLimitKind,
      share: (Math.max(0, ...integrals) - Math.min(0, ...integrals)) / can.transportCapacityWm,
    },
    { kind: can.flowKind, share: Math.max(...flows.map(Math.abs)) / can.flowW },
    {
      kind: 1,
      share: Math.max(0, ...contacts.map((c, j) => heat[j]! / c.areaM2)) / can.fluxWm2,
    },
  ];
  const nearest = loads.reduce((a, b) => (b.share > a.share ? b : a));
  let watts = 0;
  for (const q of heat) if (q > 0) watts += q / count;
  const { data } = model;
  return {
    along: data.pipes[pipe]!.contacts.map(({ part }, j) => ({
      part: (part.kind === 'plate' ? data.plates : data.stacks)[part.index]!.id,
      watts: heat[j]!,
    })),
    shareOfLimit: can.transportCapacityWm > 0 ? nearest.share : Infinity,
    kind: FAILURES[nearest.kind]!,
    watts,
  };
}

/**
 * How near each pipe is to its limits in a settled state.
 *
 * @param model the machine
 * @param state settled at these watts, as {@link settleAt} leaves it; the temperatures of its pipes' limits are moved
 * @param cpuW, gpuW reported watts, ≥ 0
 */
export function pipeReadouts(
  model: MachineModel,
  state: LinearState,
  cpuW: number,
  gpuW: number,
): PipeReadout[] {
  // limits of pipes are taken where they would be met in this direction
  const sum = cpuW + gpuW;
  firstLimit(
    model,
    state,
    null,
    sum > 0
      ? { cpu: cpuW / sum, gpu: gpuW / sum }
      : { cpu: model.hasCpu ? 1 : 0, gpu: model.hasCpu ? 0 : 1 },
  );
  const above = state.base.map((x, i) => x + cpuW * state.perCpuW[i]! + gpuW * state.perGpuW[i]!);
  return model.data.pipes.map((pipe, k) => ({
    id: pipe.id,
    ...pipeReadout(model, state, k, above),
    vaporC: nodeC(model, state, model.pipeNode[k]!, cpuW, gpuW),
  }));
}

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
  const state = settleAt(model, fans.rpms, cpuW, gpuW);
  const read = (node: number) => nodeC(model, state, node, cpuW, gpuW);
  return {
    cpuWatts: cpuW,
    gpuWatts: gpuW,
    levelDbA: fans.levelDbA,
    junctions: data.dies.map((d, i) => ({
      id: d.id,
      temperatureC: junctionC(model, state, i, cpuW, gpuW),
      limitC: d.maxJunctionC,
    })),
    skin: model.skinNode.map((node, i) => ({
      id: model.skinPart[i]!,
      temperatureC: read(node),
      limitC: data.shell.skinLimitC,
    })),
    exhaust: data.stacks.map((s, i) => ({
      id: s.id,
      temperatureC: exhaustC(model, state, i, cpuW, gpuW),
      limitC: data.shell.exhaustLimitC,
    })),
    pipes: pipeReadouts(model, state, cpuW, gpuW),
    fans: data.fans.map((f, i) => ({
      id: f.id,
      rpm: fans.rpms[i]!,
      flowLps: state.flows.fanM3s[i]! * 1e3,
    })),
    intakeC: read(model.intakeNode),
    shellC: read(model.shellNode),
    notes: unsettledNotes([state]),
    nodes: model.nodeNames.map((name, i) => ({ name, temperatureC: read(i) })),
  };
}
