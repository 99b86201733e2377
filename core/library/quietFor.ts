import { wattsColumn, type MachineSummary } from './answers';

/** The level at which a machine of the list sustains some watts: where the watts it has at the caps say it lies. */
export interface QuietFor {
  /** dB(A); of the quietest cap where it lies at or below that, of the loudest one where it lies above. */
  levelDbA: number;
  /** Fans off hold the watts; the level is at most this; it is this; it is louder than this. */
  holds: 'off' | 'at-most' | 'at' | 'above';
}

/** Which watts of the band are asked for: a level's quiet end is where the upper end of the watts is enough. */
type End = 'p05' | 'p50' | 'p95';
const WATTS_OF: Record<End, '' | 'P05' | 'P95'> = { p05: 'P95', p50: '', p95: 'P05' };

/** Column of the list with the least level for some watts, by which it is sorted. */
export type QuietColumn = `quietFor${number}W`;
export const quietColumn = (watts: number): QuietColumn => `quietFor${watts}W`;
const QUIET_COLUMN = /^quietFor(\d+(?:\.\d+)?)W$/;

/** The watts that a column of the list is about, or null where it is another one. */
export function wattsOfQuietColumn(column: string): number | null {
  const match = QUIET_COLUMN.exec(column);
  return match ? Number(match[1]) : null;
}

const ROW_LEVEL = /^togetherAt(\d+(?:\.\d+)?)W$/;

/**
 * Least level at which a row of the list sustains some watts, straight between the caps that it has watts for. Watts never
 * fall with the level, so that the median of the level is where the median of the watts is enough, and likewise both ends.
 *
 * @param row of the list
 * @param watts both dies together
 * @param end of the level's band
 * @returns null where they are reached at no level, or are not known (yet)
 */
export function quietFor(row: MachineSummary, watts: number, end: End = 'p50'): QuietFor | null {
  const suffix = WATTS_OF[end];
  const at = (column: string) => (row as unknown as Record<string, number | null>)[column] ?? null;
  const off = at(`${wattsColumn('off')}${suffix}`);
  const full = at(`${wattsColumn('full')}${suffix}`);
  const points = Object.keys(row)
    .flatMap((key) => {
      const match = ROW_LEVEL.exec(key);
      const w = match && at(`${key}${suffix}`);
      return match && w !== null ? [{ levelDbA: Number(match[1]), watts: w }] : [];
    })
    .sort((a, b) => a.levelDbA - b.levelDbA);
  return leastLevel(points, watts, { off, full });
}

/**
 * Least level at which some watts are sustained, straight between levels whose watts are known and never fall.
 *
 * @param points from the quietest level, in dB(A) and W
 * @param beyond watts with the fans off and at full speed, where they are known
 * @returns null where no level reaches them, or none is known
 */
export function leastLevel(
  points: readonly { levelDbA: number; watts: number }[],
  watts: number,
  { off = null, full = null }: { off?: number | null; full?: number | null } = {},
): QuietFor | null {
  const [first] = points;
  const last = points[points.length - 1];
  if (!first || !last) return null;
  if (off !== null && off >= watts) return { levelDbA: first.levelDbA, holds: 'off' };
  if (first.watts >= watts) return { levelDbA: first.levelDbA, holds: 'at-most' };
  for (let i = 1; i < points.length; i++) {
    const a = points[i - 1]!;
    const b = points[i]!;
    if (b.watts < watts) continue;
    const t = (watts - a.watts) / (b.watts - a.watts);
    return { levelDbA: a.levelDbA + t * (b.levelDbA - a.levelDbA), holds: 'at' };
  }
  return full !== null && full >= watts ? { levelDbA: last.levelDbA, holds: 'above' } : null;
}

/** A row's value in a column: stored, or a least level as a number that sorts; null where there is none. */
export function valueInColumn(row: MachineSummary, column: string): unknown {
  const watts = wattsOfQuietColumn(column);
  if (watts === null) return (row as unknown as Record<string, unknown>)[column] ?? null;
  const found = quietFor(row, watts);
  if (!found) return null;
  // what is known to lie beyond the caps stands beyond them
  return found.levelDbA + { off: -2, 'at-most': -1, at: 0, above: 1 }[found.holds];
}
