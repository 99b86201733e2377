import { lightAt, type Picture } from './picture';
import type { PointPx } from './point';

/** Light over a step that is an edge rather than noise, as a share of white. */
const LEAST_STEP = 0.02;

/**
 * The strongest edge near a place: where light changes most, then along that change to where it is half way between its sides.
 *
 * @param radiusPx how far it is looked for
 * @returns the place itself where nothing near it is an edge
 */
export function snapToEdge(picture: Picture, [u, v]: PointPx, radiusPx: number): PointPx {
  let best = LEAST_STEP;
  let at: PointPx | null = null;
  let along: readonly [number, number] = [1, 0];
  const r = Math.ceil(radiusPx);
  for (let dy = -r; dy <= r; dy++) {
    for (let dx = -r; dx <= r; dx++) {
      const far = Math.hypot(dx, dy);
      if (far > radiusPx) continue;
      const [x, y] = [u + dx, v + dy];
      const gx = lightAt(picture, x + 1, y) - lightAt(picture, x - 1, y);
      const gy = lightAt(picture, x, y + 1) - lightAt(picture, x, y - 1);
      // of two alike the nearer one
      const size = Math.hypot(gx, gy) * (1 - (0.3 * far) / (radiusPx + 1));
      if (size > best) {
        best = size;
        at = [x, y];
        const length = Math.hypot(gx, gy);
        along = [gx / length, gy / length];
      }
    }
  }
  if (!at) return [u, v];
  const [ax, ay] = along;
  const side = 3;
  const light = (t: number) => lightAt(picture, at[0] + t * ax, at[1] + t * ay);
  const half = (light(-side) + light(side)) / 2;
  // light rises along the change, so that half of it lies between
  let [low, high] = [-side, side];
  for (let i = 0; i < 20; i++) {
    const middle = (low + high) / 2;
    if (light(middle) < half) low = middle;
    else high = middle;
  }
  const t = (low + high) / 2;
  return [at[0] + t * ax, at[1] + t * ay];
}
