import { plateSpreading } from '../conduction/plateSpreading';
import { spreadingResistance } from '../conduction/spreading';
import { COPPER_WMK } from '../pipes/contactResistance';
import type { CaseData } from '../record/caseData';
import type { Link, MachineModel } from './networkModel';

/** What lies between each die's sensor and its plate's node. */
export function dieResistances(
  data: CaseData,
  diePlate: readonly number[],
  plateNode: readonly number[],
  links: readonly Link[],
  touching: readonly { widthM: number; lengthM: number }[],
): Pick<MachineModel, 'dieBeyondCpuKPerW' | 'dieBeyondGpuKPerW' | 'dieSteps' | 'dieEvaporatorM2'> {
  const count = data.dies.length;
  const coupling = new Float64Array(count * count);
  const dieEvaporatorM2 = data.dies.map(() => 0);
  data.plates.forEach((plate, p) => {
    if (plate.kind === 'none') return;
    let out = 0;
    for (const l of links)
      if (l.a === plateNode[p] || l.b === plateNode[p]) out += l.conductanceWPerK;
    const whole = plate.widthM * plate.lengthM;
    const { wick } = plate;
    if (wick) {
      for (const i of plate.dies) {
        const d = data.dies[i]!;
        const skirt = 2 * (plate.wallM + plate.wickM);
        const area = Math.min(whole, (d.widthM + skirt) * (d.lengthM + skirt));
        dieEvaporatorM2[i] = area;
        coupling[i * count + i] =
          (plate.wallM / COPPER_WMK + plate.wickM / wick.conductivityWmK) / area;
      }
      return;
    }
    if (plate.dies.length === 1) {
      const i = plate.dies[0]!;
      const area = data.dies[i]!.widthM * data.dies[i]!.lengthM;
      // heat leaves only where pipes lie over the die and its margin
      const pipes = touching[p]!;
      const touched = Math.min(pipes.widthM, evaporatorWidth(data, p)) * pipes.lengthM;
      const sink = touched > 0 ? Math.max(area, Math.min(whole, touched)) : whole;
      coupling[i * count + i] =
        plate.thicknessM / (plate.conductivityWmK * sink) +
        spreadingResistance(
          area,
          sink,
          plate.thicknessM,
          plate.conductivityWmK,
          Math.max(1e-3, out) / sink,
        );
      return;
    }
    const matrix = plateSpreading(
      plate.dies.map((i, k) => sourceOn(plate, k, data.dies[i]!)),
      plate.widthM,
      plate.lengthM,
      plate.thicknessM,
      plate.conductivityWmK,
      Math.max(1e-3, out) / whole,
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

/** A die as a source on its plate, moved inside where it was recorded over the rim. */
function sourceOn(plate: CaseData['plates'][number], place: number, die: CaseData['dies'][number]) {
  const widthM = Math.min(die.widthM, plate.widthM);
  const lengthM = Math.min(die.lengthM, plate.lengthM);
  const inside = (centre: number, size: number, side: number) =>
    Math.min(side - size / 2, Math.max(size / 2, centre));
  return {
    centreXM: inside(plate.centres[place]!.xM, widthM, plate.widthM),
    centreYM: inside(plate.centres[place]!.yM, lengthM, plate.lengthM),
    widthM,
    lengthM,
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
