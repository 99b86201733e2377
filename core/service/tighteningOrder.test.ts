import fc from 'fast-check';
import {
  aroundTheMiddle,
  besideOnRing,
  looseningOrder,
  neighbourhood,
  tighteningOrder,
  type Hole,
} from './tighteningOrder';

const hole = (id: string, xMm: number, yMm: number, printed?: number): Hole => ({
  id,
  xMm,
  yMm,
  ...(printed === undefined ? {} : { printed }),
});
const circle = (n: number): Hole[] =>
  Array.from({ length: n }, (_, i) =>
    hole(
      String(i),
      50 + 40 * Math.cos((2 * Math.PI * i) / n),
      50 + 30 * Math.sin((2 * Math.PI * i) / n),
    ),
  );

type Beside = (i: number, j: number) => boolean;

/** Fewest neighbours that follow each other over two rounds of any order, by trying all of them. */
function fewest(n: number, beside: Beside): number {
  let best = Infinity;
  const go = (order: number[], so: number) => {
    if (2 * so >= best) return;
    if (order.length === n) {
      best = Math.min(best, 2 * so + (beside(order.at(-1)!, order[0]!) ? 1 : 0));
      return;
    }
    for (let i = 0; i < n; i++) {
      if (order.includes(i)) continue;
      const last = order.at(-1);
      go([...order, i], so + (last !== undefined && beside(last, i) ? 1 : 0));
    }
  };
  go([], 0);
  return best;
}

/** Neighbours that follow each other over two rounds of what was found. */
const overTwoRounds = (found: { neighbours: number; joinBeside: boolean }) =>
  2 * found.neighbours + (found.joinBeside ? 1 : 0);

// heat-sink patterns of three or four screws per die, seven to ten for two dies: common practice, no source
test.each([
  [3, 2],
  [4, 1],
  [7, 0],
  [10, 0],
])('%i holes: %i neighbours follow each other, as few as can be; two rounds', (n, least) => {
  const found = tighteningOrder(circle(n));
  expect(found).toMatchObject({ by: 'crosswise', rounds: 2, neighbours: least });
  expect([...found.order].sort()).toEqual(
    circle(n)
      .map((h) => h.id)
      .sort(),
  );
  if (n <= 7) {
    expect(overTwoRounds(found)).toBe(fewest(n, (i, j) => besideOnRing(i, j, n)));
  }
});

test('four holes are done across, then across again', () => {
  const four = [hole('a', 0, 0), hole('b', 40, 0), hole('c', 40, 30), hole('d', 0, 30)];
  const { order } = tighteningOrder(four);
  const across: Record<string, string> = { a: 'c', c: 'a', b: 'd', d: 'b' };
  expect(order[1]).toBe(across[order[0]!]);
  expect(order[3]).toBe(across[order[2]!]);
});

test('a pattern over two dies, as drawn: no neighbours, and long ways between', () => {
  const two = [
    hole('1', 0, 0),
    hole('2', 30, 0),
    hole('3', 30, 30),
    hole('4', 0, 30),
    hole('5', 70, 0),
    hole('6', 100, 0),
    hole('7', 100, 30),
    hole('8', 70, 30),
    hole('9', 50, -5),
    hole('10', 50, 35),
  ];
  const found = tighteningOrder(two);
  expect(found.neighbours).toBe(0);
  const at = new Map(two.map((h) => [h.id, h]));
  for (let k = 0; k + 1 < found.order.length; k++) {
    const [a, b] = [at.get(found.order[k]!)!, at.get(found.order[k + 1]!)!];
    expect(Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm)).toBeGreaterThan(25);
  }
});

test.each([3, 4, 5, 6, 7, 8])(
  '%i holes in a row: as few neighbours as can be, also from round to round',
  (n) => {
    // a row that slants a little, as holes along an edge do
    const row = Array.from({ length: n }, (_, i) =>
      hole(String(i), 10 + 22 * i, 40 + (i % 2) * 3 + i),
    );
    const { places, beside } = neighbourhood(row);
    expect(places.map((h) => h.id)).toEqual(row.map((h) => h.id));
    const found = tighteningOrder(row);
    expect(overTwoRounds(found)).toBe(fewest(n, beside));
    const at = found.order.map(Number);
    const beside_ = at.slice(1).filter((x, k) => Math.abs(x - at[k]!) === 1).length;
    expect(beside_).toBe(found.neighbours);
    expect(found.joinBeside).toBe(Math.abs(at[0]! - at.at(-1)!) === 1);
    // from five on none follows its neighbour; four have one way, 2 4 1 3
    if (n >= 5) expect(overTwoRounds(found)).toBe(0);
    if (n === 4) expect(found.neighbours).toBe(0);
  },
);

test('printed numbers are followed as far as they go', () => {
  const corners: [number, number][] = [
    [0, 0],
    [40, 30],
    [40, 0],
    [0, 30],
  ];
  const four = (...printed: (number | undefined)[]) =>
    corners.map(([x, y], i) => hole('abcd'[i]!, x, y, printed[i]));
  // one that cannot be read is the one that is missing
  expect(tighteningOrder(four(1, 2, undefined, 4))).toMatchObject({
    order: ['a', 'b', 'c', 'd'],
    by: 'printed',
  });
  expect(tighteningOrder(four(1, 2, 3, undefined)).order).toEqual(['a', 'b', 'c', 'd']);
  // two cannot be told: they come after those that are known
  const half = tighteningOrder(four(2, undefined, 1, undefined));
  expect(half.by).toBe('printed-in-part');
  expect(half.order.slice(0, 2)).toEqual(['c', 'a']);
  expect([...half.order.slice(2)].sort()).toEqual(['b', 'd']);
  expect(looseningOrder(four(2, undefined, 1, undefined))).toEqual([...half.order].reverse());
  // a number printed twice is no number that is missing
  expect(tighteningOrder(four(1, 1, 2, undefined)).by).toBe('printed-in-part');
  // one number alone says no order
  expect(tighteningOrder(four(1, undefined, undefined, undefined)).by).toBe('crosswise');
  expect(tighteningOrder(four(1, 2, undefined, 4), 'crosswise').by).toBe('crosswise');
});

test('printed numbers rule: rising to tighten, falling to loosen', () => {
  const printed = [hole('x', 0, 0, 3), hole('y', 40, 0, 1), hole('z', 40, 30, 2)];
  expect(tighteningOrder(printed)).toMatchObject({ order: ['y', 'z', 'x'], by: 'printed' });
  expect(looseningOrder(printed)).toEqual(['x', 'z', 'y']);
});

test('nothing, one and two holes', () => {
  expect(tighteningOrder([]).order).toEqual([]);
  expect(tighteningOrder([hole('a', 1, 1)]).order).toEqual(['a']);
  expect(tighteningOrder([hole('a', 1, 1), hole('b', 5, 5)]).order).toHaveLength(2);
});

test('any pattern: each hole once; from five holes on never two neighbours in a row', () => {
  const place = fc.tuple(fc.integer({ min: 0, max: 300 }), fc.integer({ min: 0, max: 200 }));
  fc.assert(
    fc.property(
      fc.uniqueArray(place, { maxLength: 30, selector: ([x, y]) => x * 1000 + y }),
      (places) => {
        const holes = places.map(([x, y], i) => hole(String(i), x, y));
        const { order, neighbours, joinBeside } = tighteningOrder(holes);
        expect([...order].sort()).toEqual(holes.map((h) => h.id).sort());
        if (holes.length >= 5) expect([neighbours, joinBeside]).toEqual([0, false]);
        expect(aroundTheMiddle(holes)).toHaveLength(holes.length);
      },
    ),
    { numRuns: 200, seed: 7 },
  );
});
