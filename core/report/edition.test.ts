import { exampleRecord } from '../test-support/exampleRecord';
import { NO_ARTICLE } from './article';
import { editionChanges, nothingNew, type EditionSource } from './edition';

const figure = (cap: string, value: number, p05 = value - 5) => ({
  figure: 'sustained',
  cap,
  unit: 'W',
  p05,
  value,
  p95: value + 5,
  from: 'computed' as const,
});

const first: EditionSource = {
  headline: 'Holds 90 W at 36 dB(A).',
  figures: [figure('36', 90), figure('40', 100)],
  conditions: [
    { name: 'Room', value: '23 °C' },
    { name: 'Firmware', value: '1.04' },
  ],
  record: exampleRecord('one-die'),
  article: { ...NO_ARTICLE, lead: 'Quiet.' },
  program: '1.0',
  cap: '36',
  setting: null,
  units: 'metric',
};

test('the same again has nothing new, however the words are spaced', () => {
  const again = { ...structuredClone(first), article: { ...NO_ARTICLE, lead: ' Quiet.\n' } };
  expect(nothingNew(editionChanges(first, again))).toBe(true);
});

test('figures that read otherwise, that are new and that are gone', () => {
  const changes = editionChanges(first, {
    ...first,
    // the same median with another band is another figure
    figures: [figure('36', 90, 80), figure('45', 110)],
  });
  expect(changes.figures).toEqual([
    {
      figure: 'sustained',
      cap: '36',
      unit: 'W',
      before: { p05: 85, value: 90, p95: 95 },
      after: { p05: 80, value: 90, p95: 95 },
    },
    expect.objectContaining({ cap: '40', before: { p05: 95, value: 100, p95: 105 }, after: null }),
    expect.objectContaining({ cap: '45', before: null, after: { p05: 105, value: 110, p95: 115 } }),
  ]);
  expect(nothingNew(changes)).toBe(false);
});

test.each(['p05', 'value', 'p95'] as const)(
  'a figure whose %s alone reads otherwise is told',
  (end) => {
    const [own, other] = first.figures;
    const changed = { ...own!, [end]: own![end]! + 1 };
    const { figures } = editionChanges(first, { ...first, figures: [changed, other!] });
    expect(figures).toHaveLength(1);
    expect(figures[0]!.after![end]).toBe(own![end]! + 1);
  },
);

test.each<[string, Partial<EditionSource>, object]>([
  [
    'headline',
    { headline: 'Holds 80 W.' },
    { headline: { before: first.headline, after: 'Holds 80 W.' } },
  ],
  [
    'conditions',
    { conditions: [{ name: 'Room', value: '25 °C' }] },
    {
      conditions: [
        { name: 'Room', before: '23 °C', after: '25 °C' },
        { name: 'Firmware', before: '1.04', after: null },
      ],
    },
  ],
  [
    'words',
    { article: { ...NO_ARTICLE, lead: 'Quiet.', closing: 'Buy a stand.' } },
    { words: ['In short'] },
  ],
  ['cap', { cap: '40' }, { asked: [{ name: 'cap', before: '36', after: '40' }] }],
  [
    'setting',
    { setting: 'stage' },
    { asked: [{ name: 'setting', before: 'as recorded', after: 'stage' }] },
  ],
  [
    'ratio',
    { ratio: '2:3' },
    { asked: [{ name: 'CPU to GPU', before: 'as the setting has it', after: '2:3' }] },
  ],
  ['units', { units: 'both' }, { asked: [{ name: 'units', before: 'metric', after: 'both' }] }],
  ['program', { program: '1.1' }, { asked: [{ name: 'program', before: '1.0', after: '1.1' }] }],
])('another %s is told, and alone', (_, other, told) => {
  const changes = editionChanges(first, { ...first, ...other });
  const none = { headline: null, figures: [], conditions: [], record: [], words: [], asked: [] };
  expect(changes).toEqual({ ...none, ...told });
  expect(nothingNew(changes)).toBe(false);
});

test('a field of the record that differs is named by its path', () => {
  const record = structuredClone(first.record);
  record.room = { ...record.room, temperatureC: 27 };
  const changes = editionChanges(first, { ...first, record });
  expect(changes.record).toMatchObject([{ path: 'room.temperatureC', after: 27 }]);
  expect(nothingNew(changes)).toBe(false);
});
