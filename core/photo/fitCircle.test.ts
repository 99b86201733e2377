import { fitCircle } from './fitCircle';

test('as published: six points, least distances', () => {
  // Gander, Golub and Strebel, “Least-squares fitting of circles and ellipses”, BIT 34 (1994), their first example; from memory
  const points = [
    [1, 7],
    [2, 6],
    [5, 8],
    [7, 7],
    [9, 5],
    [3, 7],
  ] as const;
  const { x, y, radius } = fitCircle(points)!;
  expect(x).toBeCloseTo(4.7398, 4);
  expect(y).toBeCloseTo(2.9835, 4);
  expect(radius).toBeCloseTo(4.7142, 4);
});

test('by hand: through three points', () => {
  const found = fitCircle([
    [0, 0],
    [8, 0],
    [0, 6],
  ])!;
  expect([found.x, found.y, found.radius].map((v) => Number(v.toFixed(9)))).toEqual([4, 3, 5]);
});

test('points on a line, or in one place, are of none', () => {
  expect(
    fitCircle([
      [0, 0],
      [1, 1],
      [5, 5],
      [9, 9],
    ]),
  ).toBeNull();
  expect(
    fitCircle([
      [3, 3],
      [3, 3],
      [3, 3],
    ]),
  ).toBeNull();
});
