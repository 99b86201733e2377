import { DEFAULTS, type DefaultKey } from '../record/defaults';
import { checkLabDefault } from '../record/labDefaults';
import { LEARNED_FACTORS, learnedKey } from './factorEvidence';
import { defaultsOf, isTold } from './learnedDefaults';

const factor = (key: DefaultKey, mean: number, deviation: number) => ({
  key,
  machines: 9,
  mean,
  meanDeviation: deviation / 2,
  between: deviation / 2,
  deviation,
});

test('one deviation of the built-in default is what it is there', () => {
  // 0.9, 0.7 to 1.1, by hand: below the median ln(0.9/0.7), above it ln(1.1/0.9), each over 1.645
  const told = defaultsOf([factor('fans.psi', -1.6448536, 0.5)]);
  const down = Math.log(0.9 / 0.7);
  expect(told['fans.psi']!.value).toBeCloseTo(0.7, 3);
  expect(told['fans.psi']!.low).toBeCloseTo(0.7 * Math.exp(-0.5 * down), 3);
  expect(told['fans.psi']!.high).toBeCloseTo(0.7 * Math.exp(0.5 * down), 3);
});

test.each(LEARNED_FACTORS)(
  '%s: as built in where nothing was learned, and always one that may be kept',
  (key) => {
    // hardly narrower, so that it is told at all
    const as = defaultsOf([factor(key, 0, 0.949999)])[key]!;
    const { value, low, high } = DEFAULTS[key];
    expect(as.value / value).toBeCloseTo(1, 3);
    expect(Math.abs(as.low - low)).toBeLessThan(0.1 * (value - low));
    expect(Math.abs(as.high - high)).toBeLessThan(0.1 * (high - value));
    for (const [mean, deviation] of [
      [3, 0.3],
      [-3, 0.3],
      [0.5, 1.2],
    ] as const) {
      const far = defaultsOf([factor(key, mean, deviation)])[key]!;
      expect(far.low).toBeLessThan(far.value);
      expect(far.value).toBeLessThan(far.high);
      expect(checkLabDefault(key, far)).toEqual([]);
    }
  },
);

test('what the machines do not tell is left out', () => {
  expect(isTold(factor('fans.psi', 0.05, 0.97))).toBe(false);
  expect(isTold(factor('fans.psi', -0.2, 0.97))).toBe(true);
  expect(isTold(factor('fans.psi', 0, 0.9))).toBe(true);
  expect(defaultsOf([factor('fans.psi', 0.05, 0.97)])).toEqual({});
});

test('a factor is known by its own name and that of a kind; a size is none', () => {
  expect(learnedKey('fans.psi')).toBe('fans.psi');
  expect(learnedKey('fans.psi.66x9_5')).toBe('fans.psi');
  for (const other of ['shell.widthMm', 'fans.fan-left.maxRpm', 'bench.adapterEfficiency', 'psi']) {
    expect(learnedKey(other)).toBeNull();
  }
});
