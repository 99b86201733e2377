import { normalQuantile } from './normal';
import { effectiveCount, quantileOfDraws, quantileOfSorted } from './quantile';
import { randomStream } from './random';

const normal = (next: () => number) => normalQuantile(Math.min(1 - 1e-12, Math.max(1e-12, next())));

test.each([0, 0.5, 0.9])(
  'a chain whose neighbours correlate by %f is worth n (1 − ρ)/(1 + ρ) draws',
  (rho) => {
    // first-order autoregression: closed form, Geyer 1992, from memory
    const next = randomStream(5);
    const n = 20_000;
    const chain = new Float64Array(n);
    for (let i = 1; i < n; i++) {
      chain[i] = rho * chain[i - 1]! + Math.sqrt(1 - rho * rho) * normal(next);
    }
    const expected = (n * (1 - rho)) / (1 + rho);
    expect(effectiveCount(chain) / expected).toBeGreaterThan(0.8);
    expect(effectiveCount(chain) / expected).toBeLessThan(1.2);
  },
);

test('a chain that stands still, and one that alternates, are worth no more than they have', () => {
  expect(effectiveCount([3, 3, 3])).toBe(3);
  expect(effectiveCount([1, -1, 1, -1, 1, -1])).toBeLessThanOrEqual(6);
});

test('a range of few draws holds the next one as often as it says', () => {
  const next = randomStream(9);
  const rounds = 16_000;
  let inside = 0;
  let narrow = 0;
  for (let k = 0; k < rounds; k++) {
    const draws = Float64Array.from({ length: 40 }, () => normal(next)).sort();
    const one = normal(next);
    if (one >= quantileOfDraws(draws, 0.05) && one <= quantileOfDraws(draws, 0.95)) inside++;
    if (one >= quantileOfSorted(draws, 0.05) && one <= quantileOfSorted(draws, 0.95)) narrow++;
  }
  // three deviations of a binomial
  expect(Math.abs(inside / rounds - 0.9)).toBeLessThan(0.0071);
  expect(narrow).toBeLessThan(inside);
});

test('fewer effective draws never narrow a range', () => {
  const draws = Float64Array.from({ length: 200 }, (_, i) => i);
  let last = Infinity;
  for (const worth of [200, 100, 50, 20, 2]) {
    const low = quantileOfDraws(draws, 0.05, worth);
    expect(low).toBeLessThanOrEqual(last);
    last = low;
  }
});
