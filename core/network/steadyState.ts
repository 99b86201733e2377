import { keepFlows, solveAirFlows, stillAir, type AirFlows } from '../airflow/airSystem';
import { effectiveness, stackConductance } from '../airflow/stackExchange';
import { horizontalConvection, radiationCoefficient } from '../conduction/shell';
import { air, emptyAir } from '../fluids/air';
import { factorPlanned, solvePlanned } from '../numerics/elimination';
import type { MachineModel } from './networkModel';

/** Temperatures at which the temperature-dependent properties are taken, °C. */
export interface Conditions {
  intakeC: number;
  shellC: number;
  filmC: Float64Array;
  /** Vapor of pipes and chambers where their limits are taken. */
  pipeC: Float64Array;
  plateC: Float64Array;
}

/**
 * The network at fixed fan speeds and properties, solved: each node's temperature above the room is
 * `base + perCpuW · P_cpu + perGpuW · P_gpu`. It is its own working memory: made once, solved into often.
 */
export interface LinearState {
  at: Conditions;
  base: Float64Array;
  perCpuW: Float64Array;
  perGpuW: Float64Array;
  flows: AirFlows;
  /** Whether `flows` and `at` hold a solution of this machine, or only start values. */
  solved: boolean;
  /** Air through each stack: heat capacity rate W/K and effectiveness of the whole stack. */
  capacityWPerK: Float64Array;
  effectiveness: Float64Array;
  /** For each stack, what its outlet air is made of: share of the intake, then of each piece's wall. */
  outlet: Float64Array[];
  totalCapacityWPerK: number;
  shellWPerK: number;
  fanPowerW: number;
  matrix: Float64Array;
  /** The watts may still move by this share when a pipe's own vapor is sought. */
  vaporTolerance: number;
  /** How much still moved where a repetition over this state ended at its bound; 0 where none did. */
  unsettled: { wattsShare: number; kelvin: number };
}

const VAPOR_TOLERANCE = 1e-6;
const INSIDE_AIR_AT_M3S = 3e-3;
const INSIDE_AIR_EXPONENT = 0.8;

/** A state of a machine before anything is solved. */
export function createState(model: MachineModel): LinearState {
  const n = model.nodeCount;
  const ambientC = model.data.room.temperatureC;
  return {
    at: {
      intakeC: ambientC + 3,
      shellC: ambientC + 10,
      filmC: new Float64Array(model.segments.length).fill(ambientC + 22),
      pipeC: new Float64Array(model.pipeNode.length).fill(ambientC + 40),
      plateC: new Float64Array(model.plateNode.length).fill(ambientC + 40),
    },
    base: new Float64Array(n),
    perCpuW: new Float64Array(n),
    perGpuW: new Float64Array(n),
    flows: stillAir(model.air),
    solved: false,
    capacityWPerK: new Float64Array(model.segments.length),
    effectiveness: new Float64Array(model.segments.length),
    outlet: model.segments.map((s) => new Float64Array(s.length + 1)),
    totalCapacityWPerK: 0,
    shellWPerK: 0,
    fanPowerW: 0,
    matrix: new Float64Array(n * n),
    vaporTolerance: VAPOR_TOLERANCE,
    unsettled: { wattsShare: 0, kelvin: 0 },
  };
}

/** Makes one state's start the same as another's: conditions, flows and last solution. */
export function startFrom(state: LinearState, other: LinearState): void {
  state.at.intakeC = other.at.intakeC;
  state.at.shellC = other.at.shellC;
  state.at.filmC.set(other.at.filmC);
  state.at.pipeC.set(other.at.pipeC);
  state.at.plateC.set(other.at.plateC);
  keepFlows(other.flows, state.flows);
  state.base.set(other.base);
  state.perCpuW.set(other.perCpuW);
  state.perGpuW.set(other.perGpuW);
  state.effectiveness.set(other.effectiveness);
  state.outlet.forEach((w, i) => w.set(other.outlet[i]!));
  state.fanPowerW = other.fanPowerW;
  state.solved = other.solved;
}

/** Power of all fans at their speeds: a share of full power that follows the cube of speed. */
export function fanPower(model: MachineModel, rpms: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < rpms.length; i++) {
    const duty = rpms[i]! / model.data.fans[i]!.maxRpm;
    sum += model.data.power.fanW * duty * duty * duty;
  }
  return sum;
}

const intakeAir = emptyAir();
const filmAir = emptyAir();

/**
 * Solves the network at given fan speeds with properties at the state's conditions. One factorisation serves all three
 * right-hand sides: rest and fans, one CPU watt, one GPU watt.
 *
 * Pieces of a stack lie behind each other in the air: `Q_k = ε_k C (T_k − T_air,k)`, `T_air,k+1 = T_air,k + ε_k (T_k −
 * T_air,k)`. Intake: a share r of what leaves comes back, `(1 − r) C x − r Σ Q = E`, x its rise over the room, E the heat of
 * rest and fans that enters there.
 *
 * @param model the machine
 * @param rpms speed of each fan
 * @param state its conditions and flows are the start, the rest is overwritten
 * Source: nodal analysis; ε-NTU after Kays & London.
 */
export function solveInto(model: MachineModel, rpms: ArrayLike<number>, state: LinearState): void {
  assembleInto(model, rpms, state);
  const { matrix: a, base, perCpuW, perGpuW } = state;
  factorPlanned(a, model.plan);
  solvePlanned(a, model.plan, base);
  solvePlanned(a, model.plan, perCpuW);
  if (model.hasGpu) solvePlanned(a, model.plan, perGpuW);
}

/**
 * Writes the network's equations `G x = b` without solving them: G into the state's matrix, the heat of rest and fans, of one
 * CPU watt and of one GPU watt into its three vectors.
 */
export function assembleInto(
  model: MachineModel,
  rpms: ArrayLike<number>,
  state: LinearState,
): void {
  const { data, nodeCount: n, intakeNode, shellNode, links } = model;
  const { at, flows, matrix: a, base, capacityWPerK } = state;
  solveAirFlows(model.air, data, rpms, at.intakeC, at.filmC, flows, state.solved);
  state.solved = true;
  air(at.intakeC, data.room.pressurePa, intakeAir);
  const { perCpuW, perGpuW } = state;
  for (let i = 0; i < n; i++) {
    base[i] = model.padHeatW[i]!;
    perCpuW[i] = model.heatPerCpuW[i]!;
    perGpuW[i] = model.heatPerGpuW[i]!;
  }
  a.fill(0);
  for (let l = 0; l < links.length; l++) {
    const { a: i, b: j, conductanceWPerK: g } = links[l]!;
    a[i * n + i]! += g;
    a[j * n + j]! += g;
    a[i * n + j]! -= g;
    a[j * n + i]! -= g;
  }
  const shellWPerK = shellConductance(model, at.shellC);
  state.shellWPerK = shellWPerK;
  a[shellNode * n + shellNode]! += shellWPerK;

  let drawnM3s = 0;
  for (let i = 0; i < flows.fanM3s.length; i++) drawnM3s += flows.fanM3s[i]!;
  const perM3 = flows.intakeDensityKgM3 * intakeAir.heatCapacityJkgK;
  const totalCapacityWPerK = drawnM3s * perM3;
  state.totalCapacityWPerK = totalCapacityWPerK;
  const r = data.air.recirculation;
  const onIntake = intakeNode * n;
  if (totalCapacityWPerK > 0) {
    // the air drawn through the machine also cools shell and board on its way to the fans
    const inside =
      data.shell.insideAirWm2K * Math.pow(drawnM3s / INSIDE_AIR_AT_M3S, INSIDE_AIR_EXPONENT);
    sweep(a, n, shellNode, intakeNode, inside * data.shell.widthM * data.shell.depthM);
    for (let i = 0; i < model.skinNode.length; i++) {
      sweep(a, n, model.skinNode[i]!, intakeNode, inside * model.skinAreaM2[i]!);
    }
  }
  for (let s = 0; s < model.segments.length; s++) {
    const own = model.segments[s]!;
    const outlet = state.outlet[s]!;
    const q = flows.stackM3s[s]!;
    const c = q * perM3;
    capacityWPerK[s] = c;
    outlet.fill(0);
    outlet[0] = 1;
    if (c > 0) {
      const film = air(at.filmC[s]!, data.room.pressurePa, filmAir);
      const ua = stackConductance(
        model.air.stacks[s]!,
        (q * flows.intakeDensityKgM3) / film.densityKgM3,
        film,
        data.air.uaFactor,
        data.air.nusseltFactor,
      );
      for (let k = 0; k < own.length; k++) {
        const e = effectiveness(own[k]!.share * ua, c);
        const row = own[k]!.node * n;
        const ec = e * c;
        a[row + own[k]!.node]! += ec;
        a[row + intakeNode]! -= ec * outlet[0]!;
        for (let j = 0; j < k; j++) a[row + own[j]!.node]! -= ec * outlet[j + 1]!;
        for (let j = 0; j <= k; j++) outlet[j]! *= 1 - e;
        outlet[k + 1] = e;
      }
      a[onIntake + intakeNode]! += r * c * (1 - outlet[0]!);
      for (let k = 0; k < own.length; k++) a[onIntake + own[k]!.node]! -= r * c * outlet[k + 1]!;
    }
    state.effectiveness[s] = 1 - outlet[0]!;
  }
  const fanPowerW = fanPower(model, rpms);
  state.fanPowerW = fanPowerW;
  const restW = data.power.restW * (1 - data.power.restLidShare) - model.padTotalW;
  if (totalCapacityWPerK > 0) {
    a[onIntake + intakeNode]! += (1 - r) * totalCapacityWPerK;
    base[intakeNode]! += data.power.restAirShare * restW + fanPowerW;
    base[shellNode]! += (1 - data.power.restAirShare) * restW;
  } else {
    a[onIntake + intakeNode] = 1;
    base[shellNode]! += restW + fanPowerW;
  }
}

function sweep(a: Float64Array, n: number, node: number, intake: number, g: number): void {
  a[node * n + node]! += g;
  a[node * n + intake]! -= g;
  a[intake * n + intake]! += g;
  a[intake * n + node]! -= g;
}

/** A fresh state solved at its start conditions. */
export function solveLinear(model: MachineModel, rpms: ArrayLike<number>): LinearState {
  const state = createState(model);
  solveInto(model, rpms, state);
  return state;
}

/** Conductance from the shell to the room: deck up, base down, each as far as lid and ground leave it free. */
function shellConductance(model: MachineModel, shellC: number): number {
  const { shell, room } = model.data;
  const { widthM, depthM } = shell;
  const { temperatureC: ambientC, pressurePa } = room;
  const radiation = radiationCoefficient(shell.emissivity, shellC, ambientC);
  const up = horizontalConvection('up', widthM, depthM, shellC, ambientC, pressurePa);
  const down = horizontalConvection('down', widthM, depthM, shellC, ambientC, pressurePa);
  const area = widthM * depthM * shell.evenness;
  return area * (shell.deckShare * (radiation + up) + shell.baseShare * (radiation + down));
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

/** What a die's sensor reads, °C, at given watts. */
export function junctionC(
  model: MachineModel,
  state: LinearState,
  die: number,
  cpuW: number,
  gpuW: number,
): number {
  return (
    nodeC(model, state, model.dieNode[die]!, cpuW, gpuW) +
    cpuW * model.dieBeyondCpuKPerW[die]! +
    gpuW * model.dieBeyondGpuKPerW[die]!
  );
}

/** Outlet air of a stack in a vector of node temperatures. */
export function outletOf(
  model: MachineModel,
  state: LinearState,
  stack: number,
  temperatures: Float64Array,
): number {
  const w = state.outlet[stack]!;
  let sum = w[0]! * temperatures[model.intakeNode]!;
  const own = model.segments[stack]!;
  for (let k = 0; k < own.length; k++) sum += w[k + 1]! * temperatures[own[k]!.node]!;
  return sum;
}

/** Temperature of the air that leaves a stack, °C. */
export function exhaustC(
  model: MachineModel,
  state: LinearState,
  stack: number,
  cpuW: number,
  gpuW: number,
): number {
  return (
    model.data.room.temperatureC +
    outletOf(model, state, stack, state.base) +
    cpuW * outletOf(model, state, stack, state.perCpuW) +
    gpuW * outletOf(model, state, stack, state.perGpuW)
  );
}

function within(c: number): number {
  return Math.min(150, Math.max(-20, c));
}

/** Sets a state's conditions to what its own solution gives at these watts, kept within where the property fits hold. */
export function moveConditions(
  model: MachineModel,
  state: LinearState,
  cpuW: number,
  gpuW: number,
): void {
  const { at } = state;
  at.intakeC = within(nodeC(model, state, model.intakeNode, cpuW, gpuW));
  at.shellC = within(nodeC(model, state, model.shellNode, cpuW, gpuW));
  for (let i = 0; i < at.filmC.length; i++) {
    at.filmC[i] = within(0.5 * (at.intakeC + exhaustC(model, state, i, cpuW, gpuW)));
  }
}
