/** A drawing that goes as vectors into pages, PDF and pictures alike: marks with places in points from the upper left. */

export type Point = readonly [x: number, y: number];

/** Colours of a drawing; paper is light, whatever the theme of the page. */
export const INK = '#14201b';
export const QUIET = '#5c665f';
export const RULE = '#cfd3c9';
export const HEAT = '#b0400f';
export const HEAT_BAND = '#e3bfae';
export const AIR = '#1c6488';
export const AIR_BAND = '#b3cad5';

export type Mark =
  | {
      kind: 'line';
      points: readonly Point[];
      colour: string;
      width: number;
      dash?: readonly number[];
    }
  | { kind: 'area'; points: readonly Point[]; colour: string }
  | { kind: 'diamond'; at: Point; size: number; colour: string }
  | {
      kind: 'text';
      at: Point;
      text: string;
      size: number;
      colour: string;
      anchor: 'start' | 'middle' | 'end';
      bold?: boolean;
    };

export interface Chart {
  width: number;
  height: number;
  /** What it shows, for those who cannot see it. */
  alt: string;
  marks: Mark[];
}

/**
 * Round numbers across a range, about as many as asked for: steps of 1, 2 or 5 times a power of ten.
 *
 * @returns from at or below the least to at or above the greatest
 */
export function ticks(least: number, greatest: number, about: number): number[] {
  const range = greatest - least;
  if (!(range > 0) || !Number.isFinite(range)) return [least];
  const raw = range / Math.max(1, about);
  const power = 10 ** Math.floor(Math.log10(raw));
  const step = power * ([1, 2, 5, 10].find((m) => m * power >= raw * 0.999) ?? 10);
  const out: number[] = [];
  for (let k = Math.floor(least / step); ; k++) {
    out.push(Number((k * step).toPrecision(12)));
    if (k * step >= greatest) return out;
  }
}

/** Widths of letters over their size, at most, in the faces that are shipped, bold too. */
const WIDE = 1.12;
const CAPITAL = 0.86;
const NARROW = 0.46;
const OTHER = 0.73;

function letterWidth(letter: string): number {
  if (/[WMmw@%]/.test(letter)) return WIDE;
  if (/[A-Z&]/.test(letter)) return CAPITAL;
  if (/[ ijlI.,:;'|!()[\]]/.test(letter)) return NARROW;
  // other scripts are taken as wide as can be
  return /[ -~]/.test(letter) ? OTHER : WIDE;
}

/** Width of a text, at most: never less than it takes in any face that is shipped. */
export const widthOf = (text: string, size: number): number =>
  size * [...text].reduce((sum, letter) => sum + letterWidth(letter), 0);

/** A text cut to a width, with an ellipsis where something is missing. */
export function cutTo(text: string, size: number, width: number): string {
  if (widthOf(text, size) <= width) return text;
  let left = width / size - WIDE;
  let out = '';
  for (const letter of text) {
    left -= letterWidth(letter);
    if (left < 0) break;
    out += letter;
  }
  return `${out}…`;
}
