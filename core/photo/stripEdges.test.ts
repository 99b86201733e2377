import { asPicture, rendered, seenAt, type TestCamera } from '../test-support/rayCaster';
import { randomStream } from '../uncertainty/random';
import { dist } from './polygon';
import { stripEdges } from './stripEdges';

/** A tenth of a millimetre to a pixel. */
const camera = (rollDeg: number): TestCamera => ({
  widthPx: 240,
  heightPx: 200,
  focalPx: 3000,
  distanceMm: 300,
  tiltDeg: 0,
  tiltAxisDeg: 0,
  rollDeg,
  lookAtMm: [12, 10],
});
const smooth = (x: number, width: number) => Math.abs(x - 12) < width / 2;

test.each([
  ['bright on dark', 0.7, 0.1],
  ['dark on bright', 0.1, 0.6],
  ['hardly brighter', 0.35, 0.25],
] as const)('a strip %s, of any width and turn: to a fifth of a pixel', (_, on, off) => {
  const next = randomStream(3);
  for (let k = 0; k < 12; k++) {
    const widthMm = 1 + 7 * next();
    const c = camera(360 * next());
    const light = rendered(c, {
      lightAt: (x) => (smooth(x, widthMm) ? on : off),
      blurPx: 0.6 + 0.8 * next(),
      noise: 0.01,
      vignette: 0.2,
      seed: k + 1,
    });
    // rough clicks, up to a pixel and a half off along the strip and across
    const rough = () => 3 * next() - 1.5;
    const click = (side: number): [number, number] => {
      const [u, v] = seenAt(c, [12 + (side * widthMm) / 2, 10, 0]);
      return [u + rough(), v + rough()];
    };
    const found = stripEdges(asPicture(c, light), click(-1), click(1));
    expect(found).not.toBeNull();
    const off10 = dist(...found!.edges) - 10 * widthMm;
    expect([k, Math.abs(off10) < 0.2, off10]).toEqual([k, true, off10]);
    expect(found!.note).toBeNull();
  }
});

test('a line askew across a strip: its width is that at right angles', () => {
  const c = camera(0);
  const light = rendered(c, {
    lightAt: (x) => (smooth(x, 4) ? 0.7 : 0.1),
    blurPx: 0.8,
    noise: 0.005,
  });
  // 40 px wide, one click 14 px further down than the other
  const found = stripEdges(asPicture(c, light), [100, 93], [140, 107]);
  expect(dist(...found!.edges)).toBeCloseTo(40, 0);
  expect(Math.abs(dist(...found!.edges) - 40)).toBeLessThan(0.3);
});

test('where there is no edge, none is found', () => {
  const c = camera(0);
  const light = rendered(c, { lightAt: () => 0.4, noise: 0.02 });
  expect(stripEdges(asPicture(c, light), [80, 100], [140, 100])).toBeNull();
});

test('edges that are not parallel are measured along the line, and it is said', () => {
  const c = camera(0);
  const light = rendered(c, {
    // a wedge: 20 mm × 0.5 wider over its length
    lightAt: (x, y) => (Math.abs(x - 12) < 2 + 0.25 * (y - 10) ? 0.7 : 0.1),
    blurPx: 0.7,
    noise: 0.005,
  });
  const found = stripEdges(asPicture(c, light), [100, 100], [140, 100]);
  expect(dist(...found!.edges)).toBeCloseTo(40, 0);
  expect(found!.note).toContain('not parallel');
});
