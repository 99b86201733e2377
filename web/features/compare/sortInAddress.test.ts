import { sortingIn, sortText } from './sortInAddress';

test('by watts, the most first, unless the address tells a column that is there', () => {
  const usual = [{ id: 'watts', desc: true }];
  for (const text of [null, '', '-', '-watts', 'toString', '--watts', 'finAreaCm2,name', 'quiet'])
    expect([text, sortingIn(text, false)]).toEqual([text, usual]);
  expect(sortingIn('watts', false)).toEqual([{ id: 'watts', desc: false }]);
  expect(sortingIn('-finAreaCm2', false)).toEqual([{ id: 'finAreaCm2', desc: true }]);
  expect(sortingIn('quiet', true)).toEqual([{ id: 'quiet', desc: false }]);
});

test('what is told comes back; what is usual is not told', () => {
  for (const text of ['name', '-name', 'watts', '-wattsPerKg', 'quiet'])
    expect(sortText(sortingIn(text, true))).toBe(text);
  expect(sortText(sortingIn(null, true))).toBe('');
  expect(sortText([])).toBe('');
});
