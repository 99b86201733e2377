import { snapToEdge } from './snapToEdge';
import { WHITE, type Picture } from './picture';

/** White right of a line through (40.3, 30) that leans by an angle, softened over a pixel. */
function leaning(deg: number, dark = 0.05): Picture {
  const [w, h] = [80, 60];
  const [nx, ny] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
  const light = new Uint16Array(w * h);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const off = (x + 0.5 - 40.3) * nx + (y + 0.5 - 30) * ny;
      const share = Math.min(1, Math.max(0, off + 0.5));
      light[y * w + x] = WHITE * (dark + (0.8 - dark) * share);
    }
  }
  return { width: w, height: h, light };
}
/** How far a place lies off the line. */
const off = ([x, y]: readonly [number, number], deg: number) =>
  (x - 40.3) * Math.cos((deg * Math.PI) / 180) + (y - 30) * Math.sin((deg * Math.PI) / 180);

test.each([0, 20, 45, 90, 160])(
  'an edge that leans by %d° is met within a quarter pixel',
  (deg) => {
    for (const start of [
      [37, 30],
      [43, 32],
      [40, 28],
    ] as const) {
      expect(Math.abs(off(snapToEdge(leaning(deg), start, 6), deg))).toBeLessThan(0.25);
    }
  },
);

test('where nothing near is an edge the place stays', () => {
  expect(snapToEdge(leaning(0), [10, 10], 6)).toEqual([10, 10]);
  // a step of one per cent of white is noise
  expect(snapToEdge(leaning(0, 0.795), [38, 30], 6)).toEqual([38, 30]);
});
