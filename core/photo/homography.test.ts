import { Matrix, solve } from 'ml-matrix';
import { homography, mapped } from './homography';

const FROM = [
  [0, 0],
  [67.6, 0],
  [67.6, 30],
  [0, 30],
] as const;
const TO = [
  [812, 430],
  [1290, 505],
  [1241, 742],
  [770, 655],
] as const;

test('four corners: as by the eight equations with the last element 1', () => {
  const rows: number[][] = [];
  const right: number[][] = [];
  FROM.forEach(([x, y], i) => {
    const [u, v] = TO[i]!;
    rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]);
    right.push([u], [v]);
  });
  const known = [...solve(new Matrix(rows), new Matrix(right)).to1DArray(), 1];
  const h = homography(FROM, TO).to1DArray();
  h.forEach((x, k) => expect(x / known[k]!).toBeCloseTo(1, 8));
  FROM.forEach((p, i) => {
    const at = mapped(homography(FROM, TO), p);
    expect(at[0]).toBeCloseTo(TO[i]![0], 8);
    expect(at[1]).toBeCloseTo(TO[i]![1], 8);
  });
});

test('by hand: a square that is moved and doubled', () => {
  const square = [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1],
  ] as const;
  const h = homography(
    square,
    square.map(([x, y]) => [2 * x + 10, 2 * y - 4] as const),
  );
  const known = [2, 0, 10, 0, 2, -4, 0, 0, 1];
  h.to1DArray().forEach((x, k) => expect(x).toBeCloseTo(known[k]!, 9));
});

test('more points than it takes: the map that they share', () => {
  const known = homography(FROM, TO);
  const points = Array.from({ length: 12 }, (_, k) => [7 * k, (k * 11) % 31] as const);
  const found = homography(
    points,
    points.map((p) => mapped(known, p)),
  );
  found.to1DArray().forEach((x, k) => expect(x / known.to1DArray()[k]!).toBeCloseTo(1, 6));
});
