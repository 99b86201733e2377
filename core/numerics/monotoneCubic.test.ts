import fc from 'fast-check';
import { whereReached } from './monotoneCubic';

test('at the points it gives their places, before and beyond them the ends', () => {
  const x = [0, 1, 3, 4];
  const y = [2, 5, 6, 9];
  x.forEach((place, i) => expect(whereReached(x, y, y[i]!)).toBeCloseTo(place, 9));
  expect(whereReached(x, y, -1)).toBe(0);
  expect(whereReached(x, y, 100)).toBe(4);
});

test('a straight line stays one, also through unevenly spaced points', () => {
  const x = [0, 1, 3, 7];
  const y = x.map((t) => 2 * t + 1);
  for (const t of [0.2, 1.7, 4.4, 6.9]) expect(whereReached(x, y, 2 * t + 1)).toBeCloseTo(t, 9);
});

test('a smooth law is followed several times as closely as by straight pieces', () => {
  const x = [1, 2, 3, 4, 5];
  const y = x.map(Math.sqrt);
  for (const t of [1.5, 2.5, 3.5, 4.4]) {
    const found = whereReached(x, y, Math.sqrt(t));
    const i = Math.floor(t) - 1;
    const straight = x[i]! + (Math.sqrt(t) - y[i]!) / (y[i + 1]! - y[i]!);
    expect(Math.abs(found - t)).toBeLessThan(Math.abs(straight - t) / 3);
  }
});

test('it never turns back, whatever the steps are', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 0, max: 20 })), {
        minLength: 2,
        maxLength: 8,
      }),
      (steps) => {
        const x = [0];
        const y = [0];
        for (const [dx, dy] of steps) {
          x.push(x[x.length - 1]! + dx);
          y.push(y[y.length - 1]! + dy);
        }
        let before = -Infinity;
        for (let w = 0; w <= y[y.length - 1]!; w += y[y.length - 1]! / 50 || 1) {
          const at = whereReached(x, y, w);
          expect(at).toBeGreaterThanOrEqual(before - 1e-9);
          before = at;
        }
      },
    ),
  );
});
