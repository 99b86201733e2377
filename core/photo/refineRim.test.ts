import type { Camera } from './camera';
import { WHITE, type Picture } from './picture';
import { refineRim } from './refineRim';

const SIDE = 400;
const R = 120;
const MIDDLE = SIDE / 2;
/** A millimetre a pixel, straight from above. */
const CAMERA: Camera = {
  focalPx: 1000,
  middle: [MIDDLE, MIDDLE],
  slopeX: 0,
  slopeY: 0,
  distanceMm: 1000,
  k1: 0,
};
/** Light by the way from the middle and the turn, over a pixel softened. */
function picture(inside: (turn: number) => number, outside: (turn: number) => number): Picture {
  const light = new Uint16Array(SIDE * SIDE);
  for (let v = 0; v < SIDE; v++) {
    for (let u = 0; u < SIDE; u++) {
      const [x, y] = [u + 0.5 - MIDDLE, v + 0.5 - MIDDLE];
      const turn = Math.atan2(y, x);
      const share = Math.min(1, Math.max(0, R - Math.hypot(x, y) + 0.5));
      light[v * SIDE + u] = WHITE * (share * inside(turn) + (1 - share) * outside(turn));
    }
  }
  return { width: SIDE, height: SIDE, light };
}
/** Three places a few pixels off the rim. */
const ABOUT = [0.3, 2.2, 4.4].map((t, i): [number, number] => [
  MIDDLE + (R + 3 - 2 * i) * Math.cos(t),
  MIDDLE + (R + 3 - 2 * i) * Math.sin(t),
]);
const rimOf = (p: Picture) => refineRim(p, CAMERA, ABOUT, 0);

test('a rim is found to half a pixel, bright or dark', () => {
  for (const [inside, outside] of [
    [0.05, 0.4],
    [0.5, 0.2],
  ] as const) {
    const rim = rimOf(
      picture(
        () => inside,
        () => outside,
      ),
    );
    expect(rim).toHaveLength(12);
    for (const [u, v] of rim!) {
      expect(Math.abs(Math.hypot(u - MIDDLE, v - MIDDLE) - R)).toBeLessThan(0.5);
    }
  }
});

test('half a rim is none, nor one whose dark side is now within, now without', () => {
  const half = picture(
    (turn) => (turn > 0 ? 0.05 : 0.4),
    () => 0.4,
  );
  expect(rimOf(half)).toBeNull();
  const changing = picture(
    (turn) => (Math.floor((turn + Math.PI) / (Math.PI / 6)) % 2 ? 0.05 : 0.8),
    () => 0.4,
  );
  expect(rimOf(changing)).toBeNull();
});
