import { parseRecord } from '@zugluft/core/record/parseRecord';
import {
  addPart,
  copyPart,
  emptyRecord,
  figureText,
  getAt,
  partsOf,
  readTyped,
  removePart,
  renamePart,
  setAt,
  typeFigure,
  type Draft,
} from './draft';

const filled = (): Draft => {
  let d = emptyRecord();
  for (const list of [
    'dies',
    'dies',
    'plates',
    'plates',
    'fans',
    'finStacks',
    'heatPipes',
    'vents',
    'vents',
  ] as const) {
    d = addPart(d, list);
  }
  return d;
};

test('vents that are recorded while the machine is closed are those below, air entering', () => {
  let d = addPart(addPart(emptyRecord(), 'vents'), 'vents');
  expect(partsOf(d, 'vents').map((v) => [v['flow'], v['side']])).toEqual([
    ['intake', 'base'],
    ['intake', 'base'],
  ]);
  // once all fans are fed, one behind a stack
  d = addPart(addPart(addPart(d, 'fans'), 'finStacks'), 'vents');
  expect(partsOf(d, 'vents')[2]).toMatchObject({ flow: 'exhaust', side: 'rear' });
});

test('a vent seen before the machine was opened is linked to the fan and the stack that come later', () => {
  let d = emptyRecord();
  d = setAt(
    d,
    ['vents'],
    [
      { id: 'in-1', flow: 'intake', side: 'base' },
      { id: 'out-1', flow: 'exhaust', side: 'rear' },
      { id: 'in-2', flow: 'intake', side: 'base', fans: [] },
      { id: 'still', flow: 'passive' },
    ],
  );
  d = addPart(addPart(d, 'fans'), 'finStacks');
  const links = () => partsOf(d, 'vents').map((v) => [v['fans'], v['finStacks']]);
  expect(links()).toEqual([
    [['fan-1'], undefined],
    [undefined, ['fins-1']],
    [[], undefined],
    [undefined, undefined],
  ]);
  // a copy too; and once all are linked nothing is changed
  d = copyPart(d, 'fans', 0);
  expect(links()[2]).toEqual([['fan-2'], undefined]);
  d = addPart(addPart(d, 'fans'), 'finStacks');
  expect(links()[1]).toEqual([undefined, ['fins-1']]);
  expect(links()[3]).toEqual([undefined, undefined]);
});

test.each([
  ['24', 24],
  [' 2,5 ', 2.5],
  ['.5', 0.5],
  ['−3', -3],
  ['1e-3', 0.001],
  ['', undefined],
  ['abc', 'abc'],
  ['12 mm', '12 mm'],
  ['1,2,3', '1,2,3'],
])('typed %p is read as %p', (text, value) => expect(readTyped(text)).toBe(value));

test('a figure keeps its ± and origin when its value is typed anew, and leaves when emptied', () => {
  const d = { a: { value: 3, plusMinus: 0.1, origin: 'measured' } };
  expect(typeFigure(d, ['a'], '4')).toEqual({
    a: { value: 4, plusMinus: 0.1, origin: 'measured' },
  });
  expect(typeFigure(d, ['a'], '4x')).toEqual({
    a: { value: '4x', plusMinus: 0.1, origin: 'measured' },
  });
  expect(typeFigure(d, ['a'], '')).toEqual({});
  expect(figureText(d.a)).toBe('3');
  expect(figureText(undefined)).toBe('');
});

test('a typed figure may say its unit, its ± and its origin', () => {
  expect(typeFigure({}, ['a'], '0.3 in ± 0.004', 'mm')).toEqual({
    a: { value: 7.62, plusMinus: 0.1016 },
  });
  expect(typeFigure({ a: { value: 3, note: 'kept' } }, ['a'], '4 photo', 'mm')).toEqual({
    a: { value: 4, note: 'kept', origin: 'photo' },
  });
  expect(typeFigure({}, ['a'], '12 W', 'mm')).toEqual({ a: '12 W' });
  const inches = { length: 'in', temperature: '°F', altitude: 'ft' } as const;
  expect(typeFigure({}, ['a'], '1', 'mm', inches)).toEqual({ a: 25.4 });
});

test('a figure copied from a sibling is no longer assumed once it is typed', () => {
  const d = { a: { value: 3, plusMinus: 0.6, origin: 'assumed', note: 'assumed from Heron 16' } };
  expect(typeFigure(d, ['a'], '3.1', 'mm')).toEqual({ a: 3.1 });
});

test('setting copies what it changes and nothing else', () => {
  const d = { a: [{ b: 1 }, { b: 2 }], c: { d: 1 } };
  const next = setAt(d, ['a', 1, 'b'], 5);
  expect(next).toEqual({ a: [{ b: 1 }, { b: 5 }], c: { d: 1 } });
  expect(next.a[0]).toBe(d.a[0]);
  expect(next.c).toBe(d.c);
  expect(d.a[1]!.b).toBe(2);
  expect(getAt(d, ['x', 'y'])).toBeUndefined();
});

test('parts added in the order of work arrive connected: only figures are missing', () => {
  const { issues } = parseRecord(filled());
  expect(issues.filter((i) => i.kind !== 'missing')).toEqual([]);
  expect(issues.length).toBeGreaterThan(5);
});

test('copies and new parts serve what nothing serves yet', () => {
  let d = emptyRecord();
  for (const list of ['dies', 'plates', 'fans', 'fans', 'finStacks'] as const) d = addPart(d, list);
  d = copyPart(d, 'finStacks', 0);
  expect(partsOf(d, 'finStacks').map((s) => s['fans'])).toEqual([['fan-1'], ['fan-2']]);
  d = addPart(d, 'heatPipes');
  expect((partsOf(d, 'heatPipes')[0]!['along'] as { part: string }[]).map((a) => a.part)).toEqual([
    'fins-1',
    'plate-cpu',
    'fins-2',
  ]);
  d = addPart(d, 'vents');
  d = copyPart(d, 'vents', 0);
  d = addPart(addPart(d, 'vents'), 'vents');
  expect(
    partsOf(d, 'vents').map((x) => [x['flow'], ...((x['fans'] ?? x['finStacks']) as string[])]),
  ).toEqual([
    ['intake', 'fan-1'],
    ['intake', 'fan-2'],
    ['exhaust', 'fins-1'],
    ['exhaust', 'fins-2'],
  ]);
  expect(parseRecord(d).issues.filter((i) => i.kind !== 'missing')).toEqual([]);
});

test('a renamed part is renamed wherever it is mentioned', () => {
  let d = filled();
  d = renamePart(d, 'fans', 0, 'blower');
  d = renamePart(d, 'finStacks', 0, 'rear');
  d = renamePart(d, 'plates', 1, 'big');
  const text = JSON.stringify(d);
  expect(text).not.toMatch(/fan-1|fins-1|plate-gpu/);
  expect(parseRecord(d).issues.filter((i) => i.kind !== 'missing')).toEqual([]);
});

test('a removed part leaves no mention behind', () => {
  const d = removePart(removePart(filled(), 'plates', 0), 'fans', 0);
  expect(JSON.stringify(d)).not.toMatch(/plate-cpu|fan-1/);
  expect(parseRecord(d).issues.some((i) => i.kind === 'impossible')).toBe(false);
});

test('a copy gets a name of its own, and no die lies under two plates', () => {
  const d = copyPart(copyPart(filled(), 'heatPipes', 0), 'plates', 0);
  expect(partsOf(d, 'heatPipes').map((p) => p.id)).toEqual(['pipe-1', 'pipe-2']);
  expect(parseRecord(d).issues.some((i) => i.kind === 'impossible')).toBe(false);
});

test('the place of a part on the map goes with its name, and with the part', () => {
  const d = {
    ...filled(),
    airway: { places: { fan: { xMm: 1, yMm: 2 }, other: { xMm: 3, yMm: 4 } } },
  };
  const id = partsOf(d, 'fans')[0]!.id;
  const placed = setAt(d, ['airway', 'places', id], { xMm: 5, yMm: 6 });
  const renamed = renamePart(placed, 'fans', 0, 'blower');
  expect(getAt(renamed, ['airway', 'places', 'blower'])).toEqual({ xMm: 5, yMm: 6 });
  expect(getAt(renamed, ['airway', 'places', id])).toBeUndefined();
  expect(getAt(removePart(placed, 'fans', 0), ['airway', 'places', id])).toBeUndefined();
  expect(getAt(removePart(placed, 'fans', 0), ['airway', 'places', 'other'])).toBeDefined();
});
