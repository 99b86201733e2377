import type { Picture } from './picture';
import type { PointPx } from './point';
import { dist } from './polygon';
import { snapToEdge } from './snapToEdge';
import { stripEdges } from './stripEdges';

/** A width found across a strip differs from what it is known to be by at most this share. */
const UNLIKE = 0.25;

/**
 * The middle of a strip at full resolution: at each point half way between its edges; where it ends, at the edge across it.
 *
 * @param points about its middle
 * @param ends whether the strip ends at the first, at the last
 * @param slackPx how far each may lie off
 * @returns points of which no edges are found stay
 */
export function refineCourse(
  picture: Picture,
  points: readonly PointPx[],
  widthPx: number,
  ends: readonly [boolean, boolean],
  slackPx: number,
): PointPx[] {
  const middle = points.map((p, i): PointPx => {
    const before = points[i - 1] ?? p;
    const after = points[i + 1] ?? p;
    const [ex, ey] = unit(before, after);
    // at an end its own edge is as near as those beside: looked at a little inside
    const inwards = i === 0 ? 1 : i === points.length - 1 ? -1 : 0;
    const at: PointPx = [p[0] + inwards * 0.6 * widthPx * ex, p[1] + inwards * 0.6 * widthPx * ey];
    const edges = acrossAt(picture, at, [ex, ey], widthPx);
    if (!edges) return p;
    const off =
      ((edges[0][0] + edges[1][0]) / 2 - at[0]) * -ey +
      ((edges[0][1] + edges[1][1]) / 2 - at[1]) * ex;
    return [p[0] - off * ey, p[1] + off * ex];
  });
  for (const side of [0, 1] as const) {
    if (!ends[side]) continue;
    const [tip, inner] = side === 0 ? [0, 1] : [middle.length - 1, middle.length - 2];
    const [ex, ey] = unit(middle[inner]!, middle[tip]!);
    const [x, y] = middle[tip]!;
    const edge = snapToEdge(picture, [x, y], slackPx + 2);
    const on = (edge[0] - x) * ex + (edge[1] - y) * ey;
    middle[tip] = [x + on * ex, y + on * ey];
  }
  return middle;
}

/**
 * Both edges of a strip, at right angles to its way.
 *
 * @param way along it, of length 1
 * @returns null where they are not found, or it is not as wide as it is known to be
 */
export function acrossAt(
  picture: Picture,
  [x, y]: PointPx,
  [ex, ey]: PointPx,
  widthPx: number,
): readonly [PointPx, PointPx] | null {
  const half = widthPx / 2;
  const found = stripEdges(picture, [x + half * ey, y - half * ex], [x - half * ey, y + half * ex]);
  if (!found) return null;
  return Math.abs(dist(...found.edges) - widthPx) < UNLIKE * widthPx ? found.edges : null;
}

function unit(from: PointPx, to: PointPx): PointPx {
  const long = dist(from, to) || 1;
  return [(to[0] - from[0]) / long, (to[1] - from[1]) / long];
}
