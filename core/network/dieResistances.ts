import { plateSpreading, type PlateSource } from '../conduction/plateSpreading';
import {
  chamberDemands,
  placesOfDemand,
  type ChamberDemand,
  type ChamberPlace,
} from '../pipes/chamberFlow';
import { COPPER_WMK } from '../pipes/contactResistance';
import type { CaseData } from '../record/caseData';
import type { Link, MachineModel } from './networkModel';

/**
 * What lies between each die's sensor and its plate's node, and what the dies of a chamber ask of its wick.
 *
 * @param likePlaces places of each chamber's wick that matter, of a model of the same record
 */
export function dieResistances(
  data: CaseData,
  diePlate: readonly number[],
  plateNode: readonly number[],
  links: readonly Link[],
  touching: readonly { widthM: number; lengthM: number }[],
  likePlaces?: readonly ChamberPlace[][],
): Pick<
  MachineModel,
  | 'dieBeyondCpuKPerW'
  | 'dieBeyondGpuKPerW'
  | 'dieSteps'
  | 'dieEvaporatorM2'
  | 'dieDemand'
  | 'chamberPlaces'
> {
  const count = data.dies.length;
  const coupling = new Float64Array(count * count);
  const dieEvaporatorM2 = data.dies.map(() => 0);
  const dieDemand: (ChamberDemand | null)[] = data.dies.map(() => null);
  const chamberPlaces: ChamberPlace[][] = data.plates.map(() => []);
  data.plates.forEach((plate, p) => {
    if (plate.kind === 'none') return;
    let out = 0;
    for (const l of links)
      if (l.a === plateNode[p] || l.b === plateNode[p]) out += l.conductanceWPerK;
    const { wick } = plate;
    if (wick) {
      const whole = plate.widthM * plate.lengthM;
      const skirt = 2 * (plate.wallM + plate.wickM);
      const sources = plate.dies.map((i, k) => {
        const d = data.dies[i]!;
        const wetted = { widthM: d.widthM + skirt, lengthM: d.lengthM + skirt };
        const area = Math.min(whole, wetted.widthM * wetted.lengthM);
        dieEvaporatorM2[i] = area;
        coupling[i * count + i] =
          (plate.wallM / COPPER_WMK + plate.wickM / wick.conductivityWmK) / area;
        const inside = d.roleShare * d.insideShare;
        return {
          ...sourceWithin(wetted, plate.centres[k]!, plate.widthM, plate.lengthM),
          perCpu: d.role === 'cpu' ? inside : 0,
          perGpu: d.role === 'gpu' ? inside : 0,
        };
      });
      if (!sources.length) return;
      const places = likePlaces?.[p] ?? placesOfDemand(sources, plate.widthM, plate.lengthM);
      chamberPlaces[p] = places;
      chamberDemands(sources, plate.widthM, plate.lengthM, places).forEach(
        (demand, k) => (dieDemand[plate.dies[k]!] = demand),
      );
      return;
    }
    const sink = sinkOf(data, p, touching[p]!);
    const matrix = plateSpreading(
      sink.sources,
      sink.widthM,
      sink.lengthM,
      plate.thicknessM,
      plate.conductivityWmK,
      Math.max(1e-3, out) / (sink.widthM * sink.lengthM),
    );
    plate.dies.forEach((i, a) =>
      plate.dies.forEach((j, b) => {
        coupling[i * count + j] = matrix[a * plate.dies.length + b]!;
      }),
    );
  });
  const beyond = (role: 'cpu' | 'gpu') =>
    data.dies.map((d, i) => {
      let sum = d.role === role ? d.junctionResistanceKPerW * d.roleShare * d.insideShare : 0;
      data.dies.forEach((x, j) => {
        if (x.role === role) sum += coupling[i * count + j]! * x.roleShare * x.insideShare;
      });
      return sum;
    });
  return {
    dieBeyondCpuKPerW: beyond('cpu'),
    dieBeyondGpuKPerW: beyond('gpu'),
    dieEvaporatorM2,
    dieDemand,
    chamberPlaces,
    dieSteps: data.dies.map((d, i) => {
      const hot =
        d.junctionResistanceKPerW /
        Math.max(1e-12, d.resistances.dieKPerW + d.resistances.interfaceKPerW);
      return {
        dieKPerW: hot * d.resistances.dieKPerW,
        interfaceKPerW: hot * d.resistances.interfaceKPerW,
        plateKPerW: diePlate[i]! >= 0 ? coupling[i * count + i]! : 0,
      };
    }),
  };
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
  const dies = plate.dies.map((i) => data.dies[i]!);
  const none = !(pipes.widthM > 0);
  // pipes run along the side that they touch most of
  const alongX = Math.abs(pipes.lengthM - plate.widthM) <= Math.abs(pipes.lengthM - plate.lengthM);
  const [alongSide, acrossSide] = alongX
    ? [plate.widthM, plate.lengthM]
    : [plate.lengthM, plate.widthM];
  const ends = dies.map((d, k) => {
    const centre = alongX ? plate.centres[k]!.yM : plate.centres[k]!.xM;
    const half = 0.5 * (alongX ? d.lengthM : d.widthM);
    return { from: centre - half, to: centre + half };
  });
  const from = Math.min(...ends.map((e) => e.from));
  const to = Math.max(...ends.map((e) => e.to));
  const touched = Math.min(pipes.widthM, evaporatorWidth(data, plateIndex));
  // where a die stands beside them its heat has that far to go
  const reach = Math.max(
    ...dies.map((d, k) => {
      const centre = alongX ? plate.centres[k]!.xM : plate.centres[k]!.yM;
      return Math.abs(centre - 0.5 * alongSide) + 0.5 * (alongX ? d.widthM : d.lengthM);
    }),
  );
  const along = none ? alongSide : Math.min(alongSide, Math.max(pipes.lengthM, 2 * reach));
  const across = none
    ? acrossSide
    : Math.min(acrossSide, Math.max(touched, to - from + 2 * plate.thicknessM));
  // pipes lie over the dies, in the middle of the plate where they leave a choice
  const middle = 0.5 * (from + to);
  const fromAlong = 0.5 * (alongSide - along);
  const fromAcross = Math.min(acrossSide - across, Math.max(0, middle - 0.5 * across));
  const [fromX, fromY] = alongX ? [fromAlong, fromAcross] : [fromAcross, fromAlong];
  const [sinkX, sinkY] = alongX ? [along, across] : [across, along];
  return {
    widthM: sinkX,
    lengthM: sinkY,
    sources: dies.map((d, k) => {
      const { xM, yM } = plate.centres[k]!;
      return sourceWithin(d, { xM: xM - fromX, yM: yM - fromY }, sinkX, sinkY);
    }),
  };
}

/** A die as a source on a rectangle, moved inside where it reaches over its rim. */
function sourceWithin(
  die: { widthM: number; lengthM: number },
  centre: { xM: number; yM: number },
  sideXM: number,
  sideYM: number,
): PlateSource {
  const widthM = Math.min(die.widthM, sideXM);
  const lengthM = Math.min(die.lengthM, sideYM);
  const inside = (at: number, size: number, side: number) =>
    Math.min(side - size / 2, Math.max(size / 2, at));
  return {
    widthM,
    lengthM,
    centreXM: inside(centre.xM, widthM, sideXM),
    centreYM: inside(centre.yM, lengthM, sideYM),
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
