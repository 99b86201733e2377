import { exampleRecord } from '@zugluft/core/test-support/exampleRecord';
import { careOf } from './careOf';

const record = (lint: number, years: number) => {
  const r = structuredClone(exampleRecord('two-fan-shared-pipes'));
  for (const s of r.finStacks!) s.lintShare = lint;
  for (const d of r.dies!) {
    d.interface = { ...d.interface, ageYears: { value: years, origin: 'estimated' } };
  }
  return r;
};

test.each([
  [0, 0, []],
  [0.24, 1.4, []],
  [0.25, 0, ['fins: 25 % of them hold lint']],
  [0, 1.5, ['paste in 6 to 18 months (usual)']],
  [0.4, 5, ['fins: 40 % of them hold lint', 'paste now (usual)']],
] as const)('with %f of lint and paste of %f years: %j', (lint, years, words) => {
  expect(careOf(record(lint, years))).toEqual(words);
});

test('what the record says nothing of is not told', () => {
  expect(careOf({ format: 'zugluft-record', formatVersion: 1 })).toEqual([]);
});
