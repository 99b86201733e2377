import fc from 'fast-check';
import {
  aroundTheMiddle,
  besideOnRing,
  looseningOrder,
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

/** Fewest neighbours that any order has, by trying all of them. */
function fewest(n: number): number {
  let best = Infinity;
  const go = (order: number[], beside: number) => {
    if (beside >= best) return;
    if (order.length === n) {
      best = beside;
      return;
    }
    for (let i = 0; i < n; i++) {
      if (order.includes(i)) continue;
      const last = order.at(-1);
      go([...order, i], beside + (last !== undefined && besideOnRing(last, i, n) ? 1 : 0));
    }
  };
  go([], 0);
  return best;
}

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
  if (n <= 7) expect(fewest(n)).toBe(least);
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

test('printed numbers rule: rising to tighten, falling to loosen; with one missing they do not', () => {
  const printed = [hole('x', 0, 0, 3), hole('y', 40, 0, 1), hole('z', 40, 30, 2)];
  expect(tighteningOrder(printed)).toMatchObject({ order: ['y', 'z', 'x'], by: 'printed' });
  expect(looseningOrder(printed)).toEqual(['x', 'z', 'y']);
  expect(tighteningOrder([...printed, hole('w', 0, 30)]).by).toBe('crosswise');
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
        const { order, neighbours } = tighteningOrder(holes);
        expect([...order].sort()).toEqual(holes.map((h) => h.id).sort());
        if (holes.length >= 5) expect(neighbours).toBe(0);
        expect(aroundTheMiddle(holes)).toHaveLength(holes.length);
      },
    ),
    { numRuns: 200, seed: 7 },
  );
});
