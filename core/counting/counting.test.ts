import fc from 'fast-check';
import {
  finAreaCm2,
  finsOfPitch,
  flattenedWidth,
  pitchOfFins,
  roundDiameter,
  sweptAreaCm2,
  tipSpeedMs,
} from './countingAids';
import { dayAsYear, pasteAge } from './pasteAge';

test('fins counted and pitch measured agree, for any stack', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 5, max: 400 }),
      fc.double({ min: 0.5, max: 3, noNaN: true }),
      fc.double({ min: 0.05, max: 0.3, noNaN: true }),
      (count, pitch, thickness) => {
        const width = (count - 1) * pitch + thickness;
        expect(finsOfPitch(width, pitch, thickness)).toBe(count);
        expect(pitchOfFins(width, count, thickness)).toBeCloseTo(pitch, 9);
      },
    ),
    { endOnFailure: true },
  );
  expect(() => finsOfPitch(70, 0.1, 0.15)).toThrow(RangeError);
  expect(() => finsOfPitch(70, 80, 0.15)).toThrow(RangeError);
});

test('pressed width keeps the length of the wall', () => {
  // an 8 mm pipe pressed to 3 mm is 10.85 mm wide, one of 6 mm pressed to 2 mm 8.28 mm: common practice, no source
  expect(flattenedWidth(8, 3)).toBeCloseTo(10.85, 2);
  expect(flattenedWidth(6, 2)).toBeCloseTo(8.28, 2);
  expect(roundDiameter(flattenedWidth(8, 3), 3)).toBeCloseTo(8, 9);
  const wall = (w: number, t: number) => 2 * (w - t) + Math.PI * t;
  expect(wall(flattenedWidth(8, 3), 3)).toBeCloseTo(Math.PI * 8, 9);
});

test('areas and tip speed by hand', () => {
  expect(finAreaCm2(8.5, 24, 64)).toBeCloseTo(261.12, 6);
  expect(sweptAreaCm2(58, 8)).toBeCloseTo(14.577, 3);
  expect(tipSpeedMs(58, 5000)).toBeCloseTo(15.184, 3);
});

test.each([
  ['2023-05', 2023.375, 0.15],
  ['2023/5', 2023.375, 0.15],
  ['2023-W14', 2023.259, 0.15],
  ['23W14', 2023.259, 0.15],
  ['2314', 2023.259, 0.15],
  ['2022', 2023, 0.58],
])('%s is read as %s', (code, made, plusMinus) => {
  const age = pasteAge(code, 2026.9)!;
  expect(age.made).toBeCloseTo(made, 2);
  expect(age.years).toBeCloseTo(2026.9 - made, 1);
  expect(age.plusMinus).toBeCloseTo(plusMinus, 6);
});

test.each(['', 'soon', '2023-13', '23W60', '2099-01', '12345', '2399'])(
  '“%s” is no date of making',
  (code) => expect(pasteAge(code, 2026.9)).toBeUndefined(),
);

test('a year whose products may still be built is not taken beyond today', () => {
  expect(pasteAge('2026', 2026.9)).toMatchObject({ years: 0 });
});

test('days as shares of a year', () => {
  expect(dayAsYear('2026-01-01')).toBe(2026);
  expect(dayAsYear('2024-07-02')).toBeCloseTo(2024.5, 2);
});
