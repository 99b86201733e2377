import { fillAirSystem } from '../airflow/buildAirSystem';
import { skinSpotConductance } from '../conduction/skinSpot';
import { axialProfileInto } from '../pipes/axialProfile';
import { COPPER_WMK, pipeContactResistance } from '../pipes/contactResistance';
import type { CaseData } from '../record/caseData';
import { evaporatorWidth, fillDies, pipesTouching } from './dieResistances';
import type { Link, MachineModel } from './networkModel';

const AIR_WMK = 0.028;
/** Most of the rest of the machine that may leave through pads. */
const MAX_PAD_SHARE = 0.8;

/** Which link is set next. */
let next = 0;

/** Sets the next link; links are always set in the same order, so that only the first time they have to be made. */
function conduct(links: Link[], a: number, b: number, wPerK: number): Link {
  // what has no extent conducts nothing
  const conductanceWPerK = wPerK > 0 ? wPerK : 0;
  const known = links[next++];
  if (known) {
    known.conductanceWPerK = conductanceWPerK;
    return known;
  }
  const made = { a, b, conductanceWPerK };
  links.push(made);
  return made;
}

/**
 * Sets the figures of a model that was built for another case of the same record: what a sampling does for each draw, where making
 * every part anew would take twice as long.
 *
 * @param model overwritten; whatever is wanted of it has to be read before
 * @param data a case of the record that it was built for
 */
export function fillModel(model: MachineModel, data: CaseData): void {
  model.data = data;
  next = 0;
  fillAirSystem(model.air, data);
  fillShares(model, data);
  fillPipes(model, data);
  fillStacks(model, data);
  fillSkin(model, data);
  for (let i = 0; i < model.dieNode.length; i++) {
    conduct(model.links, model.dieNode[i]!, model.shellNode, data.shell.boardWPerK);
  }
  fillPads(model, data);
  fillDies(model, data);
  fillHeat(model, data);
}

/** Resistance of a chamber's wall and wick between its vapor and what touches it, m²K/W; 0 for a plate. */
function chamberInside(data: CaseData, plate: number): number {
  const p = data.plates[plate]!;
  return p.wick ? p.wallM / COPPER_WMK + p.wickM / p.wick.conductivityWmK : 0;
}

/** Each piece of a stack is as wide as its pipes. */
function fillShares({ segments }: MachineModel, { stacks, pipes }: CaseData): void {
  for (let i = 0; i < stacks.length; i++) {
    const { pipeOrder } = stacks[i]!;
    let total = 0;
    for (let k = 0; k < pipeOrder.length; k++) {
      total += pipes[pipeOrder[k]!]!.count * pipes[pipeOrder[k]!]!.outerWidthM;
    }
    for (let k = 0; k < pipeOrder.length; k++) {
      const p = pipes[pipeOrder[k]!]!;
      segments[i]![k]!.share = (p.count * p.outerWidthM) / total;
    }
  }
}

function fillPipes(model: MachineModel, data: CaseData): void {
  const { links, plateNode, pipeNode, segments } = model;
  for (let k = 0; k < data.pipes.length; k++) {
    const p = data.pipes[k]!;
    const own = pipeContactResistance(
      p.solderM2KPerW,
      p.contactWallM,
      p.contactWickM,
      p.wick.conductivityWmK,
    );
    const contacts = model.pipeContacts[k]!;
    for (let j = 0; j < contacts.length; j++) {
      const { part, fromM, toM } = p.contacts[j]!;
      const contact = contacts[j]!;
      const length = toM - fromM;
      contact.fromM = fromM;
      contact.toM = toM;
      if (part.kind === 'stack') {
        const s = data.stacks[part.index]!;
        const segment = segments[part.index]![s.pipeOrder.indexOf(k)]!;
        contact.areaM2 = p.count * p.outerWidthM * Math.min(length, s.widthM);
        contact.link = conduct(links, segment.node, pipeNode[k]!, contact.areaM2 / own);
        continue;
      }
      const resistance = own + chamberInside(data, part.index);
      // a pipe takes up heat only as far across as dies and their margin reach
      const reach = evaporatorWidth(data, part.index);
      const counted = Math.min(1, reach / pipesTouching(data, part.index).widthM);
      contact.areaM2 = p.count * p.outerWidthM * counted * length;
      contact.link = conduct(
        links,
        plateNode[part.index]!,
        pipeNode[k]!,
        contact.areaM2 / resistance,
      );
    }
    axialProfileInto(contacts, p.count, model.pipeProfiles[k]!);
  }
}

function fillStacks(model: MachineModel, data: CaseData): void {
  const { links, plateNode, shellNode } = model;
  for (let i = 0; i < data.stacks.length; i++) {
    const s = data.stacks[i]!;
    const own = model.segments[i]!;
    for (let j = 0; j < s.plates.length; j++) {
      const index = s.plates[j]!;
      const plate = data.plates[index]!;
      const footprint = Math.min(s.widthM * s.fin.depthM, plate.widthM * plate.lengthM);
      const inside =
        plate.kind === 'vapor-chamber'
          ? chamberInside(data, index)
          : plate.thicknessM / plate.conductivityWmK;
      for (let k = 0; k < own.length; k++) {
        const g = own[k]!;
        const conductance = (g.share * footprint) / (s.plateJointM2KPerW + inside);
        conduct(links, plateNode[index]!, g.node, conductance);
      }
    }
    const gap = (AIR_WMK * s.widthM * s.fin.depthM) / data.shell.plateGapM;
    for (let k = 0; k < own.length; k++) {
      conduct(links, own[k]!.node, shellNode, own[k]!.share * gap);
    }
    // the fins themselves lead heat from one pipe's piece to the next
    for (let k = 1; k < own.length; k++) {
      const apart = 0.5 * (own[k - 1]!.share + own[k]!.share) * s.fin.depthM;
      const section = s.passages * s.fin.thicknessM * s.fin.heightM;
      const conductance = (s.fin.conductivityWmK * section) / apart;
      conduct(links, own[k - 1]!.node, own[k]!.node, conductance);
    }
  }
}

function spotConductance({ shell }: CaseData, areaM2: number): number {
  return skinSpotConductance(
    areaM2,
    shell.sheetConductivityWmK,
    shell.sheetThicknessM,
    shell.spotCoefficientWm2K,
  );
}

/** The spots of the shell over the plates; those under pads are set with them, and no air passes there. */
function fillSkin(model: MachineModel, data: CaseData): void {
  const { links, plateNode, skinNode, skinAreaM2, shellNode } = model;
  for (let i = 0; i < data.plates.length; i++) {
    const p = data.plates[i]!;
    let areaM2 = p.kind === 'none' ? 0 : p.widthM * p.lengthM;
    if (p.kind === 'none') {
      for (const d of p.dies) areaM2 += data.dies[d]!.widthM * data.dies[d]!.lengthM;
    }
    skinAreaM2[i] = areaM2;
    conduct(links, plateNode[i]!, skinNode[i]!, (AIR_WMK * areaM2) / data.shell.plateGapM);
    conduct(links, skinNode[i]!, shellNode, spotConductance(data, areaM2));
  }
}

function fillPads(model: MachineModel, data: CaseData): void {
  const { links, plateNode, skinNode, shellNode, padHeatW } = model;
  const availableW = MAX_PAD_SHARE * data.power.restW * (1 - data.power.restLidShare);
  padHeatW.fill(0);
  let padTotalW = 0;
  for (let i = 0; i < data.pads.length; i++) {
    const pad = data.pads[i]!;
    const spot = model.skinPads[i]!;
    const to = spot >= 0 ? skinNode[spot]! : pad.toPlate < 0 ? shellNode : plateNode[pad.toPlate]!;
    const from = pad.fromPlate >= 0 ? plateNode[pad.fromPlate]! : to;
    if (from !== to) conduct(links, from, to, pad.conductanceWPerK);
    // the skin under a pad is warmer than the shell around it
    if (spot >= 0) conduct(links, to, shellNode, spotConductance(data, pad.areaM2));
    const watts = Math.min(pad.sourceW, availableW - padTotalW);
    padHeatW[to]! += watts;
    padTotalW += watts;
  }
  model.padTotalW = padTotalW;
}

/** Where each reported watt goes, and what it takes from the adapter. */
function fillHeat(model: MachineModel, data: CaseData): void {
  const { plateNode, shellNode, dieNode, heatPerCpuW, heatPerGpuW } = model;
  heatPerCpuW.fill(0);
  heatPerGpuW.fill(0);
  let cpu = 0;
  let gpu = 0;
  for (let i = 0; i < data.dies.length; i++) {
    const d = data.dies[i]!;
    const into = d.role === 'cpu' ? heatPerCpuW : heatPerGpuW;
    into[dieNode[i]!]! += d.roleShare * d.insideShare;
    into[d.outsidePlate >= 0 ? plateNode[d.outsidePlate]! : shellNode]! +=
      d.roleShare * d.outsideShare;
    const drawn = d.roleShare * (d.insideShare + d.outsideShare);
    if (d.role === 'cpu') cpu += drawn;
    else gpu += drawn;
  }
  model.drawPerCpuW = cpu;
  model.drawPerGpuW = gpu;
}
