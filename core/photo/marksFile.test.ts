import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { MARK_KINDS, marksFileSchema, marksJsonSchema, POINTS_OF } from './marksFile';

const SCALE = [{ kind: 'length', from: [0, 0], to: [10, 0], mm: 5 }];
const issuesOf = (file: unknown) =>
  (marksFileSchema.safeParse(file).error?.issues ?? []).map((i) => i.path.join('.'));

test.each(MARK_KINDS)('%s: as many points as it needs, no fewer and no more', (kind) => {
  const [least, most] = POINTS_OF[kind];
  const withPoints = (n: number) => ({
    scale: SCALE,
    marks: [{ id: 'a', kind, points: Array.from({ length: n }, (_, k) => [k, k * k]) }],
  });
  expect(issuesOf(withPoints(least))).toEqual([]);
  expect(issuesOf(withPoints(least - 1))).toEqual(['marks.0.points']);
  expect(issuesOf(withPoints(most + 1))).not.toEqual([]);
});

test.each([
  [{ scale: SCALE, marks: [], clickPx: 0 }, 'clickPx'],
  [{ scale: SCALE, marks: [], planeMm: 'high' }, 'planeMm'],
  [{ scale: [{ ...SCALE[0], mm: -1 }], marks: [] }, 'scale.0.mm'],
  [{ scale: [{ ...SCALE[0], kind: 'square' }], marks: [] }, 'scale.0.kind'],
  [{ scale: SCALE }, 'marks'],
  [{ scale: SCALE, marks: [{ id: '', kind: 'angle', points: [] }] }, 'marks.0.id'],
])('bad input is told at its place: %j', (file, path) => {
  expect(issuesOf(file)[0]).toBe(path);
});

test('docs/format/marks.schema.json is what the Zod schema says (npm run docs)', () => {
  const file = join(__dirname, '../../docs/format/marks.schema.json');
  expect(readFileSync(file, 'utf8')).toBe(marksJsonSchema());
});
