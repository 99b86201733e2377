/** A point with a name. */
export interface NamedPoint {
  /** In pixels. */
  x: number;
  y: number;
  /** That its whole name takes. */
  widthPx: number;
}

/** Where a name stands beside its point. */
export interface PlacedLabel {
  side: 'left' | 'right';
  /** Down from the point's own height. */
  shiftPx: number;
  /** That it may take; a longer one is cut. */
  widthPx: number;
}

/** Pixels from one line of words to the next. */
export const LINE_PX = 14;
/** Between a point and its name, and half a point. */
const BESIDE_PX = 8;
const DOT_PX = 5;
/** A name that would be cut to less is not told. */
const LEAST_PX = 60;

interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/**
 * Places names beside their points so that none lies on another or on a point, or leaves the drawing: towards the middle where that goes,
 * else on the other side, at most a line up or down, since a name further away is not told to belong to its point; the
 * shortest first, so that most are told.
 *
 * @param points in pixels
 * @param left @param right edges of the drawing
 * @returns null where a name has no room
 */
export function placeLabels(
  points: readonly NamedPoint[],
  left: number,
  right: number,
): (PlacedLabel | null)[] {
  const taken: Box[] = points.map(({ x, y }) => around(x - DOT_PX, x + DOT_PX, y, 2 * DOT_PX));
  const place = ({ x, y, widthPx }: NamedPoint): PlacedLabel | null => {
    const sides =
      x > (left + right) / 2 ? (['left', 'right'] as const) : (['right', 'left'] as const);
    for (const side of sides) {
      const room = (side === 'right' ? right - x : x - left) - BESIDE_PX;
      const width = Math.min(widthPx, room);
      if (width < Math.min(widthPx, LEAST_PX)) continue;
      for (const shiftPx of [0, LINE_PX, -LINE_PX]) {
        const from = side === 'right' ? x + BESIDE_PX : x - BESIDE_PX - width;
        const box = around(from, from + width, y + shiftPx, LINE_PX);
        if (taken.some((t) => overlap(t, box))) continue;
        taken.push(box);
        return { side, shiftPx, widthPx: width };
      }
    }
    return null;
  };
  const out = points.map((): PlacedLabel | null => null);
  const order = points.map((p, i) => ({ p, i })).sort((a, b) => a.p.widthPx - b.p.widthPx);
  for (const { p, i } of order) out[i] = place(p);
  return out;
}

const around = (left: number, right: number, y: number, height: number): Box => ({
  left,
  right,
  top: y - height / 2,
  bottom: y + height / 2,
});

const overlap = (a: Box, b: Box): boolean =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

/**
 * Labels in one column moved apart, in the order of their places, by as little as can be: those that would touch stand a line from each
 * other around their common middle. With more of them than the column has lines, the last given ones are left out.
 *
 * @param ys where each would stand, in pixels
 * @param top @param bottom of the column
 * @returns pixels down, or null where one is left out
 */
export function spreadLabels(
  ys: readonly number[],
  top: number,
  bottom: number,
): (number | null)[] {
  const room = Math.max(0, Math.floor((bottom - top) / LINE_PX) + 1);
  const order = ys
    .map((y, i) => ({ y, i }))
    .slice(0, room)
    .sort((a, b) => a.y - b.y);
  // the nearest places in order: neighbours that are out of it share their mean (pool adjacent violators; from memory)
  const pools: { sum: number; of: number }[] = [];
  for (const [k, { y }] of order.entries()) {
    pools.push({ sum: y - k * LINE_PX, of: 1 });
    for (let last = pools.length - 1; last > 0; last--) {
      const [above, below] = [pools[last - 1]!, pools[last]!];
      if (above.sum / above.of <= below.sum / below.of) break;
      pools.splice(last - 1, 2, { sum: above.sum + below.sum, of: above.of + below.of });
    }
  }
  const out = ys.map((): number | null => null);
  const most = bottom - (order.length - 1) * LINE_PX;
  let k = 0;
  for (const { sum, of } of pools) {
    const start = Math.min(most, Math.max(top, sum / of));
    for (let n = 0; n < of; n++, k++) {
      const { y, i } = order[k]!;
      out[i] = start + k * LINE_PX - y;
    }
  }
  return out;
}
