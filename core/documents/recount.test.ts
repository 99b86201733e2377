import { blankCount } from '../count/countSchema';
import { parseRecord } from '../record/parseRecord';
import type { Json } from '../record/plainJson';
import { isRecordedOtherwise, recount } from './recount';

const empty: Json = { format: 'zugluft-record', formatVersion: 1 };
const count = (more: Json): Json => ({ ...blankCount(), ...more });
const LEAST = { fans: 2, fanDiameterMm: 58, stackWidthMm: 70, stackDepthMm: 24 };
const parts = (record: Json, list: string) => record[list] as Json[];
const valueAt = (x: unknown) => (x as { value: number }).value;

test('key by key: nothing is made before the count is whole, then all of it', () => {
  let record = empty;
  const typed: Json = {};
  for (const [name, value] of Object.entries(LEAST)) {
    expect(record['fans']).toBeUndefined();
    typed[name] = value;
    record = recount(record, count({ ...typed }));
  }
  expect(parseRecord(record).complete).toBe(true);
  expect(record['count']).toMatchObject(LEAST);
});

test('what is named before it is counted keeps its name', () => {
  const named = { ...empty, identity: { maker: 'Brackenfold' } };
  expect(recount(named, count(LEAST))['identity']).toEqual({ maker: 'Brackenfold' });
});

test('a new count changes what followed from the one before; what was measured since stands', () => {
  const first = recount(empty, count(LEAST));
  const measured = structuredClone(first);
  parts(measured, 'finStacks')[0]!['depthMm'] = 26.4;
  const second = recount(measured, count({ ...LEAST, stackDepthMm: 20, fanDiameterMm: 50 }));
  expect(parts(second, 'finStacks')[0]!['depthMm']).toBe(26.4);
  expect(valueAt(parts(second, 'finStacks')[1]!['depthMm'])).toBe(20);
  expect(valueAt(parts(second, 'fans')[0]!['impellerDiameterMm'])).toBe(50);
  // a part that was only counted goes with its count
  const one = recount(first, count({ ...LEAST, fans: 1 }));
  expect(parts(one, 'fans').map((f) => f['id'])).toEqual(['fan']);
  expect(parts(one, 'vents').every((v) => !String(v['fans'] ?? '').includes('left'))).toBe(true);
});

test('a count that is refused or half typed is kept, and the parts stay as they were', () => {
  const first = recount(empty, count(LEAST));
  for (const wrong of [
    { ...LEAST, finCount: 300 },
    { ...LEAST, fanDiameterMm: '5x' },
    { fans: 2 },
  ]) {
    const next = recount(first, count(wrong));
    expect(next['count']).toMatchObject(wrong);
    expect(next['finStacks']).toEqual(first['finStacks']);
  }
  // and mended it goes on from there, also what was measured meanwhile
  let record = recount(first, count({ ...LEAST, finCount: 3 }));
  parts(record, 'finStacks')[0]!['depthMm'] = 26.4;
  record = recount(record, count({ ...LEAST, finCount: 300 }));
  record = recount(record, count({ ...LEAST, finCount: 3000 }));
  record = recount(record, count({ ...LEAST, finCount: 50 }));
  expect(valueAt(parts(record, 'finStacks')[0]!['finCount'])).toBe(50);
  expect(parts(record, 'finStacks')[0]!['depthMm']).toBe(26.4);
  expect(parts(record, 'fans')).toHaveLength(2);
  expect(record['countMade']).toBeUndefined();
});

test('a record with parts and no count was recorded otherwise', () => {
  expect(isRecordedOtherwise(empty)).toBe(false);
  expect(isRecordedOtherwise({ ...empty, fans: [] })).toBe(false);
  expect(isRecordedOtherwise({ ...empty, fans: [{ id: 'a' }] })).toBe(true);
  expect(isRecordedOtherwise(recount(empty, count(LEAST)))).toBe(false);
});
