import type { PointPx } from './point';

/** A picture as light: linear, 0 black to 65535 white, row by row from the top. */
export interface Picture {
  width: number;
  height: number;
  light: Uint16Array;
}

export const WHITE = 65_535;

/**
 * Linear light of a value as files hold it.
 *
 * @param share 0 to 1
 * @returns 0 to 1
 * Source: IEC 61966-2-1 (sRGB).
 */
export const linearLight = (share: number): number =>
  share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;

/** What each primary adds to luminance. Source: IEC 61966-2-1, from ITU-R BT.709. */
const RED = 0.2126;
const GREEN = 0.7152;
const BLUE = 0.0722;

/**
 * A picture's light from its values, three to a pixel.
 *
 * @param values 8 or 16 bit
 * @param progress told of the share that is done, and whether to go on
 */
export function pictureOf(
  values: Uint8Array | Uint16Array,
  width: number,
  height: number,
): Picture {
  const most = values instanceof Uint8Array ? 255 : WHITE;
  const table = new Float32Array(most + 1);
  for (let i = 0; i <= most; i++) table[i] = WHITE * linearLight(i / most);
  const light = new Uint16Array(width * height);
  for (let i = 0, k = 0; i < light.length; i++, k += 3) {
    light[i] =
      RED * table[values[k]!]! +
      GREEN * table[values[k + 1]!]! +
      BLUE * table[values[k + 2]!]! +
      0.5;
  }
  return { width, height, light };
}

/** Light at a place between pixels, 0 to 1; the outermost pixels go on beyond the edge. */
export function lightAt({ width, height, light }: Picture, u: number, v: number): number {
  const x = u < 0.5 ? 0 : u > width - 0.5 ? width - 1 : u - 0.5;
  const y = v < 0.5 ? 0 : v > height - 0.5 ? height - 1 : v - 0.5;
  const i = x >= width - 1 ? width - 2 : x | 0;
  const j = y >= height - 1 ? height - 2 : y | 0;
  const a = x - i;
  const b = y - j;
  const at = j * width + i;
  const top = light[at]! * (1 - a) + light[at + 1]! * a;
  const below = light[at + width]! * (1 - a) + light[at + width + 1]! * a;
  return (top * (1 - b) + below * b) / WHITE;
}

/** Whether a place lies in the picture, its edges included. */
export const isIn = ({ width, height }: { width: number; height: number }, [u, v]: PointPx) =>
  u >= 0 && v >= 0 && u <= width && v <= height;
