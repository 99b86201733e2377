import { skinSpotConductance } from '../conduction/skinSpot';
import { spreadingResistance } from '../conduction/spreading';
import { buildAirSystem, type AirSystem } from '../airflow/airSystem';
import { axialPlaces } from '../pipes/axialProfile';
import { COPPER_WMK, pipeContactResistance } from '../pipes/contactResistance';
import type { CaseData } from '../record/caseData';
import { DEFAULTS } from '../record/defaults';

/** A conductance between two nodes of the network, W/K. */
export interface Link {
  a: number;
  b: number;
  conductanceWK: number;
}

/** Where a pipe touches a plate or stack: links by which heat enters there. */
export interface PipeContact {
  fromM: number;
  toM: number;
  links: Link[];
}

/**
 * A machine as a network: nodes are temperatures above the room. All that does not depend on temperature or fan speed is
 * here, made once.
 */
export interface MachineModel {
  data: CaseData;
  air: AirSystem;
  nodeCount: number;
  nodeNames: string[];
  links: Link[];
  /** Node under each die, and the series resistance from there to what its sensor reads. */
  dieNode: number[];
  dieResistanceKW: number[];
  /** Area of wick under each die on a vapor chamber, else 0. */
  dieEvaporatorM2: number[];
  chamberNode: number[];
  pipeNode: number[];
  pipeContacts: PipeContact[][];
  pipePlaces: number[][];
  stackNode: number[];
  skinNode: number[];
  skinAreaM2: number[];
  shellNode: number;
  intakeNode: number;
  /** Heat into each node per reported watt, by role. */
  heatPerCpuW: Float64Array;
  heatPerGpuW: Float64Array;
  /** Watts drawn from the adapter per reported watt, by role. */
  drawPerCpuW: number;
  drawPerGpuW: number;
  hasCpu: boolean;
  hasGpu: boolean;
}

const AIR_WMK = 0.028;
const SINTERED = {
  permeabilityM2: DEFAULTS['heatPipes.permeability.sintered'].value,
  poreM: DEFAULTS['heatPipes.poreUm.sintered'].value * 1e-6,
  conductivityWmK: DEFAULTS['heatPipes.wickWmK.sintered'].value,
};
/** A chamber's wick is taken as sintered, as nearly all are. */
export const CHAMBER_WICK = SINTERED;

/**
 * Builds the network of a resolved case.
 *
 * @param data a case whose record passed every check
 */
export function buildModel(data: CaseData): MachineModel {
  const nodeNames: string[] = [];
  const node = (name: string) => nodeNames.push(name) - 1;
  const links: Link[] = [];
  const link = (a: number, b: number, conductanceWK: number): Link => {
    const made = { a, b, conductanceWK };
    if (conductanceWK > 0 && a !== b) links.push(made);
    return made;
  };
  const shellNode = node('shell');
  const intakeNode = node('intake');

  // plates: one node for a chamber's vapor, else one zone per die
  const zones = data.plates.map((p) =>
    p.kind === 'vapor-chamber' || p.dies.length === 0
      ? [node(p.id)]
      : p.dies.map((d) => node(`${p.id} under ${data.dies[d]!.id}`)),
  );
  data.plates.forEach((p, i) => {
    const z = zones[i]!;
    if (z.length < 2 || p.kind === 'none') return;
    const side = Math.max(p.widthM, p.lengthM);
    const across = Math.min(p.widthM, p.lengthM);
    const between = (p.conductivityWmK * p.thicknessM * across) / (side / z.length);
    for (let k = 1; k < z.length; k++) link(z[k - 1]!, z[k]!, between);
  });

  const pipeNode = data.pipes.map((p) => node(p.id));
  const stackNode = data.stacks.map((s) => node(s.id));
  const pipesOnPlate = data.plates.map((_, i) => pipesTouching(data, i));
  const pipeContacts = data.pipes.map((p, k) =>
    p.contacts.map((c): PipeContact => {
      const length = c.toM - c.fromM;
      const at = { fromM: c.fromM, toM: c.toM };
      if (c.part.kind === 'stack') {
        const resistance = pipeContactResistance(
          p.solderM2KW,
          p.wallM,
          p.wickThicknessM,
          p.wick.conductivityWmK,
        );
        const area = p.count * p.outerWidthM * Math.min(length, data.stacks[c.part.index]!.widthM);
        return { ...at, links: [link(stackNode[c.part.index]!, pipeNode[k]!, area / resistance)] };
      }
      const plate = data.plates[c.part.index]!;
      const z = zones[c.part.index]!;
      const chamber = plate.kind === 'vapor-chamber';
      const resistance =
        pipeContactResistance(p.solderM2KW, p.wallM, p.wickThicknessM, p.wick.conductivityWmK) +
        (chamber ? plate.wallM / COPPER_WMK + plate.wickM / SINTERED.conductivityWmK : 0);
      const total = pipesOnPlate[c.part.index]!.widthM;
      const sides = plate.dies.map((d) => dieSide(data, d));
      const allSides = sides.reduce((sum, s) => sum + s, 0);
      return {
        ...at,
        links: z.map((zone, i) => {
          const share = chamber || sides.length === 0 ? 1 / z.length : sides[i]! / allSides;
          const reach =
            chamber || sides.length === 0 ? total : evaporatorWidth(data, c.part.index, i);
          const counted = Math.min(1, reach / total);
          const area = p.count * p.outerWidthM * counted * length * share;
          return link(zone, pipeNode[k]!, area / resistance);
        }),
      };
    }),
  );

  // stacks that sit on a plate or chamber
  data.stacks.forEach((s, i) => {
    for (const index of s.plates) {
      const plate = data.plates[index]!;
      const footprint = Math.min(s.widthM * s.fin.depthM, plate.widthM * plate.lengthM);
      const inside =
        plate.kind === 'vapor-chamber'
          ? plate.wallM / COPPER_WMK + plate.wickM / SINTERED.conductivityWmK
          : plate.thicknessM / plate.conductivityWmK;
      const z = zones[index]!;
      for (const zone of z) {
        link(zone, stackNode[i]!, footprint / z.length / (s.plateJointM2KW + inside));
      }
    }
    link(stackNode[i]!, shellNode, (AIR_WMK * s.widthM * s.fin.depthM) / data.shell.plateGapM);
  });

  // skin over each plate
  const skinAreaM2 = data.plates.map((p) =>
    p.kind === 'none'
      ? p.dies.reduce((sum, d) => sum + data.dies[d]!.widthM * data.dies[d]!.lengthM, 0)
      : p.widthM * p.lengthM,
  );
  const skinNode = data.plates.map((p, i) => {
    const area = skinAreaM2[i]!;
    const skin = node(`skin over ${p.id}`);
    const z = zones[i]!;
    for (const zone of z) link(zone, skin, (AIR_WMK * area) / data.shell.plateGapM / z.length);
    link(
      skin,
      shellNode,
      skinSpotConductance(
        area,
        data.shell.sheetConductivityWmK,
        data.shell.sheetThicknessM,
        data.shell.spotCoefficientWm2K,
      ),
    );
    return skin;
  });

  const dieNode: number[] = [];
  const dieResistanceKW: number[] = [];
  const dieEvaporatorM2: number[] = [];
  data.dies.forEach((d, i) => {
    const plateIndex = data.plates.findIndex((p) => p.dies.includes(i));
    const plate = data.plates[plateIndex]!;
    const z = zones[plateIndex]!;
    const zone = z.length === 1 ? z[0]! : z[plate.dies.indexOf(i)]!;
    dieNode.push(zone);
    link(zone, shellNode, data.shell.boardWK);
    const area = d.widthM * d.lengthM;
    let below = 0;
    let evaporator = 0;
    if (plate.kind === 'vapor-chamber') {
      const skirt = 2 * (plate.wallM + plate.wickM);
      evaporator = (d.widthM + skirt) * (d.lengthM + skirt);
      below = (plate.wallM / COPPER_WMK + plate.wickM / SINTERED.conductivityWmK) / evaporator;
    } else if (plate.kind !== 'none') {
      const pipes = pipesOnPlate[plateIndex]!;
      const whole = (plate.widthM * plate.lengthM) / Math.max(1, plate.dies.length);
      const width = evaporatorWidth(data, plateIndex, plate.dies.indexOf(i));
      const touched =
        Math.min(pipes.widthM, width) * (pipes.lengthM / Math.max(1, plate.dies.length));
      const sink = touched > 0 ? Math.max(area, Math.min(whole, touched)) : whole;
      let out = 0;
      for (const l of links) if (l.a === zone || l.b === zone) out += l.conductanceWK;
      below =
        plate.thicknessM / (plate.conductivityWmK * sink) +
        spreadingResistance(
          area,
          sink,
          plate.thicknessM,
          plate.conductivityWmK,
          Math.max(1e-3, out) / sink,
        );
    }
    dieEvaporatorM2.push(evaporator);
    dieResistanceKW.push(d.junctionResistanceKW + below);
  });

  const n = nodeNames.length;
  const heat = { cpu: new Float64Array(n), gpu: new Float64Array(n) };
  const draw = { cpu: 0, gpu: 0 };
  data.dies.forEach((d, i) => {
    const into = heat[d.role];
    into[dieNode[i]!]! += d.roleShare * d.insideShare;
    const beside = d.roleShare * d.outsideShare;
    if (d.outsidePlate >= 0) {
      const z = zones[d.outsidePlate]!;
      for (const zone of z) into[zone]! += beside / z.length;
    } else into[shellNode]! += beside;
    draw[d.role] += d.roleShare * (d.insideShare + d.outsideShare);
  });
  return {
    data,
    air: buildAirSystem(data),
    nodeCount: n,
    nodeNames,
    links,
    dieNode,
    dieResistanceKW,
    dieEvaporatorM2,
    chamberNode: zones.map((z, i) => (data.plates[i]!.kind === 'vapor-chamber' ? z[0]! : -1)),
    pipeNode,
    pipeContacts,
    pipePlaces: pipeContacts.map((c) => axialPlaces(c)),
    stackNode,
    skinNode,
    skinAreaM2,
    shellNode,
    intakeNode,
    heatPerCpuW: heat.cpu,
    heatPerGpuW: heat.gpu,
    drawPerCpuW: draw.cpu,
    drawPerGpuW: draw.gpu,
    hasCpu: data.dies.some((d) => d.role === 'cpu'),
    hasGpu: data.dies.some((d) => d.role === 'gpu'),
  };
}

function dieSide(data: CaseData, die: number): number {
  const d = data.dies[die]!;
  return Math.sqrt(d.widthM * d.lengthM);
}

/** Width across the pipes within which they take up heat: the die and a margin; for pipes on the bare die, the die. */
function evaporatorWidth(data: CaseData, plateIndex: number, dieInPlate: number): number {
  const plate = data.plates[plateIndex]!;
  const die = plate.dies[dieInPlate];
  if (die === undefined) return Infinity;
  const side = dieSide(data, die);
  return plate.kind === 'none' ? side : side + 2 * data.evaporatorMarginM;
}

function pipesTouching(data: CaseData, plateIndex: number): { widthM: number; lengthM: number } {
  let widthM = 0;
  let lengthM = 0;
  for (const p of data.pipes) {
    for (const c of p.contacts) {
      if (c.part.kind !== 'plate' || c.part.index !== plateIndex) continue;
      widthM += p.count * p.outerWidthM;
      lengthM = Math.max(lengthM, c.toM - c.fromM);
    }
  }
  return { widthM, lengthM };
}
