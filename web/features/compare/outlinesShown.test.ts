import type { Row } from './comparedFigures';
import { outlinesShown, outlinesText } from './outlinesShown';

const row = (id: string, watts: number) =>
  ({ id, at: [{ cap: 36, p05: 0, p50: watts, p95: 200 }] }) as unknown as Row;
const rows = [row('a', 30), row('b', 90), row('c', 50), row('d', 70), row('e', 60)];
const ids = (text: string | null, of = rows) => outlinesShown(of, text, 36).map((r) => r.id);

test('the first four of the ranking, in the order of the comparison, until somebody chooses', () => {
  expect(ids(null)).toEqual(['b', 'c', 'd', 'e']);
  expect(ids(null, rows.slice(0, 2))).toEqual(['a', 'b']);
});

test('those that the address names, at most four, each once, and none that is not compared', () => {
  expect(ids('e,a')).toEqual(['a', 'e']);
  expect(ids('x,,a,a,b,c,d,e')).toEqual(['a', 'b', 'c', 'd']);
  expect(ids('')).toEqual([]);
});

test('one is taken in and left out again', () => {
  const shown = outlinesShown(rows, 'b,c', 36);
  expect(outlinesText(shown, 'a')).toBe('b,c,a');
  expect(outlinesText(shown, 'b')).toBe('c');
  expect(outlinesText(outlinesShown(rows, 'b', 36), 'b')).toBe('');
});
