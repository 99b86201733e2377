export interface LabelBox {
  /** Left edge, middle and width, in pixels. */
  x: number;
  y: number;
  widthPx: number;
}

/** Pixels from one line of words to the next. */
export const LINE_PX = 14;

/**
 * How far each label is moved up or down so that none lies on another: a line at most, since a name further away is not told to
 * belong to its point; the first ones first.
 *
 * @returns pixels down, or null where there is no room
 */
export function placeLabels(boxes: readonly LabelBox[]): (number | null)[] {
  const placed: LabelBox[] = [];
  return boxes.map((box) => {
    for (const shift of [0, LINE_PX, -LINE_PX]) {
      const moved = { ...box, y: box.y + shift };
      if (placed.some((p) => overlaps(p, moved))) continue;
      placed.push(moved);
      return shift;
    }
    return null;
  });
}

const overlaps = (a: LabelBox, b: LabelBox): boolean =>
  a.x < b.x + b.widthPx && b.x < a.x + a.widthPx && Math.abs(a.y - b.y) < LINE_PX;

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
