import { readFigure } from './readFigure';

/** Neither part is more than this many times the other. */
const MOST_APART = 1000;

/**
 * A typed ratio of CPU to GPU watts: two figures above 0, apart by a colon, a slash, “to” or a space.
 *
 * @param text as typed
 * @returns both parts, or null where it is none
 * @example readRatio('45:60') // { cpu: 45, gpu: 60 }
 */
export function readRatio(text: string): { cpu: number; gpu: number } | null {
  const typed = text.trim();
  const strong = /:|\/|\bto\b/;
  const parts = typed.split(strong.test(typed) ? strong : /\s+/).map((p) => p.trim());
  if (parts.length !== 2) return null;
  const [cpu, gpu] = parts.map((p) => {
    const read = readFigure(p, 'W');
    return typeof read === 'object' ? read.value : NaN;
  });
  if (!(cpu! > 0 && gpu! > 0)) return null;
  if (Math.max(cpu! / gpu!, gpu! / cpu!) > MOST_APART) return null;
  return { cpu: cpu!, gpu: gpu! };
}
