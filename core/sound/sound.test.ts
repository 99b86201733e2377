import { aWeighting } from './aWeighting';
import { correctForBackground } from './background';
import { distanceChange, fanLevelDbA, sumLevels } from './fanLevel';

// IEC 61672-1, exact octave frequencies 1000·10^(0.3k) Hz
test.each([-39.4, -26.2, -16.1, -8.6, -3.2, 0, 1.2, 1.0, -1.1, -6.6].map((db, i) => [i - 5, db]))(
  'A-weighting at octave %d',
  (k, db) => {
    expect(aWeighting(1000 * 10 ** (0.3 * k!))).toBeCloseTo(db!, 0.6);
    expect(Math.abs(aWeighting(1000 * 10 ** (0.3 * k!)) - db!)).toBeLessThan(0.06);
  },
);

describe('background correction (ISO 3744, from memory)', () => {
  test.each([
    [6, 1.26],
    [10, 0.46],
  ])('%d dB above it: %f dB', (difference, correction) => {
    const { levelDbA, upperBound } = correctForBackground(40, 40 - difference);
    expect(40 - levelDbA).toBeCloseTo(correction, 2);
    expect(upperBound).toBe(false);
  });

  test('above 15 dB none; below 6 dB 1.3 dB and an upper bound', () => {
    expect(correctForBackground(40, 24.9)).toEqual({ levelDbA: 40, upperBound: false });
    expect(correctForBackground(40, 37)).toEqual({ levelDbA: 38.7, upperBound: true });
    expect(correctForBackground(30, 33)).toEqual({ levelDbA: 28.7, upperBound: true });
  });
});

test('levels: two equal sources +3 dB; twice the distance −6 dB; twice the speed +15 dB', () => {
  expect(sumLevels([40, 40])).toBeCloseTo(43.01, 2);
  expect(distanceChange(1)).toBeCloseTo(-6.02, 2);
  expect(fanLevelDbA(0.065, 0.009, 5000, 45) - fanLevelDbA(0.065, 0.009, 2500, 45)).toBeCloseTo(
    15.05,
    2,
  );
});

test('the reference fan has its reference level at 17 m/s (common practice, no source)', () => {
  const rpm = (17 * 60) / (Math.PI * 0.065);
  expect(fanLevelDbA(0.065, 0.009, rpm, 45)).toBeCloseTo(45, 9);
});

test('thinner air is quieter: 20·log10 of density (AMCA 301, from memory)', () => {
  const at = (densityKgM3: number) => fanLevelDbA(0.065, 0.009, 5000, 45, densityKgM3);
  expect(at(1.2)).toBeCloseTo(fanLevelDbA(0.065, 0.009, 5000, 45), 12);
  expect(at(1.2) - at(0.6)).toBeCloseTo(6.02, 2);
});
