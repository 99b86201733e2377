import { independentRanges } from './independentRanges';

/** Variance of an output under a covariance. */
const spread = (g: readonly number[], covariance: readonly number[]) =>
  g.reduce(
    (sum, a, i) => sum + g.reduce((s, b, j) => s + a * b * covariance[i * g.length + j]!, 0),
    0,
  );

test('factors that do not hang together keep their own widths', () => {
  const covariance = [1, 0, 0, 0.25];
  const told = independentRanges(Float64Array.from(covariance), [Float64Array.of(1, 2)]);
  expect(told[0]).toBeCloseTo(1, 6);
  expect(told[1]).toBeCloseTo(0.25, 6);
});

test('of two of which only the sum is told, each is narrowed so that the sum is as told', () => {
  // each 1, the sum 0.2² apart: correlation −0.98
  const r = (0.04 - 2) / 2;
  const told = independentRanges(Float64Array.of(1, r, r, 1), [Float64Array.of(1, 1)]);
  // as near to its own variance as the sum allows, which is bounded below
  expect(told[0]).toBeCloseTo(0.05, 2);
  expect(told[0]).toBeCloseTo(told[1]!, 9);
});

test('outputs of several machines keep the spread they had', () => {
  const covariance = [0.9, -0.5, 0.1, -0.5, 0.8, 0, 0.1, 0, 0.6];
  const slopes = [
    [1, 0.7, 0.2],
    [0.8, 0.9, 0.1],
    [1, 0.6, 0.4],
  ];
  const told = independentRanges(
    Float64Array.from(covariance),
    slopes.map((g) => Float64Array.from(g)),
  );
  for (const g of slopes) {
    const now = g.reduce((sum, x, k) => sum + x * x * told[k]!, 0);
    expect(now / spread(g, covariance)).toBeGreaterThan(0.85);
    expect(now / spread(g, covariance)).toBeLessThan(1.15);
  }
  told.forEach((d, k) => expect(d).toBeLessThanOrEqual(covariance[k * 3 + k]! + 1e-12));
});

test('without outputs, or with one that no factor moves, all stays', () => {
  const covariance = Float64Array.of(1, 0.5, 0.5, 1);
  expect([...independentRanges(covariance, [])]).toEqual([1, 1]);
  expect([...independentRanges(covariance, [new Float64Array(2)])]).toEqual([1, 1]);
});
