import { Matrix, LuDecomposition } from 'ml-matrix';
import { luFactor, luSolve } from './lu';

test('solves like ml-matrix (reference package), also where pivots are needed', () => {
  let seed = 7;
  const next = () => ((seed = (seed * 16807) % 2147483647) / 2147483647) * 2 - 1;
  for (const n of [1, 2, 5, 12, 30]) {
    const a = Array.from({ length: n }, () => Array.from({ length: n }, next));
    a[0]![0] = n > 1 ? 0 : 1;
    const b = Array.from({ length: n }, next);
    const flat = Float64Array.from(a.flat());
    const x = Float64Array.from(b);
    const pivot = new Int32Array(n);
    luFactor(flat, n, pivot);
    luSolve(flat, n, pivot, x);
    const reference = new LuDecomposition(new Matrix(a)).solve(Matrix.columnVector(b)).to1DArray();
    reference.forEach((r, i) => expect(x[i]).toBeCloseTo(r, 8));
  }
});

test('a singular matrix is named as such', () => {
  expect(() => luFactor(new Float64Array(4), 2, new Int32Array(2))).toThrow(/singular/);
});
