import { wattsWanted } from './wattsWanted';

test.each([
  ['80', 80],
  ['80 W', 80],
  ['62,5', 62.5],
  ['~80', 80],
  ['0.1 kW', 100],
])('%s are watts', (text, watts) => expect(wattsWanted(text)).toBe(watts));

test.each([null, '', ' ', '0', '-5', '10000', 'many', '1e9', '80 dB'])('%s is none', (text) =>
  expect(wattsWanted(text)).toBeNull(),
);
