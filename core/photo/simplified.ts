import type { PointPx } from './point';
import { dist } from './polygon';

/**
 * A line of fewer points that leaves the given one nowhere by more than a distance.
 *
 * Source: Douglas and Peucker, “Algorithms for the reduction of the number of points required to represent a digitized line”, The
 * Canadian Cartographer 10 (1973), from memory.
 */
export function simplified(points: readonly PointPx[], slack: number): PointPx[] {
  const [a, b] = [points[0], points.at(-1)];
  if (!a || !b || points.length < 3) return [...points];
  const long = dist(a, b);
  const off = (p: PointPx) =>
    long === 0
      ? dist(p, a)
      : Math.abs((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])) / long;
  let worst = 0;
  points.forEach((p, i) => {
    if (off(p) > off(points[worst]!)) worst = i;
  });
  if (off(points[worst]!) <= slack || worst === 0) return [a, b];
  return [
    ...simplified(points.slice(0, worst + 1), slack).slice(0, -1),
    ...simplified(points.slice(worst), slack),
  ];
}
