import type { FanCurve } from './fanCurve';
import {
  factorPlanned,
  planElimination,
  solvePlanned,
  type EliminationPlan,
} from '../numerics/elimination';

/** A resistance `Δp = a Q + b Q |Q|` between two pressure nodes; node −1 is the open room. */
export interface PassiveBranch {
  kind: 'passive';
  from: number;
  to: number;
  linear: number;
  quadratic: number;
}

/** A fan raising the pressure from one node to another; at 0 rpm a mere resistance. */
export interface FanBranch {
  kind: 'fan';
  from: number;
  to: number;
  curve: FanCurve;
  rpm: number;
  /** Air density over the density the curve was made for. */
  densityRatio: number;
}

export type FlowBranch = PassiveBranch | FanBranch;

/** A resistance of exactly nothing has no flow-pressure slope; this keeps the equations regular (Pa s/m³). */
const MIN_LINEAR = 50;
/** Below this a rotor counts as stopped. */
const MIN_RPM = 1;

const slope = { value: 0 };

function passiveFlow(linear: number, quadratic: number, drop: number): number {
  const a = Math.max(linear, MIN_LINEAR);
  const d = Math.abs(drop);
  if (quadratic <= 0) {
    slope.value = 1 / a;
    return drop / a;
  }
  const root = Math.sqrt(a * a + 4 * quadratic * d);
  slope.value = 1 / root;
  const q = (2 * d) / (a + root);
  return drop < 0 ? -q : q;
}

function fanFlow(branch: FanBranch, rise: number): number {
  const { curve, rpm } = branch;
  const q = curve.flowM3s;
  const p = curve.pressurePa;
  const last = q.length - 1;
  if (rpm < MIN_RPM) {
    // a stopped rotor resists as if its curve's ends were one point of a quadratic loss
    return passiveFlow(0, (branch.densityRatio * p[0]!) / (q[last]! * q[last]!), -rise);
  }
  const ratio = rpm / curve.referenceRpm;
  const scale = ratio * ratio * branch.densityRatio;
  const rp = rise / scale;
  let i: number;
  if (rp >= p[0]!) {
    // blown backwards through its rotor: steeper than the curve, still monotone
    const g = (0.1 * q[last]!) / Math.max(p[0]!, 1e-9);
    slope.value = (g * ratio) / scale;
    return (q[0]! - g * (rp - p[0]!)) * ratio;
  }
  if (rp <= p[last]!) i = last;
  else {
    let lo = 0;
    let hi = last;
    while (hi - lo > 1) {
      const mid = (lo + hi) >> 1;
      if (p[mid]! > rp) lo = mid;
      else hi = mid;
    }
    i = hi;
  }
  const dp = Math.max(p[i - 1]! - p[i]!, 1e-9);
  const g = (q[i]! - q[i - 1]!) / dp;
  slope.value = (g * ratio) / scale;
  return (q[i]! + g * (p[i]! - rp)) * ratio;
}

/** Flow through a branch (m³/s, along from → to) at node pressures; leaves dQ/dΔp in `slope`. */
function branchFlow(branch: FlowBranch, pressures: Float64Array): number {
  const pf = branch.from < 0 ? 0 : pressures[branch.from]!;
  const pt = branch.to < 0 ? 0 : pressures[branch.to]!;
  return branch.kind === 'passive'
    ? passiveFlow(branch.linear, branch.quadratic, pf - pt)
    : fanFlow(branch, pt - pf);
}

/** A network of branches with its working memory, made once and solved often. */
export interface FlowNetwork {
  nodeCount: number;
  branches: readonly FlowBranch[];
  /** Flow of each branch, m³/s along from → to, after a solve. */
  flows: Float64Array;
  plan: EliminationPlan;
  jacobian: Float64Array;
  residual: Float64Array;
  step: Float64Array;
  trial: Float64Array;
}

/**
 * Prepares a network.
 *
 * @param nodeCount number of unknown pressure nodes; node −1 is the room at 0 Pa
 * @param branches resistances and fans; each node must reach the room
 * @param like a network of the same shape, whose plan and working memory are taken over
 */
export function flowNetwork(
  nodeCount: number,
  branches: readonly FlowBranch[],
  like?: FlowNetwork,
): FlowNetwork {
  if (like) return { ...like, branches };
  const n = nodeCount;
  const pattern = new Uint8Array(n * n);
  for (let i = 0; i < n; i++) pattern[i * n + i] = 1;
  for (const b of branches) {
    if (b.from < 0 || b.to < 0) continue;
    pattern[b.from * n + b.to] = 1;
    pattern[b.to * n + b.from] = 1;
  }
  return {
    nodeCount,
    branches,
    flows: new Float64Array(branches.length),
    plan: planElimination(n, pattern),
    jacobian: new Float64Array(n * n),
    residual: new Float64Array(n),
    step: new Float64Array(n),
    trial: new Float64Array(n),
  };
}

/** Imbalance of each node at given pressures, its greatest share of the largest flow, and where asked the Jacobian. */
function balance(net: FlowNetwork, at: Float64Array, withJacobian: boolean): number {
  const { nodeCount: n, branches, flows, residual: res, jacobian: jac } = net;
  for (let i = 0; i < n; i++) res[i] = 0;
  if (withJacobian) jac.fill(0);
  let scale = 1e-9;
  for (let k = 0; k < branches.length; k++) {
    const b = branches[k]!;
    const q = branchFlow(b, at);
    const g = slope.value;
    flows[k] = q;
    scale = Math.max(scale, Math.abs(q));
    if (b.from >= 0) res[b.from]! -= q;
    if (b.to >= 0) res[b.to]! += q;
    if (!withJacobian) continue;
    if (b.from >= 0) jac[b.from * n + b.from]! += g;
    if (b.to >= 0) jac[b.to * n + b.to]! += g;
    if (b.from >= 0 && b.to >= 0) {
      jac[b.from * n + b.to]! -= g;
      jac[b.to * n + b.from]! -= g;
    }
  }
  let worst = 0;
  for (let i = 0; i < n; i++) worst = Math.max(worst, Math.abs(res[i]!));
  return worst / scale;
}

/** Slope of the convex function along the step, at a share of it. */
function slopeAlong(net: FlowNetwork, pressures: Float64Array, t: number): number {
  const { nodeCount: n, step, trial, residual } = net;
  for (let i = 0; i < n; i++) trial[i] = pressures[i]! + t * step[i]!;
  balance(net, trial, false);
  let d = 0;
  for (let i = 0; i < n; i++) d += residual[i]! * step[i]!;
  return d;
}

const MAX_ITERATIONS = 200;

/**
 * Operating point of fans and resistances: node pressures at which every node's flows balance.
 *
 * Every branch's flow falls with the pressure against it, so the balance is the gradient of a convex function: Newton
 * steps with a bisected line search always converge, also with fans in parallel, in series, unequal or stopped.
 *
 * @param net the network; its `flows` are overwritten
 * @param pressures start values in Pa, overwritten by the solution
 * @param tolerance greatest imbalance left, as a share of the largest flow
 * @param maxIterations bound on Newton steps
 * @returns 0, or the imbalance that is left where the steps ended at their bound
 */
export function solveFlows(
  net: FlowNetwork,
  pressures: Float64Array,
  tolerance = 1e-11,
  maxIterations = MAX_ITERATIONS,
): number {
  const { nodeCount: n, jacobian, residual, step, trial, plan } = net;
  let off = balance(net, pressures, true);
  for (let iteration = 0; off >= tolerance && iteration < maxIterations; iteration++) {
    for (let i = 0; i < n; i++) step[i] = residual[i]!;
    factorPlanned(jacobian, plan);
    solvePlanned(jacobian, plan, step);
    let d0 = 0;
    for (let i = 0; i < n; i++) {
      d0 += residual[i]! * step[i]!;
      trial[i] = pressures[i]! + step[i]!;
    }
    // the full step, looked at with its own slopes, since it is nearly always taken
    off = balance(net, trial, true);
    let d = 0;
    for (let i = 0; i < n; i++) d += residual[i]! * step[i]!;
    if (d >= -0.5 * d0 && d <= 0.5 * d0) {
      for (let i = 0; i < n; i++) pressures[i] = trial[i]!;
      continue;
    }
    let t = 1;
    if (d < 0) {
      // the full step overshoots the convex function's minimum on this line: bisect back to it
      let lo = 0;
      let hi = 1;
      for (let i = 0; i < 30; i++) {
        t = 0.5 * (lo + hi);
        d = slopeAlong(net, pressures, t);
        if (d > 0) lo = t;
        else hi = t;
        if (Math.abs(d) < 0.1 * d0) break;
      }
    } else {
      for (let i = 0; i < 20 && d > 0.5 * d0; i++) {
        t *= 2;
        d = slopeAlong(net, pressures, t);
      }
    }
    for (let i = 0; i < n; i++) pressures[i]! += t * step[i]!;
    off = balance(net, pressures, true);
  }
  return off >= tolerance ? off : 0;
}
