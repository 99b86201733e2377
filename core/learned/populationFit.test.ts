import { randomStream } from '../uncertainty/random';
import { normalQuantile } from '../uncertainty/normal';
import type { DefaultKey } from '../record/defaults';
import type { FactorEvidence } from './factorEvidence';
import { BETWEEN_SHARE, fitPopulation } from './populationFit';

const KEY: DefaultKey = 'finStacks.uaFactor';

const factorsOf = (...args: Parameters<typeof fitPopulation>) => fitPopulation(...args).factors;

/** A machine whose runs alone say that a factor is m ± s. */
const says = (m: number, s: number, key: DefaultKey = KEY): FactorEvidence => ({
  keys: [key],
  information: Float64Array.of(1 / (s * s)),
  weighted: Float64Array.of(m / (s * s)),
});

/**
 * The same by brute force: τ² on a fine grid, μ and each z integrated in closed form.
 * `m_i ~ N(μ, τ² + s_i²)`, `μ ~ N(0, 1 − s)`, `τ² ~ scaled inverse χ²(4, s / 2)`.
 */
function byQuadrature(data: readonly [m: number, s: number][]) {
  const a = 1 - BETWEEN_SHARE;
  const freedom = 4;
  const scale = BETWEEN_SHARE / 2;
  const total = { w: 0, mu: 0, mu2: 0, tau2: 0 };
  const steps = 40_000;
  for (let i = 0; i < steps; i++) {
    // even in log τ²
    const logT = Math.log(1e-4) + ((i + 0.5) / steps) * Math.log(1e8);
    const t = Math.exp(logT);
    let precision = 1 / a;
    let pull = 0;
    let logL = -(1 + freedom / 2) * logT - (freedom * scale) / (2 * t) + logT;
    for (const [m, s] of data) {
      const v = t + s * s;
      precision += 1 / v;
      pull += m / v;
      logL += -0.5 * Math.log(v) - (0.5 * m * m) / v;
    }
    const mean = pull / precision;
    logL += 0.5 * pull * mean - 0.5 * Math.log(precision);
    const w = Math.exp(logL);
    total.w += w;
    total.mu += w * mean;
    total.mu2 += w * (mean * mean + 1 / precision);
    total.tau2 += w * t;
  }
  const mean = total.mu / total.w;
  const meanVariance = total.mu2 / total.w - mean * mean;
  const tau2 = total.tau2 / total.w;
  return {
    mean,
    meanDeviation: Math.sqrt(meanVariance),
    between: Math.sqrt(tau2),
    deviation: Math.sqrt(meanVariance + tau2),
  };
}

test.each([
  ['one machine', [[1.2, 0.3]]],
  ['machines that agree', Array.from({ length: 12 }, (_, i) => [0.8 + 0.02 * i, 0.2])],
  ['machines that differ', Array.from({ length: 12 }, (_, i) => [i % 2 ? 1.5 : -0.9, 0.3])],
  ['machines that tell little', Array.from({ length: 6 }, () => [2, 3])],
] as [string, [number, number][]][])('%s: as by quadrature', (_, data) => {
  const [told] = factorsOf(
    data.map(([m, s]) => says(m, s)),
    { sweeps: 30_000 },
  );
  const known = byQuadrature(data);
  expect(told!.machines).toBe(data.length);
  for (const x of ['mean', 'meanDeviation', 'between', 'deviation'] as const) {
    expect([x, Math.abs(told![x] - known[x]) < 0.02]).toEqual([x, true]);
  }
});

test('machines that say nothing leave the built-in default as it is', () => {
  const nothing = { keys: [KEY], information: new Float64Array(1), weighted: new Float64Array(1) };
  const [told] = factorsOf([nothing, nothing, nothing], { sweeps: 8000 });
  expect(told!.mean).toBeCloseTo(0, 1);
  expect(told!.deviation).toBeCloseTo(1, 1);
  expect(factorsOf([])).toEqual([]);
});

test('the more machines agree, the narrower the next one’s band', () => {
  const widths = [1, 3, 10, 30].map(
    (n) => factorsOf(Array.from({ length: n }, () => says(0.5, 0.3)))[0]!.deviation,
  );
  for (const [i, w] of widths.entries()) expect(w).toBeLessThan(i === 0 ? 1 : widths[i - 1]!);
  expect(widths[3]).toBeLessThan(0.4);
});

test('what only a sum of two factors tells moves the sum, and leaves the difference as it was', () => {
  // z₁ + z₂ = 2 ± 0.2 in each machine
  const s2 = 0.04;
  const machines = Array.from({ length: 15 }, (): FactorEvidence => ({
    keys: ['fans.phi', 'fans.psi'],
    information: Float64Array.of(1 / s2, 1 / s2, 1 / s2, 1 / s2),
    weighted: Float64Array.of(2 / s2, 2 / s2),
  }));
  const { factors: told, covariance } = fitPopulation(machines);
  expect(told.map((f) => f.key)).toEqual(['fans.phi', 'fans.psi']);
  expect(told[0]!.mean + told[1]!.mean).toBeCloseTo(2, 0);
  // each alone is hardly better known than before
  expect(told[0]!.meanDeviation).toBeGreaterThan(0.35);
  // and the covariance knows both
  const [a, b, , d] = covariance as unknown as [number, number, number, number];
  expect(a + 2 * b + d).toBeLessThan(0.75 * (a + d));
  expect(Math.sqrt(a)).toBeCloseTo(told[0]!.deviation, 9);
});

test('two kinds of fans in one machine are two instances of one default, and one machine', () => {
  const two: FactorEvidence = {
    keys: ['fans.psi', 'fans.psi'],
    information: Float64Array.of(9, 0, 0, 9),
    weighted: Float64Array.of(9, 9),
  };
  const [told] = factorsOf([two], { sweeps: 8000 });
  const known = byQuadrature([
    [1, 1 / 3],
    [1, 1 / 3],
  ]);
  expect(told!.machines).toBe(1);
  expect(Math.abs(told!.mean - known.mean)).toBeLessThan(0.02);
});

test('the range foretold for the next machine holds it as often as it says', () => {
  const next = randomStream(7);
  const normal = () => normalQuantile(next());
  let inside = 0;
  const laboratories = 200;
  for (let l = 0; l < laboratories; l++) {
    const mu = Math.sqrt(1 - BETWEEN_SHARE) * normal();
    // scaled inverse χ² with 4 degrees of freedom and mean s
    const chi = Array.from({ length: 4 }, normal).reduce((s, x) => s + x * x, 0);
    const tau = Math.sqrt((4 * (BETWEEN_SHARE / 2)) / chi);
    const machines = Array.from({ length: 8 }, () =>
      says(mu + tau * normal() + 0.4 * normal(), 0.4),
    );
    const [told] = factorsOf(machines, { sweeps: 400, seed: l });
    const truth = mu + tau * normal();
    if (Math.abs(truth - told!.mean) <= 1.6449 * told!.deviation) inside++;
  }
  // 180 expected, 4.2 one deviation
  expect(inside).toBeGreaterThan(167);
  expect(inside).toBeLessThan(194);
});

test('negative information is refused', () => {
  const wrong = { ...says(0, 1), information: Float64Array.of(-9) };
  expect(() => fitPopulation([wrong])).toThrow('negative');
});
