import { exampleRecord } from '../test-support/exampleRecord';
import { setAt } from '../record/plainJson';
import { compareRecords } from './compared';

const one = exampleRecord('two-fan-shared-pipes');

test('every field in which any differs stands with what each has', () => {
  const two = setAt(one, ['finStacks', 0, 'depthMm'], 30);
  const three = setAt(setAt(one, ['shell', 'massKg'], 2.5), ['room'], undefined);
  const rows = compareRecords([one, two, three]);
  const depth = one.finStacks![0]!.depthMm;
  expect(rows.find((r) => r.path === `finStacks.${one.finStacks![0]!.id}.depthMm`)).toEqual({
    path: `finStacks.${one.finStacks![0]!.id}.depthMm`,
    values: [depth, 30, depth],
  });
  expect(rows.find((r) => r.path === 'shell.massKg')!.values).toEqual([
    one.shell!.massKg,
    one.shell!.massKg,
    2.5,
  ]);
  expect(rows.every((r) => r.values.length === 3)).toBe(true);
});

test('the same records have no row; a part that one lacks is said of that one', () => {
  expect(compareRecords([one, one])).toEqual([]);
  const fewer = { ...one, fans: one.fans!.slice(0, 1) };
  const [row] = compareRecords([one, fewer]);
  expect(row!.path).toMatch(/^fans/);
  expect(row!.values[1]).toBeUndefined();
});
