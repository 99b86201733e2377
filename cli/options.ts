import type { Cap } from '@zugluft/core/envelope/fanStates';
import { BadInput } from './badInput';

/**
 * A number of the command line.
 *
 * @param path of the option, for messages
 * @param text as it was typed; undefined: not given
 * @throws BadInput where it is none from low to high
 */
export function numberOption(
  path: string,
  text: string | undefined,
  low: number,
  high: number,
): number | undefined {
  if (text === undefined) return undefined;
  const x = Number(text);
  if (text.trim() === '' || !(x >= low && x <= high)) {
    throw new BadInput(path, `must be a number from ${low} to ${high}`);
  }
  return x;
}

/** A whole number of the command line, as {@link numberOption}. */
export function wholeOption(
  path: string,
  text: string | undefined,
  low: number,
  high: number,
): number | undefined {
  if (text === undefined) return undefined;
  const n = Number(text);
  if (text.trim() === '' || !Number.isInteger(n) || n < low || n > high) {
    throw new BadInput(path, `must be a whole number from ${low} to ${high}`);
  }
  return n;
}

/**
 * Caps of the command line: off, full, or levels in dB(A).
 *
 * @param most how many are taken
 * @throws BadInput where one is none of these, or there are more
 */
export function capsOption(path: string, text: string, most: number): Cap[] {
  const caps = text.split(',').map((part): Cap => {
    const word = part.trim();
    if (word === 'off' || word === 'full') return word;
    const level = Number(word);
    if (word === '' || !Number.isFinite(level) || level < 0 || level > 120) {
      throw new BadInput(path, `“${word}” is neither off, full nor a level in dB(A)`);
    }
    return level;
  });
  if (caps.length > most) {
    throw new BadInput(path, most === 1 ? 'is one cap' : `at most ${most} caps`);
  }
  return caps;
}

/** Most draws a command makes of a machine, and most caps it answers for. */
export const MOST_DRAWS = 20_000;
export const MOST_CAPS = 20;
const LARGEST_SEED = 2 ** 32 - 1;

/** Draws and seed of a command; those that were not given are the core's own. */
export function drawOptions(values: { draws?: string | undefined; seed?: string | undefined }): {
  draws?: number;
  seed?: number;
} {
  const draws = wholeOption('--draws', values.draws, 1, MOST_DRAWS);
  const seed = wholeOption('--seed', values.seed, 0, LARGEST_SEED);
  return {
    ...(draws === undefined ? {} : { draws }),
    ...(seed === undefined ? {} : { seed }),
  };
}
