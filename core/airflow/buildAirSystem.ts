import { createSpreadingFin, spreadingFin } from '../conduction/fin';
import { air, emptyAir } from '../fluids/air';
import type { CaseData, StackData, VentData } from '../record/caseData';
import { REFERENCE_DENSITY, type AirSystem } from './airSystem';
import { gapResistance, rimAreaM2 } from './baseGap';
import { emptyFanCurve, fanCurveFromCoefficients } from './fanCurve';
import { fanCurveFromPoints } from './fanCurveFromPoints';
import { flowNetwork, type FanBranch, type FlowBranch, type PassiveBranch } from './flowNetwork';
import { exhaustGrilleLoss, intakeGrilleLoss, meshLoss } from './openings';
import { plenumGroups } from './plenums';
import { ductOf } from './rectangularDuct';
import { stackFaceLoss, type StackGeometry } from './stackExchange';

/** The room, and the gap under the base. */
const ROOM = -1;
const UNDER = 0;

/**
 * Builds the air paths of a case.
 *
 * @param data a resolved case
 * @param like the air paths of another case of the same record, whose plan of elimination is taken over
 */
export function buildAirSystem(data: CaseData, like?: AirSystem): AirSystem {
  const system = layOutAir(data, like);
  fillAirSystem(system, data);
  return system;
}

/** Branches and nodes without figures; resistances stand in the order in which {@link fillAirSystem} sets them. */
function layOutAir(data: CaseData, like?: AirSystem): AirSystem {
  const { fans, stacks, vents } = data;
  const joined = like?.joined ?? plenumGroups(data);
  const { inGroups, linked, outGroups } = joined;
  const intakeNode = (fan: number) => 1 + inGroups.groupOf[fan]!;
  const outletNode = (i: number) => 1 + inGroups.groups + linked.groupOf[i]!;
  const exhaustNode = (stack: number) =>
    1 + inGroups.groups + linked.groups + outGroups.groupOf[stack]!;
  const branches: FlowBranch[] = [];
  const passives: PassiveBranch[] = [];
  const passive = (from: number, to: number): number => {
    const branch: PassiveBranch = { kind: 'passive', from, to, linear: 0, quadratic: 0 };
    passives.push(branch);
    return branches.push(branch) - 1;
  };
  passive(ROOM, UNDER);
  for (const x of vents) {
    if (x.flow === 'intake') passive(x.side === 'base' ? UNDER : ROOM, intakeNode(x.fans[0]!));
  }
  fans.forEach((f, i) => {
    if (f.ownIntake) passive(UNDER, intakeNode(i));
  });
  const computedCurves = fans.map(emptyFanCurve);
  const fanBranch = fans.map((_, i) => {
    const branch: FanBranch = {
      kind: 'fan',
      from: intakeNode(i),
      to: outletNode(i),
      curve: computedCurves[i]!,
      rpm: 0,
      densityRatio: 1,
    };
    return branches.push(branch) - 1;
  });
  const stackBranch = stacks.map((_, i) => passive(outletNode(fans.length + i), exhaustNode(i)));
  for (const x of vents) {
    if (x.flow === 'exhaust') passive(exhaustNode(x.stacks[0]!), x.side === 'base' ? UNDER : ROOM);
  }
  stacks.forEach((s, i) => {
    if (s.ownExhaust) passive(exhaustNode(i), ROOM);
  });
  const nodeCount = 1 + inGroups.groups + linked.groups + outGroups.groups;
  return {
    nodeCount,
    joined,
    network: flowNetwork(nodeCount, branches, like?.network),
    passive: passives,
    quadraticAtReference: passives.map(() => 0),
    fanBranch,
    fanBranches: fanBranch.map((k) => branches[k] as FanBranch),
    stackBranch,
    stackBranches: stackBranch.map((k) => branches[k] as PassiveBranch),
    stacks: stacks.map(geometryOf),
    keep: stacks.map(() => 1),
    computedCurves,
    curves: [...computedCurves],
  };
}

const geometryOf = (s: StackData): StackGeometry => ({
  passages: s.passages,
  duct: ductOf(s.gapM, s.fin.heightM, s.fin.depthM),
  fin: s.fin,
  openShare: s.openShare,
  spreading: createSpreadingFin(),
  faceLoss: 0,
});

const roomAir = emptyAir();
const NO_GAP = { linear: 0, turnPerM4: 0 };

/**
 * Sets the figures of air paths that were built for another case of the same record.
 *
 * @param system overwritten
 * @param data a case of the record that it was built for
 */
export function fillAirSystem(system: AirSystem, data: CaseData): void {
  const { fans, stacks, vents } = data;
  const { gap } = data.shell;
  const { viscosityPaS } = air(data.room.temperatureC, data.room.pressurePa, roomAir);
  let inBase = 0;
  for (let i = 0; i < vents.length; i++) if (vents[i]!.inBase) inBase++;
  for (let i = 0; i < fans.length; i++) if (fans[i]!.ownIntake?.inBase) inBase++;
  let k = 0;
  resist(system, k++, gap.rimLoss, rimAreaM2(gap), NO_GAP);
  for (let i = 0; i < vents.length; i++) {
    const x = vents[i]!;
    if (x.flow !== 'intake') continue;
    resistVent(system, k++, data, x, intakeGrilleLoss(x.openShare), inBase, viscosityPaS);
  }
  for (let i = 0; i < fans.length; i++) {
    const own = fans[i]!.ownIntake;
    if (!own) continue;
    const before = own.inBase ? gapResistance(own.inBase, gap, inBase, viscosityPaS) : NO_GAP;
    resist(system, k++, intakeGrilleLoss(own.openShare), own.areaM2, before);
  }
  for (let i = 0; i < fans.length; i++) fillFan(system, data, i);
  for (let i = 0; i < stacks.length; i++) {
    fillStack(system.stacks[i]!, stacks[i]!);
    system.keep[i] = (1 - data.air.leakage) * (1 - stacks[i]!.extraLeakage);
    // what the fins resist follows their flow, and is set where that is solved
    resist(system, k++, 0, 1, NO_GAP);
  }
  for (let i = 0; i < vents.length; i++) {
    const x = vents[i]!;
    if (x.flow !== 'exhaust') continue;
    resistVent(system, k++, data, x, exhaustGrilleLoss(x.openShare), inBase, viscosityPaS);
  }
  for (let i = 0; i < stacks.length; i++) {
    const own = stacks[i]!.ownExhaust;
    if (own) resist(system, k++, exhaustGrilleLoss(own.openShare), own.areaM2, NO_GAP);
  }
}

/** Sets one resistance. */
function resist(
  { passive, quadraticAtReference }: AirSystem,
  k: number,
  loss: number,
  areaM2: number,
  gap: { linear: number; turnPerM4: number },
): void {
  const quadratic = 0.5 * REFERENCE_DENSITY * (loss / (areaM2 * areaM2) + gap.turnPerM4);
  const branch = passive[k]!;
  branch.linear = gap.linear;
  branch.quadratic = quadratic;
  quadraticAtReference[k] = quadratic;
}

/** Sets a vent with its grille, its mesh, and the gap under the base where it lies there, with `inBase` openings in all. */
function resistVent(
  system: AirSystem,
  k: number,
  data: CaseData,
  x: VentData,
  grilleLoss: number,
  inBase: number,
  viscosityPaS: number,
): void {
  const under = x.inBase ? gapResistance(x.inBase, data.shell.gap, inBase, viscosityPaS) : NO_GAP;
  resist(system, k, grilleLoss + meshShareLoss(x), ventArea(data, x), under);
}

function fillFan(system: AirSystem, data: CaseData, i: number): void {
  const f = data.fans[i]!;
  const computed = system.computedCurves[i]!;
  fanCurveFromCoefficients(
    { impellerDiameterM: f.diameterM, bladeHeightM: f.bladeHeightM },
    f.maxRpm,
    f.psi,
    f.phi,
    f.curveExponent,
    REFERENCE_DENSITY,
    computed,
  );
  const curve = f.points.length ? fanCurveFromPoints(f.points, computed) : computed;
  system.curves[i] = curve;
  system.fanBranches[i]!.curve = curve;
}

function fillStack(stack: StackGeometry, s: StackData): void {
  stack.passages = s.passages;
  stack.duct = ductOf(s.gapM, s.fin.heightM, s.fin.depthM);
  stack.fin = s.fin;
  stack.openShare = s.openShare;
  spreadingFin(s.fin, s.contactDepthM, stack.spreading);
  stack.faceLoss = stackFaceLoss(s.openShare, s.lintShare);
}

function ventArea(data: CaseData, x: VentData): number {
  return x.side === 'deck' ? x.areaM2 * data.room.lidClosedDeckVentShare : x.areaM2;
}

function meshShareLoss(x: VentData): number {
  return x.meshOpenShare === null ? 0 : meshLoss(x.meshOpenShare) / (x.openShare * x.openShare);
}
