import { readFigure } from '@zugluft/core/record/readFigure';

/** More than any notebook has. */
export const MOST_WANTED_W = 10_000;

/** Watts that somebody needs, as they are typed, such as “80”, “62,5 W”, “~80”; null where there are none, or none that can be. */
export function wattsWanted(text: string | null): number | null {
  if (text === null || text.trim() === '') return null;
  const read = readFigure(text, 'W');
  const watts = typeof read === 'object' ? Math.round(100 * read.value) / 100 : NaN;
  return watts > 0 && watts < MOST_WANTED_W ? watts : null;
}
