import type { MachineSummary } from '@zugluft/core/library/answers';
import { createListIndex } from './listIndex';
import { listQuery } from './listQuery';

const row = (n: number, more: Partial<Record<string, unknown>> = {}) =>
  ({
    id: `id${String(n).padStart(3, '0')}`,
    maker: `maker ${(n * 7) % 5}`,
    model: `Model ${(n * 11) % 13}`,
    variant: `v${(n * 5) % 7}`,
    massKg: n % 4 === 0 ? null : ((n * 17) % 23) / 10,
    togetherAt28W: 20 + ((n * 13) % 40),
    togetherAt36W: 50 + ((n * 13) % 40),
    putAsideAt: null,
    tags: [],
    chamber: false,
    ...more,
  }) as unknown as MachineSummary;

const SORTS = [
  'maker',
  '-maker',
  'variant',
  '-variant',
  'massKg',
  '-massKg',
  '-togetherAt36W',
  'quietFor60W',
  '-quietFor60W',
];
const shown = (index: ReturnType<typeof createListIndex>, sort: string) => {
  const query = listQuery.parse({ sort, pageSize: '100' });
  const { places } = index.page(query, index.marks(query, 36, null));
  return places.map((i) => index.rows[i]!.id);
};

test('a row that changed takes the place in each order that it has in one made anew', () => {
  const index = createListIndex();
  for (let n = 0; n < 60; n++) index.put(row(n), true);
  // orders that stand are kept up
  for (const sort of SORTS) shown(index, sort);
  const changes = [3, 17, 42, 59, 60, 61].map((n) =>
    row(n, {
      maker: n % 2 ? 'MÁKER 2' : 'maker 10',
      massKg: n % 3 ? null : n / 10,
      togetherAt28W: n,
      togetherAt36W: 200 - n,
    }),
  );
  for (const change of changes) index.put(change, true);
  const anew = createListIndex();
  for (const own of index.rows) anew.put(own, true);
  for (const sort of SORTS) expect([sort, shown(index, sort)]).toEqual([sort, shown(anew, sort)]);
});

test('without case and accents, numbers by their value, without a value last either way, then by name', () => {
  const index = createListIndex();
  const all = [
    row(1, { variant: 'Äther 10', massKg: 2 }),
    row(2, { variant: 'ather 9', massKg: null }),
    row(3, { variant: 'Ather 9', massKg: 1, maker: 'a' }),
    row(4, { variant: 'ATHER 100', massKg: 2, maker: 'a' }),
  ];
  for (const one of all) index.put(one, true);
  expect(shown(index, 'variant')).toEqual(['id003', 'id002', 'id001', 'id004']);
  expect(shown(index, 'massKg')).toEqual(['id003', 'id004', 'id001', 'id002']);
  expect(shown(index, '-massKg')).toEqual(['id004', 'id001', 'id003', 'id002']);
});

test('by the least level for some watts, as each row’s own levels tell it', () => {
  const index = createListIndex();
  index.put(row(1, { togetherAt28W: 10, togetherAt36W: 50 }), true);
  index.put(row(2, { togetherAt28W: 45, togetherAt36W: 50 }), true);
  index.put(row(3, { togetherAt28W: 1, togetherAt36W: 5 }), true);
  index.put(row(4, { togetherAt28W: 30, togetherAt36W: 50 }), true);
  expect(shown(index, 'quietFor40W')).toEqual(['id002', 'id004', 'id001', 'id003']);
});
