import { buildAirSystem } from '../airflow/airSystem';
import { skinSpotConductance } from '../conduction/skinSpot';
import { axialIntegral, axialFlow, axialPlaces } from '../pipes/axialProfile';
import { COPPER_WMK, pipeContactResistance } from '../pipes/contactResistance';
import type { CaseData } from '../record/caseData';
import { dieResistances, evaporatorWidth, pipesTouching } from './dieResistances';
import { planElimination, type EliminationPlan } from '../numerics/elimination';
import type { Link, MachineModel, PipeContact, PipeProfile, Segment } from './networkModel';

const AIR_WMK = 0.028;
/** Most of the rest of the machine that may leave through pads. */
const MAX_PAD_SHARE = 0.8;

/**
 * Builds the network of a resolved case.
 *
 * @param data a case whose record passed every check
 * @param like a model of the same record, whose plan of elimination is taken over
 */
export function buildModel(data: CaseData, like?: MachineModel): MachineModel {
  const nodeNames: string[] = [];
  const node = (...words: string[]) => nodeNames.push(like ? '' : words.join(' ')) - 1;
  const links: Link[] = [];
  const link = (a: number, b: number, conductanceWPerK: number): Link => {
    const made = { a, b, conductanceWPerK };
    if (conductanceWPerK > 0 && a !== b) links.push(made);
    return made;
  };
  const skinPads = data.pads.filter((p) => p.fromPlate >= 0 && p.toPlate < 0);
  const skinNode = [...data.plates, ...skinPads].map((p) => node('skin over', p.id));
  const segments = data.stacks.map((s) => makeSegments(data, s, node));
  const pipeNode = data.pipes.map((p) => node(p.id));
  const plateNode = data.plates.map((p) => node(p.id));
  const shellNode = node('shell');
  const intakeNode = node('intake');

  const chamberInside = (i: number) => {
    const p = data.plates[i]!;
    return p.wick ? p.wallM / COPPER_WMK + p.wickM / p.wick.conductivityWmK : 0;
  };
  const touching = data.plates.map((_, i) => pipesTouching(data, i));
  const pipeContacts = data.pipes.map((p, k) =>
    p.contacts.map((c): PipeContact => {
      const { fromM, toM } = c;
      const length = toM - fromM;
      const own = pipeContactResistance(
        p.solderM2KPerW,
        p.contactWallM,
        p.contactWickM,
        p.wick.conductivityWmK,
      );
      if (c.part.kind === 'stack') {
        const s = data.stacks[c.part.index]!;
        const segment = segments[c.part.index]![s.pipeOrder.indexOf(k)]!;
        const areaM2 = p.count * p.outerWidthM * Math.min(length, s.widthM);
        return { fromM, toM, areaM2, link: link(segment.node, pipeNode[k]!, areaM2 / own) };
      }
      const resistance = own + chamberInside(c.part.index);
      // a pipe takes up heat only as far across as dies and their margin reach
      const reach = evaporatorWidth(data, c.part.index);
      const counted = Math.min(1, reach / touching[c.part.index]!.widthM);
      const areaM2 = p.count * p.outerWidthM * counted * length;
      return {
        fromM,
        toM,
        areaM2,
        link: link(plateNode[c.part.index]!, pipeNode[k]!, areaM2 / resistance),
      };
    }),
  );

  data.stacks.forEach((s, i) => {
    const own = segments[i]!;
    for (const index of s.plates) {
      const plate = data.plates[index]!;
      const footprint = Math.min(s.widthM * s.fin.depthM, plate.widthM * plate.lengthM);
      const inside =
        plate.kind === 'vapor-chamber'
          ? chamberInside(index)
          : plate.thicknessM / plate.conductivityWmK;
      for (const g of own) {
        link(plateNode[index]!, g.node, (g.share * footprint) / (s.plateJointM2KPerW + inside));
      }
    }
    const gap = (AIR_WMK * s.widthM * s.fin.depthM) / data.shell.plateGapM;
    for (const g of own) link(g.node, shellNode, g.share * gap);
    // the fins themselves lead heat from one pipe's piece to the next
    for (let k = 1; k < own.length; k++) {
      const apart = 0.5 * (own[k - 1]!.share + own[k]!.share) * s.fin.depthM;
      const section = s.passages * s.fin.thicknessM * s.fin.heightM;
      link(own[k - 1]!.node, own[k]!.node, (s.fin.conductivityWmK * section) / apart);
    }
  });

  const skinAreaM2 = [
    ...data.plates.map((p) =>
      p.kind === 'none'
        ? p.dies.reduce((sum, d) => sum + data.dies[d]!.widthM * data.dies[d]!.lengthM, 0)
        : p.widthM * p.lengthM,
    ),
    // no air passes between a pad and the shell
    ...skinPads.map(() => 0),
  ];
  const { shell } = data;
  const spotConductance = (areaM2: number) =>
    skinSpotConductance(
      areaM2,
      shell.sheetConductivityWmK,
      shell.sheetThicknessM,
      shell.spotCoefficientWm2K,
    );
  data.plates.forEach((_, i) => {
    const area = skinAreaM2[i]!;
    link(plateNode[i]!, skinNode[i]!, (AIR_WMK * area) / shell.plateGapM);
    link(skinNode[i]!, shellNode, spotConductance(area));
  });
  const diePlate = data.dies.map((_, i) => data.plates.findIndex((p) => p.dies.includes(i)));
  const dieNode = diePlate.map((p) => plateNode[p]!);
  for (const at of dieNode) link(at, shellNode, shell.boardWPerK);

  const n = nodeNames.length;
  const padHeatW = new Float64Array(n);
  let padTotalW = 0;
  const availableW = MAX_PAD_SHARE * data.power.restW * (1 - data.power.restLidShare);
  for (const pad of data.pads) {
    const spot = skinPads.indexOf(pad);
    const to =
      spot >= 0
        ? skinNode[data.plates.length + spot]!
        : pad.toPlate < 0
          ? shellNode
          : plateNode[pad.toPlate]!;
    if (pad.fromPlate >= 0) link(plateNode[pad.fromPlate]!, to, pad.conductanceWPerK);
    // the skin under a pad is warmer than the shell around it
    if (spot >= 0) link(to, shellNode, spotConductance(pad.areaM2));
    const watts = Math.min(pad.sourceW, availableW - padTotalW);
    padHeatW[to]! += watts;
    padTotalW += watts;
  }

  const dies = dieResistances(data, diePlate, plateNode, links, touching, like?.chamberPlaces);
  const heat = { cpu: new Float64Array(n), gpu: new Float64Array(n) };
  const draw = { cpu: 0, gpu: 0 };
  data.dies.forEach((d, i) => {
    const into = heat[d.role];
    into[dieNode[i]!]! += d.roleShare * d.insideShare;
    into[d.outsidePlate >= 0 ? plateNode[d.outsidePlate]! : shellNode]! +=
      d.roleShare * d.outsideShare;
    draw[d.role] += d.roleShare * (d.insideShare + d.outsideShare);
  });
  return {
    data,
    air: buildAirSystem(data, like?.air),
    nodeCount: n,
    nodeNames,
    links,
    plan: like?.plan ?? planOf(n, links, segments, [shellNode, ...skinNode], intakeNode),
    dieNode,
    diePlate,
    ...dies,
    plateNode,
    pipeNode,
    pipeContacts,
    pipeProfiles: pipeContacts.map((c, k) => pipeProfile(c, data.pipes[k]!.count)),
    segments,
    skinNode,
    skinPart: [...data.plates, ...skinPads].map((p) => p.id),
    skinAreaM2,
    shellNode,
    intakeNode,
    heatPerCpuW: heat.cpu,
    heatPerGpuW: heat.gpu,
    padHeatW,
    padTotalW,
    drawPerCpuW: draw.cpu,
    drawPerGpuW: draw.gpu,
    hasCpu: data.dies.some((d) => d.role === 'cpu'),
    hasGpu: data.dies.some((d) => d.role === 'gpu'),
  };
}

function makeSegments(
  data: CaseData,
  stack: CaseData['stacks'][number],
  node: (...words: string[]) => number,
): Segment[] {
  if (stack.pipeOrder.length === 0) return [{ node: node(stack.id), share: 1 }];
  const widths = stack.pipeOrder.map((k) => data.pipes[k]!.count * data.pipes[k]!.outerWidthM);
  const total = widths.reduce((sum, w) => sum + w, 0);
  return stack.pipeOrder.map((k, i) => ({
    node: node(stack.id, 'at', data.pipes[k]!.id),
    share: widths[i]! / total,
  }));
}

/** Where the matrix may be non-zero: links, air passing from piece to piece and back to the intake, air along the shell. */
function planOf(
  n: number,
  links: readonly Link[],
  segments: readonly Segment[][],
  swept: readonly number[],
  intakeNode: number,
): EliminationPlan {
  const pattern = new Uint8Array(n * n);
  const both = (a: number, b: number) => {
    pattern[a * n + b] = 1;
    pattern[b * n + a] = 1;
  };
  for (let i = 0; i < n; i++) pattern[i * n + i] = 1;
  for (const l of links) both(l.a, l.b);
  for (const node of swept) both(node, intakeNode);
  for (const own of segments) {
    own.forEach((s, k) => {
      both(s.node, intakeNode);
      for (let j = 0; j < k; j++) pattern[s.node * n + own[j]!.node] = 1;
    });
  }
  return planElimination(n, pattern);
}

function pipeProfile(contacts: readonly PipeContact[], count: number): PipeProfile {
  const at = axialPlaces(contacts);
  const m = contacts.length;
  const places = at.length;
  const integral = new Float64Array(places * m);
  const flow = new Float64Array(places * m);
  const perHeat = 1 / count;
  const unit = [{ fromM: 0, toM: 0, watts: perHeat }];
  let first = Infinity;
  let last = -Infinity;
  for (let i = 0; i < places; i++) {
    first = Math.min(first, at[i]!);
    last = Math.max(last, at[i]!);
  }
  for (let j = 0; j < m; j++) {
    unit[0]!.fromM = contacts[j]!.fromM;
    unit[0]!.toM = contacts[j]!.toM;
    for (let i = 0; i < places; i++) {
      integral[i * m + j] = axialIntegral(unit, at[i]!);
      flow[i * m + j] = axialFlow(unit, at[i]!);
    }
  }
  return { places, perHeat, spanM: places ? last - first : 0, integral, flow };
}
