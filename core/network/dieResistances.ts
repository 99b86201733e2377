import { plateSpreading, type PlateSource } from '../conduction/plateSpreading';
import { chamberDemands, placesOfDemand } from '../pipes/chamberFlow';
import { COPPER_WMK } from '../pipes/contactResistance';
import type { CaseData, DieData } from '../record/caseData';
import type { MachineModel } from './networkModel';

/**
 * Sets what lies between each die's sensor and its plate's node, and what the dies of a chamber ask of its wick; its links have to
 * be set before.
 */
export function fillDies(model: MachineModel, data: CaseData): void {
  const { dieCoupling: coupling, diePlate, dieSteps } = model;
  const count = data.dies.length;
  coupling.fill(0);
  for (let p = 0; p < data.plates.length; p++) {
    const { kind, wick } = data.plates[p]!;
    if (kind === 'none') continue;
    if (wick) fillChamber(model, data, p, wick.conductivityWmK);
    else fillPlate(model, data, p);
  }
  for (let i = 0; i < count; i++) {
    const d = data.dies[i]!;
    model.dieBeyondCpuKPerW[i] = beyond(data, coupling, i, 'cpu');
    model.dieBeyondGpuKPerW[i] = beyond(data, coupling, i, 'gpu');
    const { dieKPerW, interfaceKPerW } = d.resistances;
    const hot = d.junctionResistanceKPerW / Math.max(1e-12, dieKPerW + interfaceKPerW);
    const steps = dieSteps[i]!;
    steps.dieKPerW = hot * dieKPerW;
    steps.interfaceKPerW = hot * interfaceKPerW;
    steps.plateKPerW = diePlate[i]! >= 0 ? coupling[i * count + i]! : 0;
  }
}

/** What a die's sensor reads beyond its plate's node per reported watt of a role. */
function beyond(data: CaseData, coupling: Float64Array, i: number, role: DieData['role']): number {
  const { dies } = data;
  const d = dies[i]!;
  let sum = d.role === role ? d.junctionResistanceKPerW * d.roleShare * d.insideShare : 0;
  for (let j = 0; j < dies.length; j++) {
    const x = dies[j]!;
    if (x.role === role) sum += coupling[i * dies.length + j]! * x.roleShare * x.insideShare;
  }
  return sum;
}

/** A chamber takes heat through wall and wick under each die, and dries out under all of them together. */
function fillChamber(model: MachineModel, data: CaseData, p: number, wickWmK: number): void {
  const plate = data.plates[p]!;
  const whole = plate.widthM * plate.lengthM;
  const skirt = 2 * (plate.wallM + plate.wickM);
  const sources = plate.dies.map((i, k) => {
    const d = data.dies[i]!;
    const wetted = { widthM: d.widthM + skirt, lengthM: d.lengthM + skirt };
    const area = Math.min(whole, wetted.widthM * wetted.lengthM);
    model.dieEvaporatorM2[i] = area;
    model.dieCoupling[i * data.dies.length + i] =
      (plate.wallM / COPPER_WMK + plate.wickM / wickWmK) / area;
    const inside = d.roleShare * d.insideShare;
    return {
      ...sourceWithin(
        wetted,
        plate.centres[k]!.xM,
        plate.centres[k]!.yM,
        plate.widthM,
        plate.lengthM,
      ),
      perCpu: d.role === 'cpu' ? inside : 0,
      perGpu: d.role === 'gpu' ? inside : 0,
    };
  });
  if (!sources.length) return;
  const places = (model.chamberPlaces[p] ??= placesOfDemand(sources, plate.widthM, plate.lengthM));
  const demands = chamberDemands(sources, plate.widthM, plate.lengthM, places);
  for (let k = 0; k < demands.length; k++) model.dieDemand[plate.dies[k]!] = demands[k]!;
}

/** A plate spreads what its dies give to it, the more the better it is cooled. */
function fillPlate(model: MachineModel, data: CaseData, p: number): void {
  const { links, plateNode, dieCoupling } = model;
  const plate = data.plates[p]!;
  let out = 0;
  for (let l = 0; l < links.length; l++) {
    const link = links[l]!;
    if (link.a === plateNode[p] || link.b === plateNode[p]) out += link.conductanceWPerK;
  }
  const sink = sinkOf(data, p, pipesTouching(data, p));
  const matrix = plateSpreading(
    sink.sources,
    sink.widthM,
    sink.lengthM,
    plate.thicknessM,
    plate.conductivityWmK,
    Math.max(1e-3, out) / (sink.widthM * sink.lengthM),
  );
  const { dies } = plate;
  for (let a = 0; a < dies.length; a++) {
    for (let b = 0; b < dies.length; b++) {
      dieCoupling[dies[a]! * data.dies.length + dies[b]!] = matrix[a * dies.length + b]!;
    }
  }
}

/**
 * The part of a plate that gives off heat, with its dies: as long as the pipes on it, as wide as they lie over the dies and their
 * margin, but no narrower than the dies and the plate's thickness on each side, from where heat still finds its way.
 * Without pipes all of it. Dies stand where they were recorded, moved inside where they reach over its rim.
 *
 * Against three-dimensional conduction a die's resistance is within 10 % where pipes are at least as wide as the dies (tests); it
 * comes out up to 15 % too high where they are half as wide.
 */
function sinkOf(
  data: CaseData,
  plateIndex: number,
  pipes: { widthM: number; lengthM: number },
): { widthM: number; lengthM: number; sources: PlateSource[] } {
  const plate = data.plates[plateIndex]!;
  const { dies, centres } = plate;
  const none = !(pipes.widthM > 0);
  // pipes run along the side that they touch most of
  const alongX = Math.abs(pipes.lengthM - plate.widthM) <= Math.abs(pipes.lengthM - plate.lengthM);
  const alongSide = alongX ? plate.widthM : plate.lengthM;
  const acrossSide = alongX ? plate.lengthM : plate.widthM;
  let from = Infinity;
  let to = -Infinity;
  // where a die stands beside the pipes its heat has that far to go
  let reach = -Infinity;
  for (let k = 0; k < dies.length; k++) {
    const d = data.dies[dies[k]!]!;
    const { xM, yM } = centres[k]!;
    const half = 0.5 * (alongX ? d.lengthM : d.widthM);
    from = Math.min(from, (alongX ? yM : xM) - half);
    to = Math.max(to, (alongX ? yM : xM) + half);
    const away = Math.abs((alongX ? xM : yM) - 0.5 * alongSide);
    reach = Math.max(reach, away + 0.5 * (alongX ? d.widthM : d.lengthM));
  }
  const touched = Math.min(pipes.widthM, evaporatorWidth(data, plateIndex));
  const along = none ? alongSide : Math.min(alongSide, Math.max(pipes.lengthM, 2 * reach));
  const across = none
    ? acrossSide
    : Math.min(acrossSide, Math.max(touched, to - from + 2 * plate.thicknessM));
  // pipes lie over the dies, in the middle of the plate where they leave a choice
  const middle = 0.5 * (from + to);
  const fromAlong = 0.5 * (alongSide - along);
  const fromAcross = Math.min(acrossSide - across, Math.max(0, middle - 0.5 * across));
  const widthM = alongX ? along : across;
  const lengthM = alongX ? across : along;
  const sources: PlateSource[] = [];
  for (let k = 0; k < dies.length; k++) {
    const x = centres[k]!.xM - (alongX ? fromAlong : fromAcross);
    const y = centres[k]!.yM - (alongX ? fromAcross : fromAlong);
    sources.push(sourceWithin(data.dies[dies[k]!]!, x, y, widthM, lengthM));
  }
  return { widthM, lengthM, sources };
}

/** A die as a source on a rectangle, moved inside where it reaches over its rim. */
function sourceWithin(
  die: { widthM: number; lengthM: number },
  centreXM: number,
  centreYM: number,
  sideXM: number,
  sideYM: number,
): PlateSource {
  const widthM = Math.min(die.widthM, sideXM);
  const lengthM = Math.min(die.lengthM, sideYM);
  return {
    widthM,
    lengthM,
    centreXM: Math.min(sideXM - widthM / 2, Math.max(widthM / 2, centreXM)),
    centreYM: Math.min(sideYM - lengthM / 2, Math.max(lengthM / 2, centreYM)),
  };
}

/** Width across the pipes within which they take up heat: the dies and a margin; for pipes on the bare die, the die. */
export function evaporatorWidth(data: CaseData, plateIndex: number): number {
  const plate = data.plates[plateIndex]!;
  if (plate.kind === 'vapor-chamber' || plate.dies.length === 0) return Infinity;
  let widest = 0;
  for (const i of plate.dies) {
    const d = data.dies[i]!;
    widest = Math.max(widest, Math.sqrt(d.widthM * d.lengthM));
  }
  return plate.kind === 'none' ? widest : widest + 2 * data.evaporatorMarginM;
}

export function pipesTouching(
  data: CaseData,
  plateIndex: number,
): { widthM: number; lengthM: number } {
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
