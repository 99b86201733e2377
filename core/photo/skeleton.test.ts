import { components } from './components';
import { longestWay } from './longestWay';
import { simplified } from './simplified';
import { skeleton } from './skeleton';

const W = 60;
const H = 40;
const mask = (is: (x: number, y: number) => boolean): Uint8Array =>
  Uint8Array.from({ length: W * H }, (_, i) => (is(i % W, Math.floor(i / W)) ? 1 : 0));
const count = (is: Uint8Array) => is.reduce((s, x) => s + x, 0);

test('a bar becomes the line along its middle, nearly to its ends', () => {
  const thin = skeleton(
    mask((x, y) => x >= 5 && x < 50 && y >= 10 && y < 19),
    W,
    H,
  );
  for (let x = 10; x < 45; x++) {
    const rows = [...Array(H).keys()].filter((y) => thin[y * W + x]);
    expect(rows).toEqual([14]);
  }
});

test('a ring stays one ring, two bars stay two', () => {
  const ring = mask((x, y) => {
    const r = Math.hypot(x - 30, y - 20);
    return r > 8 && r < 15;
  });
  const thin = skeleton(ring, W, H);
  expect(components(thin, W, H)).toHaveLength(1);
  // the middle is still enclosed: what is outside is two parts
  const outside = thin.map((x) => 1 - x);
  expect(count(thin)).toBeLessThan(100);
  expect(outside[20 * W + 30]).toBe(1);
  const bars = mask((x, y) => x > 4 && x < 50 && ((y > 4 && y < 12) || (y > 20 && y < 27)));
  expect(components(skeleton(bars, W, H), W, H)).toHaveLength(2);
});

test('groups hold together over corners', () => {
  expect(
    components(
      mask((x, y) => x === y && x < 10),
      W,
      H,
    ).map((c) => c.length),
  ).toEqual([10]);
  expect(components(new Uint8Array(W * H), W, H)).toEqual([]);
});

test('the longest way of a line with a spur leaves the spur out', () => {
  const [squares] = components(
    mask((x, y) => (y === 20 && x >= 5 && x <= 45) || (x === 20 && y >= 14 && y <= 20)),
    W,
    H,
  );
  const way = longestWay(squares!, W);
  expect(way).toHaveLength(41);
  expect(new Set([way[0], way.at(-1)])).toEqual(new Set([20 * W + 5, 20 * W + 45]));
  expect(longestWay(new Int32Array(), W)).toEqual([]);
});

test('points are left out as far as the line stays within the slack', () => {
  const corner = [
    [0, 0],
    [5, 0.3],
    [10, 0],
    [10, 5],
    [10, 10],
  ] as const;
  expect(simplified(corner, 0.5)).toEqual([corner[0], corner[2], corner[4]]);
  expect(simplified(corner, 0.1)).toEqual([corner[0], corner[1], corner[2], corner[4]]);
  // back to where it began
  expect(
    simplified(
      [
        [0, 0],
        [8, 0],
        [0, 0],
      ],
      1,
    ),
  ).toHaveLength(3);
  expect(simplified([[1, 1]], 1)).toEqual([[1, 1]]);
});
