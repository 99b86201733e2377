import fc from 'fast-check';
import { LuDecomposition, Matrix } from 'ml-matrix';
import { factorPlanned, planElimination, solvePlanned } from './elimination';

/** A random network: conductances between some pairs, each node tied to the room with a chance. */
const network = fc
  .record({
    n: fc.integer({ min: 2, max: 14 }),
    seeds: fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 240, maxLength: 240 }),
  })
  .map(({ n, seeds }) => {
    const a = Matrix.zeros(n, n);
    let s = 0;
    for (let i = 0; i < n; i++) {
      a.set(i, i, a.get(i, i) + 1e-3 + seeds[s++]!);
      for (let j = i + 1; j < n; j++) {
        const g = seeds[s++]! > 0.6 ? seeds[s]! * 10 : 0;
        a.set(i, i, a.get(i, i) + g);
        a.set(j, j, a.get(j, j) + g);
        a.set(i, j, -g);
        a.set(j, i, -g);
      }
    }
    return a;
  });

test('solves random networks as ml-matrix’s LU does (reference package)', () => {
  fc.assert(
    fc.property(network, (a) => {
      const n = a.rows;
      const flat = Float64Array.from(a.to1DArray());
      const plan = planElimination(n, flat);
      const b = Float64Array.from({ length: n }, (_, i) => i - 1);
      const expected = new LuDecomposition(a).solve(Matrix.columnVector(Array.from(b)));
      factorPlanned(flat, plan);
      solvePlanned(flat, plan, b);
      b.forEach((x, i) => {
        const y = expected.get(i, 0);
        expect(Math.abs(x - y)).toBeLessThanOrEqual(1e-8 * Math.max(1, Math.abs(y)));
      });
    }),
    { numRuns: 200, seed: 8 },
  );
});

test('a chain of n nodes is factored without fill: one row and one column per pivot', () => {
  const n = 6;
  const pattern = Array.from({ length: n * n }, (_, k) =>
    Math.abs(Math.floor(k / n) - (k % n)) <= 1 ? 1 : 0,
  );
  const plan = planElimination(n, pattern);
  expect(plan.rows).toHaveLength(n - 1);
  expect(plan.cols).toHaveLength(n - 1);
});

test('a node without a path to the room is refused', () => {
  const a = Float64Array.from([1, -1, -1, 1]);
  expect(() => factorPlanned(a, planElimination(2, a))).toThrow(/no path to the room/);
});
