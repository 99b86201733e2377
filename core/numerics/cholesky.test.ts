import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { randomStream } from '../uncertainty/random';
import { factorCholesky, solveLower, solveLowerTransposed } from './cholesky';

function positive(n: number, seed: number): Matrix {
  const next = randomStream(seed);
  const x = Matrix.zeros(n + 2, n).apply(function (this: Matrix, i, j) {
    this.set(i, j, next() - 0.5);
  });
  return x.transpose().mmul(x);
}

test.each([1, 2, 5, 12])('a matrix of %i is factored and solved as by a matrix package', (n) => {
  const a = positive(n, n);
  const l = Float64Array.from(a.to1DArray());
  expect(factorCholesky(l, n)).toBe(true);
  const theirs = new CholeskyDecomposition(a);
  const lower = theirs.lowerTriangularMatrix;
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) expect(l[i * n + j]).toBeCloseTo(lower.get(i, j), 10);
  }
  const b = Float64Array.from({ length: n }, (_, i) => i - 1.5);
  const x = b.slice();
  solveLower(l, n, x);
  solveLowerTransposed(l, n, x);
  const known = theirs.solve(Matrix.columnVector(b)).to1DArray();
  known.forEach((value, i) => expect(x[i]! / value).toBeCloseTo(1, 8));
});

test('the upper half is not read', () => {
  const a = Float64Array.of(4, NaN, 2, 5);
  expect(factorCholesky(a, 2)).toBe(true);
  expect([a[0], a[2], a[3]]).toEqual([2, 1, 2]);
});

test('what is not positive definite is told', () => {
  expect(factorCholesky(Float64Array.of(1, 0, 2, 1), 2)).toBe(false);
  expect(factorCholesky(Float64Array.of(0), 1)).toBe(false);
  expect(factorCholesky(Float64Array.of(NaN), 1)).toBe(false);
});
