import { air } from '../fluids/air';
import type { CaseData, VentData } from '../record/caseData';
import { groupByLinks } from './components';
import { fanCurveFromCoefficients, fanCurveFromPoints, type FanCurve } from './fanCurve';
import { solveFlows, type FanBranch, type FlowBranch, type PassiveBranch } from './flowNetwork';
import { exhaustGrilleLoss, intakeGrilleLoss, meshLoss } from './openings';
import { stackResistance, type StackGeometry } from './stackExchange';

/** Density the losses and fan curves are first written for; solves scale them. */
const REFERENCE_DENSITY = 1.2;

/**
 * A machine's air paths: room → (gap under the base) → intake vents → plenum → fans → plenum → fin stacks → exhaust vents
 * → room. Fans that share an intake vent share its plenum; fans and stacks that are linked share theirs.
 */
export interface AirSystem {
  nodeCount: number;
  branches: FlowBranch[];
  /** Quadratic coefficients at the reference density, per branch. */
  quadraticAtReference: number[];
  fanBranch: number[];
  stackBranch: number[];
  stacks: StackGeometry[];
  curves: FanCurve[];
}

/** Flows at one fan state, with the start values for the next solve nearby. */
export interface AirFlows {
  fanM3s: number[];
  /** Through the fins, after leakage. */
  stackM3s: number[];
  intakeDensityKgM3: number;
  pressures: Float64Array;
}

/**
 * Builds the air paths of a case.
 *
 * @param data a resolved case
 */
export function buildAirSystem(data: CaseData): AirSystem {
  const { fans, stacks, vents } = data;
  const intakes = vents.filter((x) => x.flow === 'intake');
  const exhausts = vents.filter((x) => x.flow === 'exhaust');
  const inGroups = groupByLinks(
    fans.length,
    intakes.map((x) => x.fans),
  );
  const linked = groupByLinks(
    fans.length + stacks.length,
    stacks.map((s, i) => [fans.length + i, ...s.fans]),
  );
  const outGroups = groupByLinks(
    stacks.length,
    exhausts.map((x) => x.stacks),
  );
  const UNDER = 0;
  const intakeNode = (fan: number) => 1 + inGroups.groupOf[fan]!;
  const outletNode = (i: number) => 1 + inGroups.groups + linked.groupOf[i]!;
  const exhaustNode = (stack: number) =>
    1 + inGroups.groups + linked.groups + outGroups.groupOf[stack]!;
  const branches: FlowBranch[] = [];
  const quadraticAtReference: number[] = [];
  const half = 0.5 * REFERENCE_DENSITY;
  const passive = (from: number, to: number, loss: number, areaM2: number): number => {
    const quadratic = (loss * half) / (areaM2 * areaM2);
    const branch: PassiveBranch = { kind: 'passive', from, to, linear: 0, quadratic };
    quadraticAtReference.push(quadratic);
    return branches.push(branch) - 1;
  };
  passive(-1, UNDER, data.shell.gapLoss, data.shell.gapAreaM2);
  for (const x of intakes) {
    passive(
      x.side === 'base' ? UNDER : -1,
      intakeNode(x.fans[0]!),
      intakeLoss(x),
      ventArea(data, x),
    );
  }
  fans.forEach((f, i) => {
    if (f.ownIntake) {
      passive(UNDER, intakeNode(i), intakeGrilleLoss(f.ownIntake.openShare), f.ownIntake.areaM2);
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
    quadraticAtReference.push(0);
    return branches.push(branch) - 1;
  });
  const stackBranch = stacks.map((_, i) =>
    passive(outletNode(fans.length + i), exhaustNode(i), 0, 1),
  );
  for (const x of exhausts) {
    const loss = exhaustGrilleLoss(x.openShare) + meshShareLoss(x);
    passive(exhaustNode(x.stacks[0]!), x.side === 'base' ? UNDER : -1, loss, ventArea(data, x));
  }
  stacks.forEach((s, i) => {
    if (s.ownExhaust) {
      passive(exhaustNode(i), -1, exhaustGrilleLoss(s.ownExhaust.openShare), s.ownExhaust.areaM2);
    }
  });
  return {
    nodeCount: 1 + inGroups.groups + linked.groups + outGroups.groups,
    branches,
    quadraticAtReference,
    fanBranch,
    stackBranch,
    stacks: stacks.map((s) => ({
      passages: s.passages,
      duct: { gapM: s.gapM, heightM: s.fin.heightM, lengthM: s.fin.depthM },
      fin: s.fin,
      openShare: s.openShare,
      contactDepthM: s.contactDepthM,
    })),
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

/**
 * Flows at given fan speeds and temperatures.
 *
 * @param system the air paths; its branches are used as working memory
 * @param data the case
 * @param rpms speed of each fan, 0: stopped
 * @param intakeC temperature of the air the fans draw
 * @param filmC mean air temperature in each stack
 * @param start pressures of a solve nearby, or undefined
 * @returns flows, each ≥ 0 through the fins
 */
export function solveAirFlows(
  system: AirSystem,
  data: CaseData,
  rpms: readonly number[],
  intakeC: number,
  filmC: readonly number[],
  start?: AirFlows,
): AirFlows {
  const intake = air(intakeC, data.room.pressurePa);
  const ratio = intake.densityKgM3 / REFERENCE_DENSITY;
  const pressures = start ? start.pressures.slice() : new Float64Array(system.nodeCount);
  const stackM3s = system.stacks.map((_, i) => start?.stackM3s[i] ?? 0);
  if (!rpms.some((x) => x > 0)) {
    return {
      fanM3s: rpms.map(() => 0),
      stackM3s: stackM3s.map(() => 0),
      intakeDensityKgM3: intake.densityKgM3,
      pressures: new Float64Array(system.nodeCount),
    };
  }
  const { branches } = system;
  for (let k = 0; k < branches.length; k++) {
    const b = branches[k]!;
    if (b.kind === 'passive') b.quadratic = system.quadraticAtReference[k]! * ratio;
    else b.densityRatio = ratio;
  }
  system.fanBranch.forEach((k, i) => {
    (branches[k] as FanBranch).rpm = rpms[i]!;
  });
  const films = filmC.map((c) => air(c, data.room.pressurePa));
  const keep = 1 - data.air.leakage;
  let flows: Float64Array = new Float64Array(branches.length);
  // near a known solution one round is enough: the caller repeats with new temperatures until nothing moves
  const rounds = start ? 1 : 20;
  for (let round = 0; round < rounds; round++) {
    system.stackBranch.forEach((k, i) => {
      const film = films[i]!;
      const q = Math.max(1e-5, stackM3s[i]! / keep || 1e-3);
      // the fins see the warmer, thinner air: same mass flow, more volume
      const swell = intake.densityKgM3 / film.densityKgM3;
      const through = stackResistance(system.stacks[i]!, q * keep * swell, film);
      const b = branches[k] as PassiveBranch;
      b.linear = through.linear * keep * swell;
      b.quadratic = through.quadratic * (keep * swell) ** 2;
    });
    flows = solveFlows(system.nodeCount, branches, pressures);
    let change = 0;
    system.stackBranch.forEach((k, i) => {
      const q = Math.max(0, flows[k]!) * keep;
      change = Math.max(change, Math.abs(q - stackM3s[i]!) / (q + 1e-6));
      stackM3s[i] = q;
    });
    if (change < 1e-9) break;
  }
  return {
    fanM3s: system.fanBranch.map((k) => Math.max(0, flows[k]!)),
    stackM3s,
    intakeDensityKgM3: intake.densityKgM3,
    pressures,
  };
}
