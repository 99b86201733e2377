type Point = readonly [x: number, y: number];

/**
 * A line of straight pieces moved to its side, its pieces meeting where they cross.
 *
 * @param by to the left of its direction where y points down, negative to the right
 * @example offsetLine([[0, 0], [10, 0]], 2) // [[0, -2], [10, -2]]
 */
export function offsetLine(points: readonly Point[], by: number): Point[] {
  const normals = points.slice(1).map(([x, y], i): Point => {
    const [px, py] = points[i]!;
    const long = Math.hypot(x - px, y - py) || 1;
    return [(y - py) / long, -(x - px) / long];
  });
  return points.map(([x, y], i) => {
    const a = normals[Math.max(0, i - 1)]!;
    const b = normals[Math.min(normals.length - 1, i)]!;
    const [mx, my] = [a[0] + b[0], a[1] + b[1]];
    // a piece that turns right back has no corner: it ends square
    const share = Math.max(0.2, (mx * mx + my * my) / 2);
    return [x + (by * mx) / share, y + (by * my) / share];
  });
}
