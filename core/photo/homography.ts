import { Matrix, SingularValueDecomposition } from 'ml-matrix';

type Pair = readonly [x: number, y: number];

/**
 * The projective map of a plane that takes points to others best, by the direct linear transformation with normalised coordinates.
 *
 * @param from @param to at least four pairs, no three on a line
 * @returns 3 × 3, its last element 1
 * Source: Hartley and Zisserman, Multiple View Geometry, algorithm 4.2; from memory.
 */
export function homography(from: readonly Pair[], to: readonly Pair[]): Matrix {
  const a = normaliser(from);
  const b = normaliser(to);
  const rows = from.flatMap((p, i) => {
    const [x, y] = moved(a, p);
    const [u, v] = moved(b, to[i]!);
    return [
      [-x, -y, -1, 0, 0, 0, u * x, u * y, u],
      [0, 0, 0, -x, -y, -1, v * x, v * y, v],
    ];
  });
  // a square system, so that the decomposition has the direction that nothing holds
  while (rows.length < 9) rows.push(new Array<number>(9).fill(0));
  const svd = new SingularValueDecomposition(new Matrix(rows), { autoTranspose: true });
  const least = svd.diagonal.indexOf(Math.min(...svd.diagonal));
  const h = Matrix.from1DArray(3, 3, svd.rightSingularVectors.getColumn(least));
  const back = new Matrix([
    [1 / b.scale, 0, b.x],
    [0, 1 / b.scale, b.y],
    [0, 0, 1],
  ]);
  const there = new Matrix([
    [a.scale, 0, -a.scale * a.x],
    [0, a.scale, -a.scale * a.y],
    [0, 0, 1],
  ]);
  const out = back.mmul(h).mmul(there);
  return out.div(out.get(2, 2));
}

/** A point under a projective map. */
export function mapped(h: Matrix, [x, y]: Pair): [number, number] {
  const w = h.get(2, 0) * x + h.get(2, 1) * y + h.get(2, 2);
  return [
    (h.get(0, 0) * x + h.get(0, 1) * y + h.get(0, 2)) / w,
    (h.get(1, 0) * x + h.get(1, 1) * y + h.get(1, 2)) / w,
  ];
}

interface Normaliser {
  x: number;
  y: number;
  scale: number;
}

/** Points about their middle, at a mean distance of √2. */
function normaliser(points: readonly Pair[]): Normaliser {
  const n = points.length;
  const x = points.reduce((s, p) => s + p[0], 0) / n;
  const y = points.reduce((s, p) => s + p[1], 0) / n;
  const mean = points.reduce((s, p) => s + Math.hypot(p[0] - x, p[1] - y), 0) / n;
  return { x, y, scale: Math.SQRT2 / mean };
}

const moved = ({ x, y, scale }: Normaliser, p: Pair): Pair => [
  scale * (p[0] - x),
  scale * (p[1] - y),
];
