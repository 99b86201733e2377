import type { Picture } from './picture';

/** A picture made smaller by a whole number, as the eye sees light: 0 black to 1 white. */
export interface Reduced {
  width: number;
  height: number;
  /** Pixels of the picture for one of these, each way. */
  by: number;
  seen: Float32Array;
}

/**
 * Makes a picture smaller, each pixel the mean of a square.
 *
 * @param mostPx longer side at most
 */
export function reduced({ width, height, light }: Picture, mostPx: number): Reduced {
  const by = Math.max(1, Math.ceil(Math.max(width, height) / mostPx));
  const [w, h] = [Math.floor(width / by), Math.floor(height / by)];
  const seen = new Float32Array(w * h);
  const { sqrt } = Math;
  const whole = 65_535 * by * by;
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      let sum = 0;
      for (let j = 0; j < by; j++) {
        const row = (y * by + j) * width + x * by;
        for (let i = 0; i < by; i++) sum += light[row + i]!;
      }
      // close to how light is seen, and steady at black
      seen[y * w + x] = sqrt(sum / whole);
    }
  }
  return { width: w, height: h, by, seen };
}
