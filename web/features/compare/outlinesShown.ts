import type { Cap } from '@zugluft/core/envelope/fanStates';
import { bandAt, type Row } from './comparedFigures';

/** More lines in one drawing are not told apart. */
export const MAX_OUTLINES = 4;

/**
 * Machines whose envelopes lie over each other: those that the address names, else the first of the ranking.
 *
 * @param text ids with commas between them; null where nobody chose
 * @returns rows in the order of the comparison, at most `MAX_OUTLINES`
 */
export function outlinesShown(rows: readonly Row[], text: string | null, cap: Cap): Row[] {
  const ranked = [...rows].sort((a, b) => (bandAt(b, cap)?.p50 ?? 0) - (bandAt(a, cap)?.p50 ?? 0));
  const asked = new Set(text === null ? ranked.map((r) => r.id) : text.split(','));
  const known = [...asked].filter((id) => rows.some((r) => r.id === id));
  const shown = new Set(known.slice(0, MAX_OUTLINES));
  return rows.filter((r) => shown.has(r.id));
}

/** The same for the address, once a machine is taken in or left out. */
export function outlinesText(shown: readonly Row[], id: string): string {
  const ids = shown.map((r) => r.id);
  return (ids.includes(id) ? ids.filter((own) => own !== id) : [...ids, id]).join(',');
}
