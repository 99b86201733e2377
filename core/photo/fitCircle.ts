import { solve, Matrix } from 'ml-matrix';

type Pair = readonly [number, number];

export interface Circle {
  x: number;
  y: number;
  radius: number;
}

const STEPS = 50;
const STILL = 1e-12;

/**
 * The circle with the least sum of squared distances from points, by Gauss and Newton from the algebraic one.
 *
 * @param points three or more
 * @returns null where they lie on a line
 * Source: Kåsa's algebraic circle for the start; Gander, Golub and Strebel, “Least-squares fitting of circles and ellipses”, BIT 34 (1994).
 */
export function fitCircle(points: readonly Pair[]): Circle | null {
  const start = algebraic(points);
  if (!start) return null;
  let { x, y, radius } = start;
  for (let step = 0; step < STEPS; step++) {
    const rows: number[][] = [];
    const off: number[][] = [];
    for (const [px, py] of points) {
      const d = Math.hypot(px - x, py - y);
      if (d === 0) return start;
      rows.push([(x - px) / d, (y - py) / d, -1]);
      off.push([radius - d]);
    }
    const j = new Matrix(rows);
    const jt = j.transpose();
    const [dx, dy, dr] = solve(jt.mmul(j), jt.mmul(new Matrix(off))).to1DArray() as [
      number,
      number,
      number,
    ];
    if (![dx, dy, dr].every(Number.isFinite)) return start;
    x += dx;
    y += dy;
    radius += dr;
    if (Math.hypot(dx, dy, dr) < STILL * radius) break;
  }
  return { x, y, radius: Math.abs(radius) };
}

function algebraic(points: readonly Pair[]): Circle | null {
  const n = points.length;
  const mx = points.reduce((s, p) => s + p[0], 0) / n;
  const my = points.reduce((s, p) => s + p[1], 0) / n;
  const a = new Matrix(points.map(([x, y]) => [x - mx, y - my, 1]));
  const b = new Matrix(points.map(([x, y]) => [(x - mx) ** 2 + (y - my) ** 2]));
  const at = a.transpose();
  const normal = at.mmul(a);
  const size = normal.get(0, 0) + normal.get(1, 1);
  // as thin as a line
  const det = normal.get(0, 0) * normal.get(1, 1) - normal.get(0, 1) ** 2;
  if (!(det > 1e-10 * size ** 2)) return null;
  const [d, e, f] = solve(normal, at.mmul(b)).to1DArray() as [number, number, number];
  return { x: mx + d / 2, y: my + e / 2, radius: Math.sqrt(Math.max(0, f + (d * d + e * e) / 4)) };
}
