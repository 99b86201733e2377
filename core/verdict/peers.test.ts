import { cumulativeStdNormalProbability } from 'simple-statistics';
import {
  arePeers,
  chanceOfBands,
  normalBelow,
  peersOf,
  rankOf,
  rankWords,
  type PeerRow,
} from './peers';

// eslint-disable-next-line @typescript-eslint/no-require-imports
const { jStat } = require('jstat') as {
  jStat: { normal: { cdf: (x: number, mean: number, deviation: number) => number } };
};

const row = (id: string, p50: number, half = 0.1, more: Partial<PeerRow> = {}): PeerRow => ({
  id,
  name: id,
  band: { p05: p50 * (1 - half), p50, p95: p50 * (1 + half) },
  watts: p50,
  thicknessMm: 20,
  ...more,
});

test('the normal distribution agrees with a statistics package', () => {
  // reference: jstat
  for (let z = -5; z <= 5; z += 0.25) {
    expect(Math.abs(normalBelow(z) - jStat.normal.cdf(z, 0, 1))).toBeLessThan(7.5e-8);
  }
  expect(Math.abs(normalBelow(1) - cumulativeStdNormalProbability(1))).toBeLessThan(1e-3);
});

test('the chance from bands is that of two independent log-normal figures', () => {
  const band = (p50: number, s: number) => ({
    p05: p50 * Math.exp(-1.6448536 * s),
    p50,
    p95: p50 * Math.exp(1.6448536 * s),
  });
  // closed form: Φ(ln(a/b) / √(s² + t²))
  const chance = chanceOfBands(band(100, 0.1), band(90, 0.05));
  expect(chance).toBeCloseTo(jStat.normal.cdf(Math.log(100 / 90) / Math.hypot(0.1, 0.05), 0, 1), 6);
  expect(chanceOfBands(band(90, 0.05), band(100, 0.1))).toBeCloseTo(1 - chance, 6);
  expect(chanceOfBands(band(90, 0.1), band(90, 0.1))).toBeCloseTo(0.5, 6);
});

test('with a skewed band the end that lies towards the other counts', () => {
  const skewed = { p05: 99, p50: 100, p95: 200 };
  const sure = { p05: 120, p50: 120, p95: 120 };
  // from 100 up to 120 lies well within the long end
  expect(chanceOfBands(skewed, sure)).toBeGreaterThan(0.2);
  expect(chanceOfBands(skewed, { p05: 80, p50: 80, p95: 80 })).toBeGreaterThan(0.999);
});

test.each([
  [0, 0, 0.5],
  [10, 0, 1],
  [0, 10, 0],
])('with certain bands of %f and %f the chance is %f', (a, b, chance) => {
  const sure = (x: number) => ({ p05: x, p50: x, p95: x });
  expect(chanceOfBands(sure(a), sure(b))).toBe(chance);
});

test('peers are alike in all that both have', () => {
  const own = { thicknessMm: 20, massKg: 2, watts: 90 };
  expect(arePeers(own, { thicknessMm: 25, massKg: 2.6, watts: 170 })).toBe(true);
  expect(arePeers(own, { thicknessMm: 27, massKg: 2, watts: 90 })).toBe(false);
  expect(arePeers(own, { thicknessMm: 15, massKg: 2, watts: 90 })).toBe(false);
  expect(arePeers(own, { thicknessMm: 20, massKg: 2.8, watts: 90 })).toBe(false);
  expect(arePeers(own, { thicknessMm: 20, massKg: 2, watts: 181 })).toBe(false);
  expect(arePeers(own, { thicknessMm: 20 })).toBe(true);
  expect(arePeers({}, { thicknessMm: 20 })).toBe(false);
});

test('a place is said only as far as the chances go', () => {
  expect(rankOf([0.95, 0.02, 0.99])).toEqual({ best: 2, worst: 2, of: 4 });
  expect(rankOf([0.95, 0.5, 0.02])).toEqual({ best: 2, worst: 3, of: 4 });
  expect(rankWords({ best: 3, worst: 3, of: 7 })).toBe('third of 7 at its size');
  expect(rankWords({ best: 2, worst: 4, of: 7 })).toBe(
    'between second and fourth of 7 at its size',
  );
  expect(rankWords({ best: 12, worst: 12, of: 20 })).toBe('number 12 of 20 at its size');
  expect(rankWords(rankOf([]))).toBe('nothing of its size to hold it against');
});

test('among many the nearest are shown, itself always among them, and the rank counts all', () => {
  const own = row('own', 100);
  const others = Array.from({ length: 60 }, (_, i) => row(`m${i}`, 60 + 2 * i));
  const { items, rank } = peersOf(own, others);
  expect(items).toHaveLength(12);
  expect(items.some((p) => p.isOwn)).toBe(true);
  expect(rank.of).toBe(61);
  const watts = items.map((p) => p.band.p50);
  expect(watts).toEqual([...watts].sort((a, b) => b - a));
  const last = peersOf(row('own', 55), others);
  expect(last.items).toHaveLength(12);
  expect(last.items[11]!.isOwn).toBe(true);
  const alone = peersOf(own, [row('far', 100, 0.1, { thicknessMm: 40 })]);
  expect(alone.items.map((p) => p.id)).toEqual(['own']);
});
