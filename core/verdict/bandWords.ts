import { wattsText } from '../case/answerWords';

/** Median and 5–95 % band. */
export interface Band3 {
  p05: number;
  p50: number;
  p95: number;
}

/** Half the band over the median below which a figure is said without “about”, and up to which it is more than a rough one (common practice, no source). */
const NARROW = 0.1;
const MIDDLING = 0.25;

/** Half the band over the median; Infinity at no watts. */
export const halfShare = ({ p05, p50, p95 }: Band3): number =>
  p50 > 0 ? (p95 - p05) / 2 / p50 : Infinity;

/** What stands before a figure so that it says no more than its band: nothing, “about ” or “roughly ”. */
export function hedge(band: Band3): '' | 'about ' | 'roughly ' {
  const half = halfShare(band);
  if (half <= NARROW) return '';
  return half <= MIDDLING ? 'about ' : 'roughly ';
}

/** “88 to 98”. */
export const bandText = ({ p05, p95 }: Band3): string => `${wattsText(p05)} to ${wattsText(p95)}`;
