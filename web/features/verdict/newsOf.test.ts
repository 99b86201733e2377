import type { EditionChanges } from '@zugluft/core/report/edition';
import { newsOf } from './newsOf';

const NONE: EditionChanges = {
  headline: null,
  figures: [],
  conditions: [],
  record: [],
  words: [],
  asked: [],
};
const rows = (changes: Partial<EditionChanges>) =>
  newsOf(
    { ...NONE, ...changes },
    (p) => `<${p}>`,
    (v) => `[${String(v)}]`,
  );

test('figures read as in the report, with the band where there is one', () => {
  const figure = (cap: string, unit: string) => ({
    figure: 'sustained',
    cap,
    unit,
    before: { p05: 70.4, value: 88.2, p95: 107 },
    after: null,
  });
  expect(rows({ figures: [figure('36', 'W'), figure('off', 'W'), figure('full', 'W')] })).toEqual([
    { what: 'sustained, 36 dB(A)', before: '88 W, 70 to 107', after: 'not told' },
    { what: 'sustained, fans off', before: '88 W, 70 to 107', after: 'not told' },
    { what: 'sustained, full speed', before: '88 W, 70 to 107', after: 'not told' },
  ]);
  const plain = {
    figure: 'service score',
    cap: '',
    unit: 'of 10',
    before: null,
    after: { p05: null, value: 8.333333, p95: null },
  };
  expect(rows({ figures: [plain] })).toEqual([
    { what: 'service score', before: 'not told', after: '8.33 of 10' },
  ]);
});

test('headline, what was asked, conditions, fields of the record and words, in this order', () => {
  expect(
    rows({
      words: ['In short'],
      record: [{ path: 'room.temperatureC', after: 29 }],
      conditions: [{ name: 'Room', before: '23 °C', after: null }],
      asked: [{ name: 'cap', before: '36', after: '40' }],
      headline: { before: 'a', after: 'b' },
    }),
  ).toEqual([
    { what: 'headline', before: 'a', after: 'b' },
    { what: 'cap', before: '36', after: '40' },
    { what: 'Room', before: '23 °C', after: 'not told' },
    { what: 'record, <room.temperatureC>', before: 'not told', after: '[29]' },
    { what: 'words, in short', before: '', after: 'written anew' },
  ]);
});
