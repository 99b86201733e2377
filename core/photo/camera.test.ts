import { seenAt, type TestCamera } from '../test-support/rayCaster';
import { seenCamera } from '../test-support/seenCamera';
import { mmPerPx, tiltDeg, toPixel, toPlane, type Camera } from './camera';

const test60: TestCamera = {
  widthPx: 4000,
  heightPx: 3000,
  focalPx: 3200,
  distanceMm: 400,
  tiltDeg: 35,
  tiltAxisDeg: 25,
  rollDeg: 40,
  lookAtMm: [0, 0],
};
const camera: Camera = {
  focalPx: 1000,
  middle: [500, 400],
  slopeX: 0.3,
  slopeY: -0.5,
  k1: 0,
  distanceMm: 250,
};

test('by hand: straight above, a pixel is distance over focal length', () => {
  const above = { ...camera, slopeX: 0, slopeY: 0 };
  expect(toPlane(above, [600, 400])).toEqual([25, 0]);
  // 50 mm nearer, a fifth less
  expect(toPlane(above, [600, 480], 50)).toEqual([20, 16]);
  expect(mmPerPx(above, [700, 100])).toBeCloseTo(0.25, 12);
  expect(mmPerPx(above, [700, 100], 50)).toBeCloseTo(0.2, 12);
});

test('there and back, at any height and place', () => {
  for (const at of [
    [0, 0],
    [500, 400],
    [990, 777.3],
  ] as const) {
    for (const above of [-20, 0, 8]) {
      const back = toPixel(camera, toPlane(camera, at, above), above);
      expect(back[0]).toBeCloseTo(at[0], 8);
      expect(back[1]).toBeCloseTo(at[1], 8);
    }
  }
});

test('a line of sight over the horizon meets no plane', () => {
  const steep = { ...camera, slopeY: 2 };
  expect(toPlane(steep, [500, 400 + 600])).toEqual([NaN, NaN]);
  expect(toPlane(camera, [500, 400], 400)).toEqual([NaN, NaN]);
});

test('a camera turned by angles sees the same lengths at any height', () => {
  const ends = [
    [-80, 30, 0],
    [70, -55, 0],
    [10, 90, 0],
  ] as const;
  const same = seenCamera(test60);
  expect(tiltDeg(same)).toBeCloseTo(35, 6);
  for (const z of [0, 8, -5]) {
    const seen = ends.map(([x, y]) => toPlane(same, seenAt(test60, [x, y, z]), z));
    for (const [i, j] of [
      [0, 1],
      [1, 2],
      [2, 0],
    ] as const) {
      const mm = Math.hypot(ends[i][0] - ends[j][0], ends[i][1] - ends[j][1]);
      expect(Math.hypot(seen[i]![0] - seen[j]![0], seen[i]![1] - seen[j]![1])).toBeCloseTo(mm, 6);
    }
  }
});
