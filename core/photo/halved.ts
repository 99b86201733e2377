import type { Picture } from './picture';

/** A picture half as wide and high, each pixel the mean of four; an odd last row or column is left out. */
export function halved({ width, height, light }: Picture): Picture {
  const [w, h] = [width >> 1, height >> 1];
  const out = new Uint16Array(w * h);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const at = 2 * y * width + 2 * x;
      out[y * w + x] =
        (light[at]! + light[at + 1]! + light[at + width]! + light[at + width + 1]!) / 4;
    }
  }
  return { width: w, height: h, light: out };
}
