import { shortNames } from './shortNames';

test('a name is as long as it must be to tell machines apart, with what does so first', () => {
  expect(
    shortNames([
      'Velmara Quill 14, 8-core, one thin fan',
      'Oslund Drift 15, Studio, old paste',
      'Oslund Drift 15, Studio, new paste',
      'Oslund Drift 15, Office',
    ]),
  ).toEqual([
    'Velmara Quill 14',
    'Studio, old paste, Oslund Drift 15',
    'Studio, new paste, Oslund Drift 15',
    'Office, Oslund Drift 15',
  ]);
});

test('what all share is left out, unless nothing else is there', () => {
  expect(shortNames(['A 1, Studio, x', 'A 1, Office, y'])).toEqual(['Studio', 'Office']);
  expect(shortNames(['A 1', 'A 1, Office'])).toEqual(['A 1', 'Office']);
  expect(shortNames(['A 1, x', 'A 1, x'])).toEqual(['x', 'x']);
  expect(shortNames(['A 1, x'])).toEqual(['A 1']);
  expect(shortNames([])).toEqual([]);
});
