import fc from 'fast-check';
import { readFigure } from './readFigure';
import { METRIC, shownUnit, toRecordUnit, toShown, toShownStep, unitsFor } from './units';

const INCH = { length: 'in', temperature: '°F', altitude: 'ft' } as const;

test.each([
  ['24', 'mm', { value: 24 }],
  [' 2,5 ', 'mm', { value: 2.5 }],
  ['.5', 'mm', { value: 0.5 }],
  ['1e-3', 'mm', { value: 0.001 }],
  ['−3', '°', { value: -3 }],
  ['0.3 in', 'mm', { value: 7.62 }],
  ['0.3"', 'mm', { value: 7.62 }],
  ['2,5 cm', 'mm', { value: 25 }],
  ['2,5cm', 'mm', { value: 25 }],
  ['1/4 in', 'mm', { value: 6.35 }],
  ['1 1/2 in', 'mm', { value: 38.1 }],
  ['40 µm', 'mm', { value: 0.04 }],
  ['0.04 mm', 'µm', { value: 40 }],
  ['45 %', 'share', { value: 0.45 }],
  ['0.45', 'share', { value: 0.45 }],
  ['206.6 F', '°C', { value: 97 }],
  ['370.15 K', '°C', { value: 97 }],
  ['5 lb', 'kg', { value: 2.26796185 }],
  ['6 min', 's', { value: 360 }],
  ['6 months', 'years', { value: 0.5 }],
  ['3000 ft', 'm', { value: 914.4 }],
  ['2.1 cfm', 'L/s', { value: 0.9910896307 }],
  ['64', undefined, { value: 64 }],
])('“%s” in a field of %s', (text, unit, understood) => {
  expect(readFigure(text, unit)).toEqual({ ...understood, plain: true });
});

test.each([
  ['7.4 mm ± 0.1', 'mm', { value: 7.4, plusMinus: 0.1 }],
  ['7.4 ± 0.1 mm', 'mm', { value: 7.4, plusMinus: 0.1 }],
  ['7.4 +- 0.1', 'mm', { value: 7.4, plusMinus: 0.1 }],
  ['7.4+/-0,1', 'mm', { value: 7.4, plusMinus: 0.1 }],
  ['0.74 ± 0.01 cm', 'mm', { value: 7.4, plusMinus: 0.1 }],
  ['2.5 cm ± 1 mm', 'mm', { value: 25, plusMinus: 1 }],
  ['24 ± 2 %', 'mm', { value: 24, plusMinus: 0.48 }],
  ['0.5 ± 0.05', 'share', { value: 0.5, plusMinus: 0.05 }],
  ['50 % ± 5 %', 'share', { value: 0.5, plusMinus: 0.05 }],
  ['100 F ± 9 F', '°C', { value: 37.77777778, plusMinus: 5 }],
  ['24 photo', 'mm', { value: 24, origin: 'photo' }],
  ['24 mm label', 'mm', { value: 24, origin: 'label' }],
  ['24 mm ± 0.2, measured', 'mm', { value: 24, plusMinus: 0.2, origin: 'measured' }],
  ['~12', 'mm', { value: 12, origin: 'estimated' }],
  ['ca. 12 mm', 'mm', { value: 12, origin: 'estimated' }],
  ['ca 12', 'mm', { value: 12, origin: 'estimated' }],
  ['about 12', 'mm', { value: 12, origin: 'estimated' }],
  ['About 0.5 in', 'mm', { value: 12.7, origin: 'estimated' }],
  ['12?', 'mm', { value: 12, origin: 'estimated' }],
  ['12 mm?', 'mm', { value: 12, origin: 'estimated' }],
  ['12 photo?', 'mm', { value: 12, origin: 'photo' }],
  ['12-14', 'mm', { value: 13, plusMinus: 1, origin: 'estimated' }],
  ['14–12', 'mm', { value: 13, plusMinus: 1, origin: 'estimated' }],
  ['12 to 14 mm', 'mm', { value: 13, plusMinus: 1, origin: 'estimated' }],
  ['1,2-1,4 cm', 'mm', { value: 13, plusMinus: 1, origin: 'estimated' }],
  ['1/4-1/2 in', 'mm', { value: 9.525, plusMinus: 3.175, origin: 'estimated' }],
  ['40-50 %', 'share', { value: 0.45, plusMinus: 0.05, origin: 'estimated' }],
  ['100-118 F', '°C', { value: 42.77777778, plusMinus: 5, origin: 'estimated' }],
  ['-3-5', '°C', { value: 1, plusMinus: 4, origin: 'estimated' }],
  ['12-14 label', 'mm', { value: 13, plusMinus: 1, origin: 'label' }],
])('“%s” in a field of %s says more than a number', (text, unit, understood) => {
  expect(readFigure(text, unit)).toEqual({ ...understood, plain: false });
});

test.each([
  ['abc', 'mm'],
  ['12 W', 'mm'],
  ['12 mm', undefined],
  ['1,2,3', 'mm'],
  ['12-', 'mm'],
  ['12-14-16', 'mm'],
  ['2026-11-25', 'mm'],
  ['12-14 W', 'mm'],
  ['12 - 14 ± 1', 'mm'],
  ['?', 'mm'],
  ['about', 'mm'],
  ['7 ± ', 'mm'],
  ['7 ± 1 ± 2', 'mm'],
  ['7 ± 1 W', 'mm'],
  ['1/0 in', 'mm'],
  ['<script>', 'mm'],
  ['٣', 'mm'],
])('“%s” in a field of %s stays as it was typed', (text, unit) => {
  expect(readFigure(text, unit)).toBe(text.trim());
});

test('nothing is nothing', () => expect(readFigure('  ', 'mm')).toBeUndefined());

test('plain numbers are read in the preferred unit, others in theirs', () => {
  expect(readFigure('1', 'mm', INCH)).toMatchObject({ value: 25.4 });
  expect(readFigure('24 mm', 'mm', INCH)).toMatchObject({ value: 24 });
  expect(readFigure('212', '°C', INCH)).toMatchObject({ value: 100 });
  expect(readFigure('0.3 ± 0.004', 'mm', INCH)).toMatchObject({ value: 7.62, plusMinus: 0.1016 });
  expect(readFigure('40', 'µm', INCH)).toMatchObject({ value: 40 });
  expect(shownUnit('W', INCH)).toBe('W');
});

test('what is shown and read again is what was there, in any preference', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.01, max: 900, noNaN: true }),
      fc.constantFrom('mm', '°C', 'm'),
      fc.constantFrom(METRIC, INCH),
      (value, unit, preference) => {
        const step = toShownStep(value / 7, unit, preference);
        const text = `${toShown(value, unit, preference)} ± ${step}`;
        const read = readFigure(text, unit, preference) as { value: number; plusMinus: number };
        expect(read.value).toBeCloseTo(value, 5);
        expect(read.plusMinus).toBeCloseTo(value / 7, 5);
      },
    ),
    { endOnFailure: true },
  );
});

test('whatever is typed, reading never throws and never invents a number that is none', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 40 }), (text) => {
      const read = readFigure(text, 'mm');
      if (typeof read === 'object') expect(Number.isFinite(read.value)).toBe(true);
    }),
    { numRuns: 2000, endOnFailure: true },
  );
});

test('units of other quantities are none', () => {
  expect(toRecordUnit(1, 'kg', 'mm')).toBeUndefined();
  expect(unitsFor('mm')).toContain('in');
  expect(unitsFor('nothing')).toEqual([]);
});
