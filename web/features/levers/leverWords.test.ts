import { feltWords, gainWords, signed } from './leverWords';

const gain = (p05: number, p50: number, p95: number) => ({ p05, p50, p95 });
const watts = (p05: number, p50: number, p95: number) => ({ ...gain(p05, p50, p95), central: p50 });

test('a difference has its sign, nothing has none', () => {
  expect(signed(6.42)).toBe('+6.4');
  expect(signed(-0.31)).toBe('−0.3');
  expect(signed(12.6)).toBe('+13');
  expect(signed(-0.01)).toBe('0.0');
});

test('quieter or louder, cooler or hotter, in one sentence', () => {
  const told = gainWords({
    wattsGained: gain(-2, -1, 0.5),
    dbSaved: gain(-1, -0.4, 0),
    kelvinSaved: gain(0, 1.2, 2),
  });
  expect(told).toBe('−1.0 W (−2.0 to +0.5); at equal watts 0.4 dB louder, 1.2 K cooler');
});

test('too small to feel is said for sure only where it is seldom noticed; a loss is called one', () => {
  const of = (wattsGained: ReturnType<typeof watts>, chanceNoticeable: number, small: boolean) =>
    feltWords({ wattsGained, chanceNoticeable, tooSmallToFeel: small });
  expect(of(watts(1, 3, 5), 0.9, false)).toBe('');
  expect(of(watts(0, 0.1, 0.3), 0.1, true)).toBe('too small to feel');
  expect(of(watts(0, 1, 5), 0.7, true)).toBe('may be too small to feel');
  expect(of(watts(-5, -3, -1), 0, true)).toBe('a loss');
});
