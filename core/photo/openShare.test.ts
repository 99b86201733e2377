import { asPicture, rendered, seenAt, type TestCamera } from '../test-support/rayCaster';
import { seenCamera } from '../test-support/seenCamera';
import { randomStream } from '../uncertainty/random';
import { openShare } from './openShare';
import type { PointPx } from './point';

const CAMERA: TestCamera = {
  widthPx: 420,
  heightPx: 360,
  focalPx: 3000,
  distanceMm: 300,
  tiltDeg: 0,
  tiltAxisDeg: 0,
  rollDeg: 0,
  lookAtMm: [20, 15],
};
const { round } = Math;
const ROW = Math.sin(Math.PI / 3);
/** Round holes in rows, every second row set off. */
const mesh = (pitch: number, hole: number, web: number, dark: number) => (x: number, y: number) => {
  const row = round(y / (pitch * ROW));
  const dy = y - row * pitch * ROW;
  const off = row % 2 === 0 ? 0 : pitch / 2;
  const dx = x - off - pitch * round((x - off) / pitch);
  return dx * dx + dy * dy < (hole * hole) / 4 ? dark : web;
};
/** Of the marked area, counted on a fine grid: its edges cut holes. */
function shareOf(pitch: number, hole: number): number {
  const light = mesh(pitch, hole, 0, 1);
  let open = 0;
  for (let i = 0; i < 560; i++)
    for (let j = 0; j < 440; j++) open += light(6 + (i + 0.5) / 20, 4 + (j + 0.5) / 20);
  return open / (560 * 440);
}
const area = (c: TestCamera): PointPx[] =>
  [
    [6, 4],
    [34, 4],
    [34, 26],
    [6, 26],
  ].map(([x, y]) => seenAt(c, [x!, y!, 0]));

test('round holes in rows: their share to two points, pitch and size', () => {
  const next = randomStream(5);
  for (let k = 0; k < 8; k++) {
    const pitch = 1.6 + 1.4 * next();
    const hole = pitch * (0.5 + 0.3 * next());
    const c = { ...CAMERA, tiltDeg: 20 * next(), tiltAxisDeg: 360 * next(), rollDeg: 40 * next() };
    const light = rendered(c, {
      lightAt: mesh(pitch, hole, 0.3 + 0.4 * next(), 0.02 + 0.08 * next()),
      blurPx: 0.5 + 0.8 * next(),
      noise: 0.015,
      vignette: 0.3,
      seed: k + 1,
      rays: 4,
    });
    const found = openShare(asPicture(c, light), seenCamera(c), area(c), 0)!;
    const off = found.share - shareOf(pitch, hole);
    expect([k, off, Math.abs(off) < 0.02]).toEqual([k, off, true]);
    expect(Math.abs(found.pitchMm! / pitch - 1)).toBeLessThan(0.03);
    expect(Math.abs(found.holeMm! / hole - 1)).toBeLessThan(0.05);
    expect(found.plusMinus).toBeLessThan(0.05);
    expect(found.note).toBeNull();
  }
});

test('a threshold that is set rules, and a higher one opens more', () => {
  const light = rendered(CAMERA, { lightAt: mesh(2.5, 1.5, 0.6, 0.05), blurPx: 1.2, rays: 3 });
  const at = (t?: number) =>
    openShare(asPicture(CAMERA, light), seenCamera(CAMERA), area(CAMERA), 0, t)!;
  expect(at(0.2).threshold).toBe(0.2);
  expect(at(0.2).share).toBeLessThan(at().share);
  expect(at(0.5).share).toBeGreaterThan(at().share);
  // half way between hole and web
  expect(at().threshold).toBeCloseTo(0.325, 1);
});

test('without holes the share is 0, and it is said; too small an area tells nothing', () => {
  const light = rendered(CAMERA, { lightAt: () => 0.5, noise: 0.01 });
  const found = openShare(asPicture(CAMERA, light), seenCamera(CAMERA), area(CAMERA), 0)!;
  expect(found).toMatchObject({ share: 0, holes: 0, pitchMm: null, holeMm: null });
  expect(found.note).toContain('no hole');
  const tiny: PointPx[] = [
    [10, 10],
    [15, 10],
    [15, 15],
  ];
  expect(openShare(asPicture(CAMERA, light), seenCamera(CAMERA), tiny, 0)).toBeNull();
});

test('holes of few pixels: it is said that a photo from nearer would tell more', () => {
  const light = rendered(CAMERA, { lightAt: mesh(0.7, 0.4, 0.6, 0.05), blurPx: 0.5, rays: 4 });
  const found = openShare(asPicture(CAMERA, light), seenCamera(CAMERA), area(CAMERA), 0)!;
  expect(found.note).toContain('nearer');
});
