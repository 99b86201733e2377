import { air, emptyAir, type AirProperties } from '../fluids/air';
import type { CaseData } from '../record/caseData';
import type { FanCurve, FanCurveRoom } from './fanCurve';
import { solveFlows, type FanBranch, type FlowNetwork, type PassiveBranch } from './flowNetwork';
import type { PlenumGroups } from './plenums';
import { stackResistance, type StackGeometry } from './stackExchange';

/** Density the losses and fan curves are first written for; solves scale them. */
export const REFERENCE_DENSITY = 1.2;

/**
 * A machine's air paths: room → (gap under the base) → intake vents → plenum → fans → plenum → fin stacks → exhaust vents
 * → room. Fans that share an intake vent share its plenum; fans and stacks that are linked share theirs.
 */
export interface AirSystem {
  nodeCount: number;
  joined: PlenumGroups;
  network: FlowNetwork;
  passive: PassiveBranch[];
  /** Quadratic coefficients at the reference density, per passive branch. */
  quadraticAtReference: number[];
  fanBranch: number[];
  fanBranches: FanBranch[];
  stackBranch: number[];
  stackBranches: PassiveBranch[];
  stacks: StackGeometry[];
  /** Share of what reaches each stack that passes through its fins. */
  keep: number[];
  /** Of each fan, at the reference density: from its coefficients, and as it is used, through points of its own. */
  computedCurves: FanCurveRoom[];
  curves: FanCurve[];
}

/** Flows at one fan state, with the start values for the next solve nearby. */
export interface AirFlows {
  fanM3s: Float64Array;
  /** Through the fins, after leakage. */
  stackM3s: Float64Array;
  intakeDensityKgM3: number;
  pressures: Float64Array;
  /** Sum of the speeds these flows belong to, for the start at other speeds. */
  rpmSum: number;
  /** Greatest imbalance left where the start is near, as a share of the flow. */
  tolerance: number;
  /** Where the start is near: how often the flow's own resistance may be taken anew, and the change below which it is not. */
  nearRounds: number;
  nearChange: number;
  /** Greatest imbalance with which a solve ended at its bound, as a share of the flow; 0 where none did. */
  unsettledShare: number;
}

/** Newton steps square the error, so that this leaves far less than it says. */
const NEAR_TOLERANCE = 1e-7;

/** Flows of a machine at rest, to be solved into. */
export function stillAir(system: AirSystem): AirFlows {
  return {
    fanM3s: new Float64Array(system.fanBranch.length),
    stackM3s: new Float64Array(system.stackBranch.length),
    intakeDensityKgM3: 0,
    pressures: new Float64Array(system.nodeCount),
    rpmSum: 0,
    tolerance: NEAR_TOLERANCE,
    nearRounds: 1,
    nearChange: 1e-9,
    unsettledShare: 0,
  };
}

/** Copies what the next solve starts from. */
export function keepFlows(from: AirFlows, to: AirFlows): void {
  for (let i = 0; i < to.fanM3s.length; i++) to.fanM3s[i] = from.fanM3s[i]!;
  for (let i = 0; i < to.stackM3s.length; i++) to.stackM3s[i] = from.stackM3s[i]!;
  for (let i = 0; i < to.pressures.length; i++) to.pressures[i] = from.pressures[i]!;
  to.rpmSum = from.rpmSum;
}

/** How far beside a flow its resistance is looked at again, and the share of the friction that may be taken to grow with flow. */
const STEP = 1e-3;
const MOST_RISE = 0.9;
const beside = { linear: 0, quadratic: 0 };

/** A stack's pressure drop about a flow by its value and its slope there, so that it still holds at flows nearby. */
function resistanceAbout(
  stack: StackGeometry,
  flowM3s: number,
  film: AirProperties,
  out: { linear: number; quadratic: number },
): void {
  stackResistance(stack, flowM3s, film, out);
  stackResistance(stack, flowM3s * (1 + STEP), film, beside);
  const rises = Math.max(0, Math.min(MOST_RISE * out.linear, (beside.linear - out.linear) / STEP));
  out.linear -= rises;
  out.quadratic += rises / flowM3s;
}

const intakeAir = emptyAir();
const filmAir: AirProperties = emptyAir();
const through = { linear: 0, quadratic: 0 };
const MAX_ROUNDS = 20;

/**
 * Flows at given fan speeds and temperatures.
 *
 * @param system the air paths; its branches are used as working memory
 * @param data the case
 * @param rpms speed of each fan, 0: stopped
 * @param intakeC temperature of the air the fans draw
 * @param filmC mean air temperature in each stack
 * @param flows start values, overwritten by the solution; each flow ≥ 0 through the fins
 * @param near whether the start values are of a solve nearby: then one round is enough, since the caller repeats with new
 *   temperatures until nothing moves
 */
export function solveAirFlows(
  system: AirSystem,
  data: CaseData,
  rpms: ArrayLike<number>,
  intakeC: number,
  filmC: ArrayLike<number>,
  flows: AirFlows,
  near: boolean,
): void {
  const pressure = data.room.pressurePa;
  const density = air(intakeC, pressure, intakeAir).densityKgM3;
  flows.intakeDensityKgM3 = density;
  let rpmSum = 0;
  for (let i = 0; i < rpms.length; i++) rpmSum += rpms[i]!;
  if (rpmSum > 0 && flows.rpmSum > 0 && rpmSum !== flows.rpmSum) {
    // similarity laws: flows follow speed, pressures its square
    const faster = rpmSum / flows.rpmSum;
    for (let i = 0; i < flows.stackM3s.length; i++) flows.stackM3s[i]! *= faster;
    for (let i = 0; i < flows.pressures.length; i++) flows.pressures[i]! *= faster * faster;
  }
  flows.rpmSum = rpmSum;
  if (rpmSum === 0) {
    flows.fanM3s.fill(0);
    flows.stackM3s.fill(0);
    flows.pressures.fill(0);
    return;
  }
  const ratio = density / REFERENCE_DENSITY;
  const { passive, quadraticAtReference, fanBranches, stackBranches, stackBranch, keep } = system;
  for (let k = 0; k < passive.length; k++) passive[k]!.quadratic = quadraticAtReference[k]! * ratio;
  for (let i = 0; i < fanBranches.length; i++) {
    fanBranches[i]!.rpm = rpms[i]!;
    fanBranches[i]!.densityRatio = ratio;
  }
  const { network } = system;
  const { stackM3s } = flows;
  const rounds = near ? flows.nearRounds : MAX_ROUNDS;
  const least = near ? flows.nearChange : 1e-9;
  for (let round = 0; round < rounds; round++) {
    for (let i = 0; i < stackBranches.length; i++) {
      const film = air(filmC[i]!, pressure, filmAir);
      const kept = keep[i]!;
      const q = Math.max(1e-5, stackM3s[i]! / kept || 1e-3);
      // the fins see the warmer, thinner air: same mass flow, more volume
      const swell = (density / film.densityKgM3) * kept;
      resistanceAbout(system.stacks[i]!, q * swell, film, through);
      const b = stackBranches[i]!;
      b.linear = through.linear * swell;
      b.quadratic = through.quadratic * swell * swell;
    }
    const left = solveFlows(network, flows.pressures, near ? flows.tolerance : 1e-11);
    if (left > flows.unsettledShare) flows.unsettledShare = left;
    let change = 0;
    for (let i = 0; i < stackBranch.length; i++) {
      const q = Math.max(0, network.flows[stackBranch[i]!]!) * keep[i]!;
      change = Math.max(change, Math.abs(q - stackM3s[i]!) / (q + 1e-6));
      stackM3s[i] = q;
    }
    if (change < least) break;
  }
  for (let i = 0; i < fanBranches.length; i++) {
    flows.fanM3s[i] = Math.max(0, network.flows[system.fanBranch[i]!]!);
  }
}
