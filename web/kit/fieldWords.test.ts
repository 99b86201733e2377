import { fieldWords } from './fieldWords';

test.each([
  [undefined, '–'],
  [null, 'nothing'],
  [true, 'yes'],
  [24, '24'],
  ['copper', 'copper'],
  [{ value: 24 }, '24'],
  [{ value: 24, plusMinus: 0.1, origin: 'photo', note: 'blurred' }, '24 ± 0.1, photo, blurred'],
  [['fan-left', 'fan-right'], 'fan-left, fan-right'],
  [[{ part: 'fins', fromMm: 0 }, { part: 'plate' }], 'part fins, fromMm 0, part plate'],
])('%j stands as “%s”', (value, words) => expect(fieldWords(value)).toBe(words));

test('what is long is cut', () => {
  expect(fieldWords('x'.repeat(500))).toHaveLength(121);
});
