import { Matrix } from 'ml-matrix';
import { findMode, logEvidence } from './findMode';
import { logMean, randomiseThenOptimise, takeAlike, worthOf } from './randomiseThenOptimise';

const moments = (values: readonly number[], logWeights: ArrayLike<number>) => {
  const w = values.map((_, k) => Math.exp(logWeights[k]!));
  const total = w.reduce((a, b) => a + b, 0);
  const mean = values.reduce((sum, x, k) => sum + w[k]! * x, 0) / total;
  const square = values.reduce((sum, x, k) => sum + w[k]! * (x - mean) ** 2, 0) / total;
  return { mean, deviation: Math.sqrt(square) };
};

test('straight readings: every draw weighs the same, and mean, spread and evidence are those in closed form', () => {
  // two readings of three unknowns; the third is not read at all
  const a = new Matrix([
    [3, 1, 0],
    [1, -2, 0],
  ]);
  const y = [2, -1];
  const residuals = (z: Float64Array) =>
    y.map((v, i) => v - a.get(i, 0) * z[0]! - a.get(i, 1) * z[1]! - a.get(i, 2) * z[2]!);
  const mode = findMode(residuals, { z: new Float64Array(3) }, true);
  // (I + AᵀA)⁻¹ and its product with Aᵀy
  const det = 11 * 6 - 1;
  const c = [
    [6 / det, -1 / det],
    [-1 / det, 11 / det],
  ];
  const at = [a.get(0, 0) * 2 - a.get(1, 0), a.get(0, 1) * 2 - a.get(1, 1)];
  const mean = [c[0]![0]! * at[0]! + c[0]![1]! * at[1]!, c[1]![0]! * at[0]! + c[1]![1]! * at[1]!];
  const draws = randomiseThenOptimise(residuals, mode.z, mode.jacobian, 2000, 3);
  const spread = [Math.sqrt(c[0]![0]!), Math.sqrt(c[1]![1]!), 1];
  [...mean, 0].forEach((m, j) => {
    const own = Array.from({ length: draws.count }, (_, k) => draws.z[k * 3 + j]!);
    const found = moments(own, draws.logWeight);
    expect(Math.abs(found.mean - m)).toBeLessThan(0.05 * spread[j]!);
    expect(Math.abs(found.deviation / spread[j]! - 1)).toBeLessThan(0.05);
  });
  // the equations are solved to a tenth of a deviation, no nearer
  expect(worthOf(draws.logWeight)).toBeGreaterThan(0.98 * draws.count);
  // evidence of normal readings: N(y; 0, I + AAᵀ), but for the constant
  const outer = a.mmul(a.transpose()).add(Matrix.eye(2));
  const volume = outer.get(0, 0) * outer.get(1, 1) - outer.get(0, 1) ** 2;
  const quadratic =
    (y[0]! ** 2 * outer.get(1, 1) -
      2 * y[0]! * y[1]! * outer.get(0, 1) +
      y[1]! ** 2 * outer.get(0, 0)) /
    volume;
  const exact = -0.5 * quadratic - 0.5 * Math.log(volume);
  expect(logMean(draws.logWeight)).toBeCloseTo(exact, 1);
  expect(logEvidence(mode)).toBeCloseTo(exact, 3);
});

test('a bent reading: mean, spread and evidence of the weighted draws against quadrature', () => {
  const residual = (z: number) => (3 - Math.exp(1.2 * z)) / 0.8;
  const residuals = (z: Float64Array) => [residual(z[0]!)];
  const mode = findMode(residuals, { z: new Float64Array(1) }, true);
  const draws = randomiseThenOptimise(residuals, mode.z, mode.jacobian, 4000, 5);
  let mass = 0;
  let first = 0;
  let second = 0;
  const h = 1e-3;
  for (let z = -8; z < 8; z += h) {
    const p = (Math.exp(-0.5 * residual(z) ** 2 - 0.5 * z * z) / Math.sqrt(2 * Math.PI)) * h;
    mass += p;
    first += p * z;
    second += p * z * z;
  }
  const mean = first / mass;
  const deviation = Math.sqrt(second / mass - mean * mean);
  const found = moments([...draws.z], draws.logWeight);
  expect(Math.abs(found.mean - mean)).toBeLessThan(0.05 * deviation);
  expect(Math.abs(found.deviation / deviation - 1)).toBeLessThan(0.06);
  expect(logMean(draws.logWeight)).toBeCloseTo(Math.log(mass), 1);
  // without the weights the spread would be off by more than that
  const plain = moments([...draws.z], new Float64Array(draws.count));
  expect(Math.abs(plain.mean - mean) + Math.abs(plain.deviation - deviation)).toBeGreaterThan(
    2 * (Math.abs(found.mean - mean) + Math.abs(found.deviation - deviation)),
  );
});

test('draws that count alike are taken by their weights, and worth is counted', () => {
  const taken = takeAlike([Math.log(1), Math.log(3), -Infinity, Math.log(4)], 8, 0.5);
  expect([...taken]).toEqual([0, 1, 1, 1, 3, 3, 3, 3]);
  expect(worthOf([0, 0, 0, 0])).toBeCloseTo(4, 12);
  expect(worthOf([0, -Infinity, -Infinity])).toBeCloseTo(1, 12);
  // Kish: (1 + 3)² / (1 + 9)
  expect(worthOf([Math.log(1), Math.log(3)])).toBeCloseTo(1.6, 12);
});

test('a mode is found from where the first steps would go astray', () => {
  // a step from 0 along the slope there lands far beyond
  const residuals = (z: Float64Array) => [(Math.exp(3 * z[0]!) - 40) / 0.01];
  const { z, converged } = findMode(residuals, { z: new Float64Array(1) }, true);
  expect(converged).toBe(true);
  expect(z[0]!).toBeCloseTo(Math.log(40) / 3, 3);
});
