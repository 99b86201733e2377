import { solveAirFlows, type AirFlows } from '../airflow/airSystem';
import { effectiveness, stackConductance } from '../airflow/stackExchange';
import { horizontalConvection, radiationCoefficient } from '../conduction/shell';
import { air } from '../fluids/air';
import { luFactor, luSolve } from './lu';
import type { MachineModel } from './machineModel';

/** Temperatures at which the temperature-dependent properties are taken, °C. */
export interface Conditions {
  intakeC: number;
  filmC: number[];
  shellC: number;
  pipeC: number[];
  chamberC: number[];
}

/**
 * The network at fixed fan speeds and properties, solved: each node's temperature above the room is
 * `base + perCpuW · P_cpu + perGpuW · P_gpu`.
 */
export interface LinearState {
  base: Float64Array;
  perCpuW: Float64Array;
  perGpuW: Float64Array;
  flows: AirFlows;
  /** Air through each stack: heat capacity rate W/K and effectiveness. */
  capacityWK: number[];
  effectiveness: number[];
  totalCapacityWK: number;
  shellWK: number;
  fanPowerW: number;
}

const INSIDE_AIR_AT_M3S = 3e-3;
const INSIDE_AIR_EXPONENT = 0.8;

/** Where properties start before anything is solved. */
export function firstConditions(model: MachineModel): Conditions {
  const room = model.data.room.temperatureC;
  return {
    intakeC: room + 3,
    filmC: model.stackNode.map(() => room + 22),
    shellC: room + 10,
    pipeC: model.pipeNode.map(() => room + 40),
    chamberC: model.chamberNode.map(() => room + 40),
  };
}

/** Power of all fans at their speeds: a share of full power that follows the cube of speed. */
export function fanPower(model: MachineModel, rpms: readonly number[]): number {
  let sum = 0;
  rpms.forEach((rpm, i) => {
    sum += model.data.power.fanW * (rpm / model.data.fans[i]!.maxRpm) ** 3;
  });
  return sum;
}

/**
 * Solves the network at given fan speeds with properties at given conditions. One factorisation serves all three
 * right-hand sides: rest and fans, one CPU watt, one GPU watt.
 *
 * Stack to air: `Q = ε C (T_stack − T_intake)`. Intake: a share r of what leaves comes back,
 * `(1 − r) C x − r Σ Q_s = E`, x its rise over the room, E the heat of rest and fans that enters there.
 *
 * @param model the machine
 * @param rpms speed of each fan
 * @param at where properties are taken
 * @param start flows of a solve nearby
 * Source: nodal analysis; ε-NTU after Kays & London.
 */
export function solveLinear(
  model: MachineModel,
  rpms: readonly number[],
  at: Conditions,
  start?: AirFlows,
): LinearState {
  const { data, nodeCount: n, intakeNode, shellNode } = model;
  const flows = solveAirFlows(model.air, data, rpms, at.intakeC, at.filmC, start);
  const intakeAir = air(at.intakeC, data.room.pressurePa);
  const a = new Float64Array(n * n);
  const base = new Float64Array(n);
  for (const l of model.links) {
    const { a: i, b: j, conductanceWK: g } = l;
    a[i * n + i]! += g;
    a[j * n + j]! += g;
    a[i * n + j]! -= g;
    a[j * n + i]! -= g;
  }
  const shellWK = shellConductance(model, at.shellC);
  a[shellNode * n + shellNode]! += shellWK;

  let drawnM3s = 0;
  for (const q of flows.fanM3s) drawnM3s += q;
  const totalCapacityWK = drawnM3s * flows.intakeDensityKgM3 * intakeAir.heatCapacityJkgK;
  // the air drawn through the machine also cools shell and board on its way to the fans
  const inside =
    data.shell.insideAirWm2K * Math.pow(drawnM3s / INSIDE_AIR_AT_M3S, INSIDE_AIR_EXPONENT);
  const sweep = (node: number, areaM2: number) => {
    const g = inside * areaM2;
    a[node * n + node]! += g;
    a[node * n + intakeNode]! -= g;
    a[intakeNode * n + intakeNode]! += g;
    a[intakeNode * n + node]! -= g;
  };
  sweep(shellNode, data.shell.widthM * data.shell.depthM);
  model.skinNode.forEach((node, i) => sweep(node, model.skinAreaM2[i]!));
  const r = data.air.recirculation;
  const capacityWK: number[] = [];
  const eff: number[] = [];
  model.stackNode.forEach((s, i) => {
    const q = flows.stackM3s[i]!;
    const c = q * flows.intakeDensityKgM3 * intakeAir.heatCapacityJkgK;
    let e = 0;
    if (c > 0) {
      const film = air(at.filmC[i]!, data.room.pressurePa);
      const through = (q * flows.intakeDensityKgM3) / film.densityKgM3;
      e = effectiveness(
        stackConductance(
          model.air.stacks[i]!,
          through,
          film,
          data.air.uaFactor,
          data.air.nusseltFactor,
        ),
        c,
      );
      a[s * n + s]! += e * c;
      a[s * n + intakeNode]! -= e * c;
      a[intakeNode * n + intakeNode]! += r * e * c;
      a[intakeNode * n + s]! -= r * e * c;
    }
    capacityWK.push(c);
    eff.push(e);
  });
  const fanPowerW = fanPower(model, rpms);
  const restW = data.power.restW * (1 - data.power.restLidShare);
  if (totalCapacityWK > 0) {
    a[intakeNode * n + intakeNode]! += (1 - r) * totalCapacityWK;
    base[intakeNode] = data.power.restAirShare * restW + fanPowerW;
    base[shellNode] = (1 - data.power.restAirShare) * restW;
  } else {
    a[intakeNode * n + intakeNode] = 1;
    base[shellNode] = restW + fanPowerW;
  }
  const pivot = new Int32Array(n);
  luFactor(a, n, pivot);
  const perCpuW = Float64Array.from(model.heatPerCpuW);
  const perGpuW = Float64Array.from(model.heatPerGpuW);
  luSolve(a, n, pivot, base);
  luSolve(a, n, pivot, perCpuW);
  luSolve(a, n, pivot, perGpuW);
  return {
    base,
    perCpuW,
    perGpuW,
    flows,
    capacityWK,
    effectiveness: eff,
    totalCapacityWK,
    shellWK,
    fanPowerW,
  };
}

function shellConductance(model: MachineModel, shellC: number): number {
  const { shell, room } = model.data;
  const radiation = radiationCoefficient(shell.emissivity, shellC, room.temperatureC);
  const face = (facing: 'up' | 'down', share: number) =>
    share *
    (radiation +
      horizontalConvection(
        facing,
        shell.widthM,
        shell.depthM,
        shellC,
        room.temperatureC,
        room.pressurePa,
      ));
  const area = shell.widthM * shell.depthM * shell.evenness;
  return area * (face('up', shell.deckShare) + face('down', shell.baseShare));
}

/** Temperature of a node in °C at given watts. */
export function nodeC(
  model: MachineModel,
  state: LinearState,
  node: number,
  cpuW: number,
  gpuW: number,
): number {
  return (
    model.data.room.temperatureC +
    state.base[node]! +
    cpuW * state.perCpuW[node]! +
    gpuW * state.perGpuW[node]!
  );
}

/** Temperature of the air that leaves a stack, °C. */
export function exhaustC(
  model: MachineModel,
  state: LinearState,
  stack: number,
  cpuW: number,
  gpuW: number,
): number {
  const wall = nodeC(model, state, model.stackNode[stack]!, cpuW, gpuW);
  const intake = nodeC(model, state, model.intakeNode, cpuW, gpuW);
  return intake + state.effectiveness[stack]! * (wall - intake);
}

/** Conditions that the solution itself gives at these watts, kept within where the property fits hold. */
export function conditionsAt(
  model: MachineModel,
  state: LinearState,
  cpuW: number,
  gpuW: number,
): Conditions {
  const within = (c: number) => Math.min(150, Math.max(-20, c));
  const intake = within(nodeC(model, state, model.intakeNode, cpuW, gpuW));
  return {
    intakeC: intake,
    filmC: model.stackNode.map((_, i) =>
      within(0.5 * (intake + exhaustC(model, state, i, cpuW, gpuW))),
    ),
    shellC: within(nodeC(model, state, model.shellNode, cpuW, gpuW)),
    pipeC: model.pipeNode.map((k) => within(nodeC(model, state, k, cpuW, gpuW))),
    chamberC: model.chamberNode.map((k) =>
      k < 0 ? 0 : within(nodeC(model, state, k, cpuW, gpuW)),
    ),
  };
}
