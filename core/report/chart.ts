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

/** Width of a text in a face like the one that is shipped, at most: never less than it takes. */
export const widthOf = (text: string, size: number): number => 0.62 * size * [...text].length;

/** A text cut to a width, with an ellipsis where something is missing. */
export function cutTo(text: string, size: number, width: number): string {
  const letters = [...text];
  const most = Math.floor(width / (0.62 * size));
  return letters.length <= most ? text : `${letters.slice(0, Math.max(0, most - 1)).join('')}…`;
}
