import type { ComparedMachine, ComparedWatts } from '@zugluft/core/compare/compareMachines';
import { leastLevel, type QuietFor } from '@zugluft/core/library/quietFor';
import type { Cap } from '@zugluft/core/envelope/fanStates';

/** A machine of a comparison as the page shows it. */
export interface Row extends ComparedMachine {
  id: string;
  isCalibrated: boolean;
  /** As recorded; null where it is not. */
  massKg: number | null;
  thicknessMm: number | null;
  /** Out of ten, by the laboratory's rubric; null where nothing could be judged. */
  serviceScore: number | null;
}

/** Watts of a machine at a cap; undefined where the comparison has none there. */
export const bandAt = (row: ComparedMachine, cap: Cap): ComparedWatts | undefined =>
  row.at.find((a) => a.cap === cap);

/** Figures beside the watts, each with its words and digits. */
export const BESIDE = [
  ['wattsPerDb', 'more W for a dB', 2],
  ['wattsPerKg', 'W for a kg', 1],
  ['wattsPerMm', 'W for a mm', 2],
  ['finAreaCm2', 'fin area, cm²', 0],
  ['sweptCm2', 'swept by fans, cm²', 1],
  ['pipeSectionMm2', 'pipe section, mm²', 1],
  ['serviceScore', 'service score, of 10', 1],
] as const;

/** What can be laid off on an axis. */
export const AXES = [
  ['watts', 'watts', 0] as const,
  ...BESIDE,
  ['thicknessMm', 'thickness, mm', 1] as const,
  ['massKg', 'mass, kg', 2] as const,
];

export type AxisId = (typeof AXES)[number][0];

/** An axis by the word of the address. */
export const axisIn = (text: string | null, otherwise: AxisId): AxisId =>
  AXES.find(([id]) => id === text)?.[0] ?? otherwise;

/** A figure of a machine; null where its record does not tell it. */
export const figureOf = (row: Row, axis: AxisId, cap: Cap): number | null =>
  axis === 'watts' ? (bandAt(row, cap)?.p50 ?? null) : row[axis];

export interface ScatterPoint {
  name: string;
  x: number;
  y: number;
  /** 5 and 95 % of what stands on either axis; null where it has no band. */
  xBand: [number, number] | null;
  yBand: [number, number] | null;
}

/** Machines by two of their figures; those that lack one are left out. */
export function scatterOf(rows: readonly Row[], x: AxisId, y: AxisId, cap: Cap): ScatterPoint[] {
  return rows.flatMap((row) => {
    const [at, up] = [figureOf(row, x, cap), figureOf(row, y, cap)];
    if (at === null || up === null) return [];
    const band = bandAt(row, cap);
    const of = (axis: AxisId): [number, number] | null =>
      axis === 'watts' && band ? [band.p05, band.p95] : null;
    return [{ name: row.name, x: at, y: up, xBand: of(x), yBand: of(y) }];
  });
}

/** Medians over the levels, from the quietest; caps that are no levels have no place on such an axis. */
export const levelCurve = (row: ComparedMachine): [number, number][] =>
  row.at
    .flatMap(({ cap, p50 }): [number, number][] => (typeof cap === 'number' ? [[cap, p50]] : []))
    .sort((a, b) => a[0] - b[0]);

/** Watts of a machine that its level's end needs: the quiet end is where the upper end of the watts is enough. */
const WATTS_OF = { p05: 'p95', p50: 'p50', p95: 'p05' } as const;

/**
 * Least level at which a machine sustains some watts, of the levels that are compared.
 *
 * @param end of the level's band
 */
export function quietOf(
  row: ComparedMachine,
  watts: number,
  end: keyof typeof WATTS_OF = 'p50',
): QuietFor | null {
  const points = row.at
    .flatMap((a) =>
      typeof a.cap === 'number' ? [{ levelDbA: a.cap, watts: a[WATTS_OF[end]] }] : [],
    )
    .sort((a, b) => a.levelDbA - b.levelDbA);
  return leastLevel(points, watts);
}

/** The same as a number that sorts: at most the quietest level before it, out of reach last. */
export function quietOrder(row: ComparedMachine, watts: number): number {
  const found = quietOf(row, watts);
  if (!found) return Infinity;
  return found.holds === 'at-most' ? found.levelDbA - 1 : found.levelDbA;
}
