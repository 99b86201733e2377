import type { CaseRecord } from '../record/recordSchema';
import { resolveCase } from '../record/resolveCase';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { hasSweep, machineLevelDbA } from './machineLevel';

const two = exampleRecord('two-fan-shared-pipes');
const dataOf = (noise: CaseRecord['noise']) =>
  resolveCase(completeRecord({ ...structuredClone(two), noise }));
const plain = dataOf(undefined);
const level = (data: typeof plain, left: number, right: number) =>
  machineLevelDbA(data, [left, right]);

describe('computed', () => {
  test('no fan turning has no level', () => {
    expect(level(plain, 0, 0)).toBeNull();
  });

  test('half the speed is 15 dB quieter (50·log10 2), one fan of two 3 dB', () => {
    expect(level(plain, 4000, 4000)! - level(plain, 2000, 2000)!).toBeCloseTo(15.05, 2);
    expect(level(plain, 4000, 4000)! - level(plain, 4000, 0)!).toBeCloseTo(3.01, 2);
  });

  test('twice the distance is 6 dB quieter', () => {
    const far = dataOf({ distanceM: 1 });
    expect(level(plain, 4000, 4000)! - level(far, 4000, 4000)!).toBeCloseTo(6.02, 2);
  });
});

describe('a measured sweep', () => {
  const rpm = (x: number) => ({ 'fan-left': x, 'fan-right': x });
  const sweep = [
    { rpm: rpm(5000), dbA: 46 },
    { rpm: rpm(2500), dbA: 30 },
    { rpm: rpm(3500), dbA: 37 },
  ];
  const swept = dataOf({ sweep });

  test('rules at its points, whatever their order', () => {
    expect(hasSweep(swept)).toBe(true);
    for (const s of sweep) {
      const x = s.rpm['fan-left'];
      expect(level(swept, x, x)!).toBeCloseTo(s.dbA, 9);
    }
  });

  test('lies straight between its points over log speed, and goes on by 50·log10 beyond them', () => {
    const middle = Math.sqrt(2500 * 3500);
    expect(level(swept, middle, middle)!).toBeCloseTo(33.5, 6);
    expect(level(swept, 2000, 2000)!).toBeCloseTo(30 + 50 * Math.log10(0.8), 6);
  });

  test('unequal speeds are read at the common speed that would sound alike', () => {
    const one = level(swept, 5000, 0)!;
    // one of two alike fans: the common duty is (1/2)^(1/5)
    const common = 5000 * 0.5 ** 0.2;
    expect(one).toBeCloseTo(level(swept, common, common)!, 6);
    expect(one).toBeLessThan(46);
  });

  test('background is taken off each reading, capped where it is too near', () => {
    const quiet = dataOf({ sweep, backgroundDbA: 27 });
    expect(level(quiet, 2500, 2500)!).toBeCloseTo(30 - 1.3, 6);
    expect(level(quiet, 5000, 5000)!).toBeCloseTo(46, 6);
  });

  test('a reading that falls with speed does not make the level fall', () => {
    const odd = dataOf({
      sweep: [
        { rpm: rpm(2500), dbA: 34 },
        { rpm: rpm(3000), dbA: 33 },
      ],
    });
    expect(level(odd, 3000, 3000)!).toBeGreaterThan(level(odd, 2500, 2500)!);
  });
});
