import { clockWords } from './useNow';

test.each([
  [0, '0:00'],
  [65.9, '1:05'],
  [3599, '59:59'],
  [3600, '1:00:00'],
  [86_399, '23:59:59'],
  [-3, '0:00'],
])('%d s is %s', (seconds, words) => {
  expect(clockWords(seconds)).toBe(words);
});
