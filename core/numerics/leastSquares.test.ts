import { leastSquares } from './leastSquares';

test('as certified: Misra1a, y = b1 (1 − exp(−b2 x)), with the deviations of both', () => {
  // NIST StRD nonlinear regression, Misra1a, lower difficulty; figures from memory
  const y = [
    10.07, 14.73, 17.94, 23.93, 29.61, 35.18, 40.02, 44.82, 50.76, 55.05, 61.01, 66.4, 75.47, 81.78,
  ];
  const x = [
    77.6, 114.9, 141.1, 190.8, 239.9, 289, 332.8, 378.4, 434.8, 477.3, 536.8, 593.1, 689.1, 760,
  ];
  const fit = leastSquares(
    ([a, b]) => y.map((v, i) => v - a! * (1 - Math.exp(-b! * x[i]!))),
    [500, 0.0001],
    [500, 0.0001],
  );
  expect(fit.x[0]! / 2.3894212918e2).toBeCloseTo(1, 7);
  expect(fit.x[1]! / 5.5015643181e-4).toBeCloseTo(1, 7);
  expect(fit.cost / 1.2455138894e-1).toBeCloseTo(1, 8);
  const variance = fit.cost / (y.length - 2);
  expect(Math.sqrt(variance * fit.covariance!.get(0, 0)) / 2.7070075241).toBeCloseTo(1, 5);
  expect(Math.sqrt(variance * fit.covariance!.get(1, 1)) / 7.2668688436e-6).toBeCloseTo(1, 5);
});

test('through a narrow bent valley to its bottom', () => {
  // Rosenbrock's function
  const fit = leastSquares(([x, y]) => [10 * (y! - x! * x!), 1 - x!], [-1.2, 1], [1, 1]);
  expect(fit.x[0]).toBeCloseTo(1, 6);
  expect(fit.x[1]).toBeCloseTo(1, 6);
});

test('what no residual holds has no covariance; what is not possible is not gone to', () => {
  const loose = leastSquares(([x]) => [x! - 3], [0, 5], [1, 1]);
  expect(loose.x[0]).toBeCloseTo(3, 9);
  expect(loose.covariance).toBeNull();
  const rooted = leastSquares(([x]) => [Math.sqrt(x!) - 0.1], [4], [1]);
  expect(rooted.x[0]).toBeCloseTo(0.01, 6);
});
