type Pair = readonly [number, number];

/** Area of a polygon that closes itself, above 0 where it goes round clockwise as seen on a screen (y down). */
export function signedArea(points: readonly Pair[]): number {
  let sum = 0;
  points.forEach(([x, y], i) => {
    const [u, v] = points[(i + 1) % points.length]!;
    sum += x * v - u * y;
  });
  return sum / 2;
}

/** Of three points, how far the middle one lies off the line of the others, over their distance; 0 where they coincide. */
export function offLine(a: Pair, b: Pair, c: Pair): number {
  const base = Math.max(dist(a, b), dist(b, c), dist(a, c));
  return base === 0 ? 0 : Math.abs(2 * signedArea([a, b, c])) / base ** 2;
}

/** Whether four corners go round a convex quadrangle. */
export function isConvex(corners: readonly Pair[]): boolean {
  const n = corners.length;
  const turns = corners.map((_, i) =>
    Math.sign(signedArea([corners[i]!, corners[(i + 1) % n]!, corners[(i + 2) % n]!])),
  );
  return turns[0] !== 0 && turns.every((t) => t === turns[0]);
}

export const dist = (a: Pair, b: Pair): number => Math.hypot(a[0] - b[0], a[1] - b[1]);
