import { linearLight } from './picture';

/** Which squares of a picture are of something, row by row from the top. */
export interface Mask {
  width: number;
  height: number;
  /** Pixels of the picture for one of these, each way. */
  by: number;
  is: Uint8Array;
}

/**
 * Bare copper in linear light, each against red: what it reflects (green about 0.67, blue about 0.54 of red; from memory, optical
 * constants of metals), redder where light went from copper to copper, paler under a cover of lacquer or where white light glances.
 */
const GREEN = [0.2, 0.78] as const;
const BLUE = [0.03, 0.68] as const;
/** Blue stays under green, or it is no copper but a pink. */
const BLUE_OF_GREEN = 0.9;
/** Red below this is too dark to have a colour, as a share of white. */
const LEAST_RED = 0.02;
/** Of a square and its eight neighbours so many have to agree. */
const AGREE = 5;

/**
 * Where a picture shows the colour of copper.
 *
 * @param values three to a pixel, 8 bit
 * @param by pixels for a square, each way
 */
export function copperMask(values: Uint8Array, width: number, height: number, by: number): Mask {
  const table = Float32Array.from({ length: 256 }, (_, i) => linearLight(i / 255));
  const [w, h] = [Math.floor(width / by), Math.floor(height / by)];
  const raw = new Uint8Array(w * h);
  const least = LEAST_RED * by * by;
  const [greenLeast, greenMost] = GREEN;
  const [blueLeast, blueMost] = BLUE;
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      let r = 0;
      let g = 0;
      let b = 0;
      for (let j = 0; j < by; j++) {
        let k = ((y * by + j) * width + x * by) * 3;
        for (let i = 0; i < by; i++, k += 3) {
          r += table[values[k]!]!;
          g += table[values[k + 1]!]!;
          b += table[values[k + 2]!]!;
        }
      }
      if (r < least) continue;
      if (g < greenLeast * r || g > greenMost * r) continue;
      if (b < blueLeast * r || b > blueMost * r || b > BLUE_OF_GREEN * g) continue;
      raw[y * w + x] = 1;
    }
  }
  const is = new Uint8Array(w * h);
  for (let y = 1; y < h - 1; y++) {
    for (let x = 1; x < w - 1; x++) {
      let sum = 0;
      for (let j = -w; j <= w; j += w) {
        const at = y * w + x + j;
        sum += raw[at - 1]! + raw[at]! + raw[at + 1]!;
      }
      if (sum >= AGREE) is[y * w + x] = 1;
    }
  }
  return { width: w, height: h, by, is };
}
