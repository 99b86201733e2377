import type { PointPx } from './point';

/**
 * Radial distortion of a lens by one coefficient: a place that a lens without fault shows at r from the middle is shown at
 * r (1 + k1 r²), r in halves of the picture's diagonal; at a corner k1 is how far it is moved, as a share. Below 0 it is a barrel.
 *
 * Source: Brown, “Decentering distortion of lenses”, Photogrammetric Engineering 32 (1966), its first radial term; from memory.
 */
export interface Distortion {
  k1: number;
  /** Middle of the picture, px: the centre of it. */
  middle: PointPx;
}

/** Beyond these a lens would fold the picture's corners over. */
export const LEAST_K1 = -0.25;
export const MOST_K1 = 0.5;

/** Where a lens shows what one without fault shows at a place. */
export function distorted({ k1, middle }: Distortion, [u, v]: PointPx): PointPx {
  if (k1 === 0) return [u, v];
  const [x, y] = [u - middle[0], v - middle[1]];
  const grown = 1 + (k1 * (x * x + y * y)) / (middle[0] ** 2 + middle[1] ** 2);
  return [middle[0] + x * grown, middle[1] + y * grown];
}

/** Where one without fault would show what a lens shows at a place: the reverse of {@link distorted}, by Newton's method. */
export function undistorted({ k1, middle }: Distortion, [u, v]: PointPx): PointPx {
  if (k1 === 0) return [u, v];
  const [x, y] = [u - middle[0], v - middle[1]];
  const far = Math.sqrt((x * x + y * y) / (middle[0] ** 2 + middle[1] ** 2));
  if (far === 0) return [u, v];
  let r = far;
  for (let n = 0; n < 8; n++) {
    const slope = 1 + 3 * k1 * r * r;
    // past where it would fold there is no such place: as near as it comes
    if (!(slope > 0.05)) break;
    r -= (r * (1 + k1 * r * r) - far) / slope;
  }
  return [middle[0] + (x * r) / far, middle[1] + (y * r) / far];
}
