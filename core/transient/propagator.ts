import type { MachineModel } from '../network/networkModel';
import { assembleInto, createState, type LinearState } from '../network/steadyState';
import { settleAt } from '../envelope/pointReadout';
import { matrixExponential } from './matrixExponential';

/** Right-hand sides: rest and fans, one CPU watt, one GPU watt. */
export const SOURCES = 3;

/**
 * A machine at fixed fan speeds as `C dx/dt = −G x + b`, x above the room, without the intake, which stores nothing and
 * follows from the others: `x_I = intakeHeat · source − intakeOf · x`.
 */
export interface Dynamics {
  /** Nodes that store heat. */
  n: number;
  nodes: Int32Array;
  /** n × n, 1/s: `C⁻¹ G`. */
  rates: Float64Array;
  /** n × 3, K/s per source: `C⁻¹ b`. */
  heating: Float64Array;
  intakeOf: Float64Array;
  intakeHeat: Float64Array;
  /** Properties were taken at the steady state at these fan speeds. */
  at: LinearState;
}

/** Moves a machine on by one step: `x' = move · x + add · (1, P_cpu, P_gpu)`. */
export interface Propagator {
  dynamics: Dynamics;
  move: Float64Array;
  add: Float64Array;
}

/**
 * The equations of a machine in time at fixed fan speeds.
 *
 * @param model the machine
 * @param nodeJPerK heat capacity of each node, J/K, > 0 but for the intake
 * @param rpms speed of each fan
 * @param cpuW, gpuW watts at whose steady state temperature-dependent properties are taken
 * @throws Error where a node other than the intake stores nothing
 */
export function dynamicsAt(
  model: MachineModel,
  nodeJPerK: Float64Array,
  rpms: ArrayLike<number>,
  cpuW: number,
  gpuW: number,
): Dynamics {
  const at = settleAt(model, rpms, cpuW, gpuW, createState(model));
  const equations = createState(model);
  equations.at = at.at;
  assembleInto(model, rpms, equations);
  const { nodeCount, intakeNode } = model;
  const g = equations.matrix;
  const b = [equations.base, equations.perCpuW, equations.perGpuW];
  const nodes = Int32Array.from(
    Array.from({ length: nodeCount }, (_, i) => i).filter((i) => i !== intakeNode),
  );
  const n = nodes.length;
  const rates = new Float64Array(n * n);
  const heating = new Float64Array(n * SOURCES);
  const own = g[intakeNode * nodeCount + intakeNode]!;
  nodes.forEach((node, i) => {
    const capacity = nodeJPerK[node]!;
    if (!(capacity > 0)) throw new Error(`node ${node} stores no heat`);
    const viaIntake = g[node * nodeCount + intakeNode]! / own;
    nodes.forEach((other, j) => {
      const direct = g[node * nodeCount + other]!;
      rates[i * n + j] = (direct - viaIntake * g[intakeNode * nodeCount + other]!) / capacity;
    });
    for (let s = 0; s < SOURCES; s++) {
      heating[i * SOURCES + s] = (b[s]![node]! - viaIntake * b[s]![intakeNode]!) / capacity;
    }
  });
  return {
    n,
    nodes,
    rates,
    heating,
    intakeOf: Float64Array.from(nodes, (j) => g[intakeNode * nodeCount + j]! / own),
    intakeHeat: Float64Array.from(b, (x) => x[intakeNode]! / own),
    at,
  };
}

/**
 * The exact step of linear equations under constant sources, from one exponential of the equations with their sources
 * appended: `exp([[−C⁻¹G, C⁻¹b], [0, 0]] Δt)`. Stable for any step.
 *
 * @param dynamics the machine at fixed fan speeds
 * @param stepS Δt, > 0
 * Source: Van Loan, “Computing integrals involving the matrix exponential”, IEEE Trans. Automatic Control 23 (1978).
 */
export function propagatorOf(dynamics: Dynamics, stepS: number): Propagator {
  const { n, rates, heating } = dynamics;
  const m = n + SOURCES;
  const whole = new Float64Array(m * m);
  for (let i = 0; i < n; i++) {
    for (let j = 0; j < n; j++) whole[i * m + j] = -rates[i * n + j]! * stepS;
    for (let s = 0; s < SOURCES; s++) {
      whole[i * m + n + s] = heating[i * SOURCES + s]! * stepS;
    }
  }
  const e = matrixExponential(whole, m);
  const move = new Float64Array(n * n);
  const add = new Float64Array(n * SOURCES);
  for (let i = 0; i < n; i++) {
    move.set(e.subarray(i * m, i * m + n), i * n);
    add.set(e.subarray(i * m + n, (i + 1) * m), i * SOURCES);
  }
  return { dynamics, move, add };
}

/** Takes one step from x into `out`. */
export function step(
  { dynamics: { n }, move, add }: Propagator,
  x: Float64Array,
  cpuW: number,
  gpuW: number,
  out: Float64Array,
): void {
  for (let i = 0; i < n; i++) {
    let sum = add[i * SOURCES]! + cpuW * add[i * SOURCES + 1]! + gpuW * add[i * SOURCES + 2]!;
    const row = i * n;
    for (let j = 0; j < n; j++) sum += move[row + j]! * x[j]!;
    out[i] = sum;
  }
}
