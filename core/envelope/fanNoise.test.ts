import { resolveCase } from '../record/resolveCase';
import { machineLevelDbA } from '../sound/machineLevel';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { fanNoise, fillNoise, leastStart, noiseSum, type FanNoise } from './fanNoise';
import { controlGroups, speeds } from './fanStates';

/** Fans as they are told: weight and the duty at which each starts, by group. */
function fans(...groups: [weight: number, start: number][][]): FanNoise {
  const all = groups.flat();
  let next = 0;
  return {
    weights: Float64Array.from(all, ([w]) => w),
    leastDuty: Float64Array.from(all, ([, s]) => s),
    groups: groups.map((g) => g.map(() => next++)),
  };
}
const alike = fans([[1, 0]], [[1, 0]]);

describe('filling a level', () => {
  test('two equal fans, one at half the duty of the other, as loud as both at 0.8 (worked by hand)', () => {
    // k⁵ (1 + 1/32) = 2 · 0.8⁵, so k = 0.9133
    const out: number[] = [];
    expect(fillNoise(alike, [1, 0.5], 2 * 0.8 ** 5, out)).toBe(true);
    expect(out[0]).toBeCloseTo(0.91332, 5);
    expect(out[1]).toBeCloseTo(0.45666, 5);
  });

  test('one that stays leaves the rest to the other, or is too loud alone', () => {
    const out: number[] = [];
    expect(fillNoise(alike, [0.6, 1], 1, out, 0)).toBe(true);
    expect(out[0]).toBe(0.6);
    expect(out[1]).toBeCloseTo((1 - 0.6 ** 5) ** 0.2, 9);
    expect(fillNoise(alike, [0.9, 1], 0.5, out, 0)).toBe(false);
  });

  test('none turns faster than it can: what one leaves the other takes', () => {
    const out: number[] = [];
    expect(fillNoise(alike, [1, 0.3], 1.5, out)).toBe(true);
    expect(out[0]).toBe(1);
    expect(out[1]).toBeCloseTo(0.5 ** 0.2, 9);
  });

  test('no fan is stopped that is not to be, and where all are too loud that is told', () => {
    const two = fans([[1, 0.4]], [[1, 0.4]]);
    const out: number[] = [];
    const floors = [0.4, 0.4];
    expect(fillNoise(two, [1, 0.3], 0.1, out)).toBe(true);
    expect(out[1]).toBeLessThan(0.4);
    expect(fillNoise(two, [1, 0.3], 0.1, out, -1, floors)).toBe(true);
    expect(out[1]).toBe(0.4);
    expect(out[0]).toBeCloseTo((0.1 - 0.4 ** 5) ** 0.2, 9);
    expect(fillNoise(two, [1, 0.3], 0.02, out, -1, floors)).toBe(false);
  });

  test('a fan of a group that stands still makes no sound, and starts on the way', () => {
    const group = fans([
      [1, 0.3],
      [5, 0.6],
    ]);
    expect(noiseSum(group, 0.5)).toBeCloseTo(0.5 ** 5, 12);
    expect(noiseSum(group, [0.7])).toBeCloseTo(6 * 0.7 ** 5, 12);
    const out: number[] = [];
    // between what is heard just below the start and at it there is no duty: the quieter one
    expect(fillNoise(group, [1], 0.3, out)).toBe(true);
    expect(out[0]).toBeCloseTo(0.6, 6);
    expect(out[0]!).toBeLessThan(0.6);
    expect(leastStart(group, 0)).toBeCloseTo(0.3, 6);
    expect(leastStart(group, 0)).toBeGreaterThan(0.3);
  });
});

test.each([false, true])(
  'what fills the level is as loud as it in decibels, measured: %s',
  (measured) => {
    const record = structuredClone(exampleRecord('two-fan-shared-pipes'));
    for (const f of record.fans!) f.control = 'own';
    record.fans![1]!.impellerDiameterMm = 47;
    if (measured) {
      const rpm = (x: number) => ({ 'fan-left': x, 'fan-right': x });
      record.noise = {
        sweep: [
          { rpm: rpm(2500), dbA: 30 },
          { rpm: rpm(3500), dbA: 37 },
          { rpm: rpm(5000), dbA: 46 },
        ],
      };
    }
    const data = resolveCase(completeRecord(record));
    const groups = controlGroups(data);
    const noise = fanNoise(data, groups);
    const levelOf = (duties: readonly number[]) =>
      machineLevelDbA(data, speeds(data, groups, duties))!;
    for (const duty of [0.45, 0.6, 0.8]) {
      for (const ratio of [0.8, 1.2]) {
        const out: number[] = [];
        expect(fillNoise(noise, [1, ratio], noiseSum(noise, duty), out)).toBe(true);
        expect(out[1]! / out[0]!).toBeCloseTo(ratio, 9);
        expect(levelOf(out)).toBeCloseTo(levelOf([duty, duty]), 6);
      }
    }
  },
);
