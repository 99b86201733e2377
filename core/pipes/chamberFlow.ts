import type { PlateSource } from '../conduction/plateSpreading';
import { chamberFlowShape, chamberPressures } from './chamberFlowShape';

/** A die on a chamber and the watts it gives to it per reported watt of either role. */
export interface ChamberSource extends PlateSource {
  perCpu: number;
  perGpu: number;
}

/** What the flows in a chamber ask of the wick under one die. */
export interface ChamberDemand {
  /** Shape S of its own flow. */
  shape: number;
  /**
   * Watts of this die alone that would ask for as much as one reported watt, for each place from where the liquid may have the
   * longest way to it; the place that asks for most counts.
   */
  perCpu: number[];
  perGpu: number[];
}

/** A place on a chamber as shares of its sides. */
export interface ChamberPlace {
  x: number;
  y: number;
}

/**
 * What several dies on one chamber ask of its wick together. Darcy flow is linear: liquid on its way to one die loses pressure
 * to what flows to the others too. Die i dries out where `Σ_j Q_j (p_j(c) − p_j(i))` from the place c of highest pressure
 * reaches what its wick can pump; `S_i = p_i(c_i) − p_i(i)` is its own part, so that `Σ_j Q_j (p_j(c) − p_j(i))/S_i` are watts to
 * hold against those it carries alone.
 *
 * @param sources dies inside the outline
 * @param widthM, lengthM sides of the chamber
 * @param at places that matter, found before by {@link placesOfDemand}; none are needed for a single die
 * @returns one for each die
 * Source: superposition of Darcy flow; checked against finite volumes in the tests.
 */
export function chamberDemands(
  sources: readonly ChamberSource[],
  widthM: number,
  lengthM: number,
  at: readonly ChamberPlace[],
): ChamberDemand[] {
  if (sources.length === 1) {
    const die = sources[0]!;
    const shape = chamberFlowShape(die, widthM, lengthM);
    return [{ shape, perCpu: [die.perCpu], perGpu: [die.perGpu] }];
  }
  const fields = fieldsOf(sources, widthM, lengthM, at);
  return sources.map((own, i) => {
    const middle = at.length + i;
    const falls = (j: number, c: number) => fields[j]![c]! - fields[j]![middle]!;
    let shape = 0;
    at.forEach((_, c) => (shape = Math.max(shape, falls(i, c))));
    // a die as large as its chamber asks nothing of the wick by its own flow, which then carries any of it
    if (!(shape > 0)) return { shape: 0, perCpu: [own.perCpu], perGpu: [own.perGpu] };
    const sum = (role: 'perCpu' | 'perGpu') =>
      at.map((_, c) => sources.reduce((all, s, j) => all + s[role] * falls(j, c), 0) / shape);
    return { shape, perCpu: sum('perCpu'), perGpu: sum('perGpu') };
  });
}

/** Places looked at along each side. */
const GRID = 13;
/** Mixtures of CPU and GPU watts for which the place of highest pressure is sought. */
const MIXTURES = 12;
const AS_HIGH = 1e-3;

/**
 * From where on a chamber the liquid has the longest way to one of its dies, for any mixture of CPU and GPU watts, and for each
 * die's own.
 *
 * @param sources dies inside the outline
 * @param widthM, lengthM sides of the chamber
 * @returns none for a single die, whose longest way comes from a corner
 */
export function placesOfDemand(
  sources: readonly ChamberSource[],
  widthM: number,
  lengthM: number,
): ChamberPlace[] {
  if (sources.length < 2) return [];
  const grid = Array.from({ length: GRID * GRID }, (_, k) => ({
    x: (k % GRID) / (GRID - 1),
    y: Math.floor(k / GRID) / (GRID - 1),
  }));
  const fields = fieldsOf(sources, widthM, lengthM, grid);
  const found = new Set<number>();
  const highest = (of: (c: number) => number) => {
    let best = 0;
    let lowest = Infinity;
    for (let c = 0; c < grid.length; c++) {
      if (of(c) > of(best)) best = c;
      lowest = Math.min(lowest, of(c));
    }
    // a place found before that is as high but for a thousandth does as well
    const enough = of(best) - AS_HIGH * (of(best) - lowest);
    for (const c of found) if (of(c) >= enough) return;
    found.add(best);
  };
  // where the pressure is highest does not depend on the die it is held against
  fields.forEach((field) => highest((c) => field[c]!));
  for (let k = 0; k <= MIXTURES; k++) {
    const cpu = k / MIXTURES;
    const weights = sources.map((s) => cpu * s.perCpu + (1 - cpu) * s.perGpu);
    highest((c) => weights.reduce((sum, w, j) => sum + w * fields[j]![c]!, 0));
  }
  return [...found].sort((a, b) => a - b).map((c) => grid[c]!);
}

/** Pressure of each die's flow at the places and then in the middle of each die. */
function fieldsOf(
  sources: readonly ChamberSource[],
  widthM: number,
  lengthM: number,
  places: readonly ChamberPlace[],
): Float64Array[] {
  const at = [
    ...places.map((c) => ({ xM: c.x * widthM, yM: c.y * lengthM })),
    ...sources.map((s) => ({ xM: s.centreXM, yM: s.centreYM })),
  ];
  return sources.map((s) => chamberPressures(s, widthM, lengthM, at));
}
