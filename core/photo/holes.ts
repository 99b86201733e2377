import { medianOf } from './median';

/** Smaller ones are noise. */
const LEAST_HOLE_PX = 6;

export interface Hole {
  x: number;
  y: number;
  pixels: number;
  /** It goes on beyond the marked area. */
  atEdge: boolean;
}

/** Dark places that hang together, side by side. */
export function holesOf(light: Float32Array, width: number, t: number): Hole[] {
  const seen = new Uint8Array(light.length);
  const out: Hole[] = [];
  const stack: number[] = [];
  for (let start = 0; start < light.length; start++) {
    if (seen[start] || !(light[start]! < t)) continue;
    let pixels = 0;
    let x = 0;
    let y = 0;
    let atEdge = false;
    stack.push(start);
    seen[start] = 1;
    while (stack.length > 0) {
      const k = stack.pop()!;
      const i = k % width;
      const j = (k - i) / width;
      pixels++;
      x += i;
      y += j;
      for (const to of [i > 0 ? k - 1 : -1, i + 1 < width ? k + 1 : -1, k - width, k + width]) {
        const is = to < 0 ? NaN : light[to];
        if (is === undefined || is !== is) atEdge = true;
        else if (!seen[to] && is < t) {
          seen[to] = 1;
          stack.push(to);
        }
      }
    }
    if (pixels >= LEAST_HOLE_PX) out.push({ x: x / pixels, y: y / pixels, pixels, atEdge });
  }
  return out;
}

/** Middle of the distances to the nearest neighbour; of many, some are asked. */
export function nearestOf(points: readonly (readonly [number, number])[]): number | null {
  if (points.length < 2) return null;
  const every = Math.ceil(points.length / 400);
  const found = points
    .filter((_, k) => k % every === 0)
    .map((p) =>
      points.reduce((best, q) => {
        const d = q === p ? Infinity : Math.hypot(p[0] - q[0], p[1] - q[1]);
        return d < best ? d : best;
      }, Infinity),
    );
  return medianOf(found);
}
