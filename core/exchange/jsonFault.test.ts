import { jsonFault } from './jsonFault';

const bounds = { depth: 4, values: 10 };

test.each<[string, string | null]>([
  ['{"a":[[1,2],{"b":3}]}', null],
  ['[[[[1]]]]', null],
  ['[[[[[1]]]]]', 'is nested more than 4 levels deep'],
  ['[1,2,3,4,5,6,7,8,9]', null],
  ['[1,2,3,4,5,6,7,8,9,0]', 'holds more than 10 values'],
  ['[{},{},{},{},{}]', 'holds more than 10 values'],
  // brackets and commas in strings, and quotes that are escaped, do not count
  ['"[[[[[[,,,,,,,,,,,,"', null],
  ['"\\"[[[[[["', null],
  ['"\\\\"', null],
  ['"a\\u0000b"', 'holds U+0000, which no text may'],
  // a backslash that is itself escaped begins nothing
  ['"a\\\\u0000b"', null],
  ['{"\\u0000":1}', 'holds U+0000, which no text may'],
  ['', null],
])('%s', (text, fault) => {
  expect(jsonFault(text, bounds)).toBe(fault);
});

test('closing brackets give room again, unclosed strings end nothing', () => {
  expect(jsonFault('[[],[],[[[]]]]', bounds)).toBeNull();
  expect(jsonFault('"[[[[[[[[', bounds)).toBeNull();
});
