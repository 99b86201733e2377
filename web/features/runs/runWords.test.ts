import { clockWords, readingWords, sig } from './runWords';

test('numbers have three figures, very small ones their power of ten', () => {
  expect([4.9649, 0.0965123, 1, 0, 43.61].map(sig)).toEqual(['4.96', '0.0965', '1', '0', '43.6']);
  expect(sig(0.00000549)).toBe('5.49·10⁻⁶');
  expect(sig(-1.7e-12)).toBe('-1.7·10⁻¹²');
});

test('moments and readings in words', () => {
  expect([clockWords(59.6), clockWords(3605)]).toEqual(['1:00', '60:05']);
  expect([readingWords('junction', 'cpu'), readingWords('level', '')]).toEqual([
    'junction cpu',
    'level',
  ]);
});
