import fc from 'fast-check';
import { diffRecords } from '../family/diffRecords';
import { parseRecord } from '../record/parseRecord';
import { setAt } from '../record/plainJson';
import { randomRecord } from '../test-support/randomRecord';
import { acceptBy } from './documentKind';
import { keepablePart } from './keepablePart';
import { recordKind } from './record/recordKind';
import { labSettingsKind } from './labSettings/labSettingsKind';

const base = {
  format: 'zugluft-record',
  formatVersion: 1,
  shell: { widthMm: 355, depthMm: 245 },
  dies: [{ id: 'cpu', role: 'cpu', widthMm: 12 }],
  fans: [
    { id: 'fan-1', maxRpm: 4000, curve: [{ rpm: 4000, flowLps: 1, pressurePa: 50 }] },
    { id: 'fan-2', maxRpm: 5000 },
  ],
} as never;
const part = (value: unknown) => keepablePart(recordKind.accept, value as never, base) as unknown;

test('what is fine is kept as it is', () => {
  expect(part(base)).toBe(base);
});

test('a refused figure stands as before, everything else as now', () => {
  const typed = setAt(
    setAt(base, ['shell', 'widthMm'], '4x'),
    ['shell', 'depthMm'],
    250,
  ) as unknown;
  expect(diffRecords(base, part(typed))).toEqual([
    { path: 'shell.depthMm', before: 245, after: 250 },
  ]);
});

test('several refused figures, one of them in a part that stands elsewhere now', () => {
  const fans = [
    { id: 'fan-2', maxRpm: 'fast' },
    { id: 'fan-1', maxRpm: 4100, curve: [{ rpm: 4000, flowLps: 'x', pressurePa: 50 }] },
  ];
  const typed = { ...(base as object), fans, shell: { widthMm: -1, depthMm: 245 } };
  expect(part(typed)).toEqual({
    ...(base as object),
    fans: [
      { id: 'fan-2', maxRpm: 5000 },
      { id: 'fan-1', maxRpm: 4100, curve: [{ rpm: 4000, flowLps: 1, pressurePa: 50 }] },
    ],
  });
});

test('a figure that stood nowhere before is left out for now, and so is its new part where that needs it', () => {
  const added = { ...(base as object), pads: [{ id: 'pad-1', thicknessMm: 'thick' }] };
  expect(part(added)).toEqual({ ...(base as object), pads: [{ id: 'pad-1' }] });
  const nameless = {
    ...(base as object),
    fans: [...(base as { fans: object[] }).fans, { id: 'fan-3', maxRpm: 3000 }, { id: '' }],
  };
  expect((part(nameless) as { fans: { id: string }[] }).fans.map((f) => f.id)).toEqual([
    'fan-1',
    'fan-2',
    'fan-3',
  ]);
});

test('a name that is taken already holds back its list alone', () => {
  const typed = setAt(
    setAt(base, ['fans', 1, 'id'], 'fan-1'),
    ['shell', 'widthMm'],
    360,
  ) as unknown;
  expect(diffRecords(base, part(typed))).toEqual([
    { path: 'shell.widthMm', before: 355, after: 360 },
  ]);
});

test('a field whose name has dots is put back alone', () => {
  const accept = (v: unknown) =>
    (v as Record<string, { low: unknown }>)['a.b']!.low === 'x'
      ? { refused: [{ path: 'a.b.low', message: 'no number' }] }
      : { value: v };
  expect(
    keepablePart(accept, { 'a.b': { low: 'x', high: 3 }, c: 4 }, { 'a.b': { low: 1, high: 2 } }),
  ).toEqual({ 'a.b': { low: 1, high: 3 }, c: 4 });
});

test('what is no record at all cannot be kept in part', () => {
  expect(keepablePart(recordKind.accept, 'x' as never, base)).toBeNull();
  expect(part({ ...(base as object), format: 'other' })).toEqual(base);
  expect(keepablePart(acceptBy(labSettingsKind.schema), null as never, {} as never)).toBeNull();
});

test('whatever is refused, what is kept may be kept, and differs only where something was refused', () => {
  fc.assert(
    fc.property(randomRecord, fc.array(fc.nat(), { maxLength: 4 }), (record, picks) => {
      const places = numbersIn(record);
      const typed = picks.reduce<unknown>(
        (r, pick) => setAt(r, places[pick % places.length]!, 'half typed'),
        record,
      );
      const kept = keepablePart(recordKind.accept, typed as never, record as never);
      expect(kept).not.toBeNull();
      expect(parseRecord(kept).keepable).toBe(true);
      // all that was typed was refused, so that everything is as before
      expect(diffRecords(record, kept)).toEqual([]);
    }),
    { numRuns: 50, seed: 4 },
  );
});

function numbersIn(value: unknown, path: (string | number)[] = []): (string | number)[][] {
  if (typeof value === 'number') return path[0] === 'formatVersion' ? [] : [path];
  if (Array.isArray(value)) return value.flatMap((x, i) => numbersIn(x, [...path, i]));
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, x]) => numbersIn(x, [...path, key]));
}
