import { spreadingFin } from '../conduction/fin';
import { air, emptyAir, type AirProperties } from '../fluids/air';
import type { CaseData, VentData } from '../record/caseData';
import { gapResistance, rimAreaM2, type BaseOpening } from './baseGap';
import { groupByLinks } from './components';
import { fanCurveFromCoefficients, type FanCurve } from './fanCurve';
import { fanCurveFromPoints } from './fanCurveFromPoints';
import {
  flowNetwork,
  solveFlows,
  type FanBranch,
  type FlowBranch,
  type FlowNetwork,
  type PassiveBranch,
} from './flowNetwork';
import { exhaustGrilleLoss, intakeGrilleLoss, meshLoss } from './openings';
import { ductOf } from './rectangularDuct';
import { stackFaceLoss, stackResistance, type StackGeometry } from './stackExchange';

/** Density the losses and fan curves are first written for; solves scale them. */
const REFERENCE_DENSITY = 1.2;

/**
 * A machine's air paths: room → (gap under the base) → intake vents → plenum → fans → plenum → fin stacks → exhaust vents
 * → room. Fans that share an intake vent share its plenum; fans and stacks that are linked share theirs.
 */
export interface AirSystem {
  nodeCount: number;
  joined: ReturnType<typeof joinedBy>;
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

const NO_GAP = { linear: 0, turnPerM4: 0 };

/** What shares a plenum: fans by their intake vents, fans and stacks by their links, stacks by their exhaust vents. */
const joinedBy = (data: CaseData, intakes: readonly VentData[], exhausts: readonly VentData[]) => ({
  inGroups: groupByLinks(
    data.fans.length,
    intakes.map((x) => x.fans),
  ),
  linked: groupByLinks(
    data.fans.length + data.stacks.length,
    data.stacks.map((s, i) => [data.fans.length + i, ...s.fans]),
  ),
  outGroups: groupByLinks(
    data.stacks.length,
    exhausts.map((x) => x.stacks),
  ),
});

/**
 * Builds the air paths of a case.
 *
 * @param data a resolved case
 * @param like the air paths of another case of the same record, whose plan of elimination is taken over
 */
export function buildAirSystem(data: CaseData, like?: AirSystem): AirSystem {
  const { fans, stacks, vents } = data;
  const intakes = vents.filter((x) => x.flow === 'intake');
  const exhausts = vents.filter((x) => x.flow === 'exhaust');
  const joined = like?.joined ?? joinedBy(data, intakes, exhausts);
  const { inGroups, linked, outGroups } = joined;
  const UNDER = 0;
  const intakeNode = (fan: number) => 1 + inGroups.groupOf[fan]!;
  const outletNode = (i: number) => 1 + inGroups.groups + linked.groupOf[i]!;
  const exhaustNode = (stack: number) =>
    1 + inGroups.groups + linked.groups + outGroups.groupOf[stack]!;
  const branches: FlowBranch[] = [];
  const passives: PassiveBranch[] = [];
  const quadraticAtReference: number[] = [];
  const half = 0.5 * REFERENCE_DENSITY;
  const passive = (
    from: number,
    to: number,
    loss: number,
    areaM2: number,
    gap: { linear: number; turnPerM4: number } = NO_GAP,
  ): number => {
    const quadratic = half * (loss / (areaM2 * areaM2) + gap.turnPerM4);
    const branch: PassiveBranch = { kind: 'passive', from, to, linear: gap.linear, quadratic };
    quadraticAtReference.push(quadratic);
    passives.push(branch);
    return branches.push(branch) - 1;
  };
  const { gap } = data.shell;
  passive(-1, UNDER, gap.rimLoss, rimAreaM2(gap));
  const inBase = [
    ...vents.map((x) => x.inBase),
    ...fans.map((f) => f.ownIntake?.inBase ?? null),
  ].filter((x) => x !== null);
  const { viscosityPaS } = air(data.room.temperatureC, data.room.pressurePa, emptyAir());
  const under = (opening: BaseOpening | null) =>
    opening ? gapResistance(opening, gap, inBase.length, viscosityPaS) : NO_GAP;
  for (const x of intakes) {
    passive(
      x.side === 'base' ? UNDER : -1,
      intakeNode(x.fans[0]!),
      intakeLoss(x),
      ventArea(data, x),
      under(x.inBase),
    );
  }
  fans.forEach((f, i) => {
    if (f.ownIntake) {
      passive(
        UNDER,
        intakeNode(i),
        intakeGrilleLoss(f.ownIntake.openShare),
        f.ownIntake.areaM2,
        under(f.ownIntake.inBase),
      );
    }
  });
  const curves = fans.map((f) => {
    const computed = fanCurveFromCoefficients(
      { impellerDiameterM: f.diameterM, bladeHeightM: f.bladeHeightM },
      f.maxRpm,
      f.psi,
      f.phi,
      f.curveExponent,
      REFERENCE_DENSITY,
    );
    return f.points.length ? fanCurveFromPoints(f.points, computed) : computed;
  });
  const fanBranch = fans.map((_, i) => {
    const branch: FanBranch = {
      kind: 'fan',
      from: intakeNode(i),
      to: outletNode(i),
      curve: curves[i]!,
      rpm: 0,
      densityRatio: 1,
    };
    return branches.push(branch) - 1;
  });
  const stackBranch = stacks.map((_, i) =>
    passive(outletNode(fans.length + i), exhaustNode(i), 0, 1),
  );
  for (const x of exhausts) {
    const loss = exhaustGrilleLoss(x.openShare) + meshShareLoss(x);
    const to = x.side === 'base' ? UNDER : -1;
    passive(exhaustNode(x.stacks[0]!), to, loss, ventArea(data, x), under(x.inBase));
  }
  stacks.forEach((s, i) => {
    if (s.ownExhaust) {
      passive(exhaustNode(i), -1, exhaustGrilleLoss(s.ownExhaust.openShare), s.ownExhaust.areaM2);
    }
  });
  const nodeCount = 1 + inGroups.groups + linked.groups + outGroups.groups;
  return {
    nodeCount,
    joined,
    network: flowNetwork(nodeCount, branches, like?.network),
    passive: passives,
    quadraticAtReference,
    fanBranch,
    fanBranches: fanBranch.map((k) => branches[k] as FanBranch),
    stackBranch,
    stackBranches: stackBranch.map((k) => branches[k] as PassiveBranch),
    stacks: stacks.map((s) => ({
      passages: s.passages,
      duct: ductOf(s.gapM, s.fin.heightM, s.fin.depthM),
      fin: s.fin,
      openShare: s.openShare,
      spreading: spreadingFin(s.fin, s.contactDepthM),
      faceLoss: stackFaceLoss(s.openShare, s.lintShare),
    })),
    keep: stacks.map((s) => (1 - data.air.leakage) * (1 - s.extraLeakage)),
    curves,
  };
}

function ventArea(data: CaseData, x: VentData): number {
  return x.side === 'deck' ? x.areaM2 * data.room.lidClosedDeckVentShare : x.areaM2;
}

function meshShareLoss(x: VentData): number {
  return x.meshOpenShare === null ? 0 : meshLoss(x.meshOpenShare) / (x.openShare * x.openShare);
}

function intakeLoss(x: VentData): number {
  return intakeGrilleLoss(x.openShare) + meshShareLoss(x);
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
