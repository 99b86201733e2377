import { seenAt, type TestCamera } from '../test-support/rayCaster';
import { normalQuantile } from '../uncertainty/normal';
import { randomStream } from '../uncertainty/random';
import { tiltDeg, toPlane } from './camera';
import { cameraOf, fitScale } from './fitScale';
import type { ScaleItem } from './marksFile';
import type { PointPx } from './point';
import { readOff, scaleFigure } from './readOff';

const SIZE = [4000, 3000] as const;
const NO_LENS = { focalPx: null };

const camera = (change: Partial<TestCamera> = {}): TestCamera => ({
  widthPx: SIZE[0],
  heightPx: SIZE[1],
  focalPx: 3300,
  distanceMm: 420,
  tiltDeg: 0,
  tiltAxisDeg: 0,
  rollDeg: 0,
  lookAtMm: [150, 100],
  ...change,
});

/** A module that lies on the bench, turned. */
function module(c: TestCamera, off: () => number = () => 0, at = [90, 60], turn = 0.4): ScaleItem {
  const place = (a: number, b: number): [number, number] => {
    const x = at[0]! + a * Math.cos(turn) - b * Math.sin(turn);
    const y = at[1]! + a * Math.sin(turn) + b * Math.cos(turn);
    const [u, v] = seenAt(c, [x, y, 0]);
    return [u + off(), v + off()];
  };
  return {
    kind: 'rectangle',
    corners: [place(0, 0), place(67.6, 0), place(67.6, 30), place(0, 30)],
    widthMm: 67.6,
    heightMm: 30,
  };
}

const length =
  (above: number) =>
  (cam: Parameters<typeof toPlane>[0], [a, b]: readonly PointPx[]) => {
    const p = toPlane(cam, a!, above);
    const q = toPlane(cam, b!, above);
    return Math.hypot(p[0] - q[0], p[1] - q[1]);
  };

test('by hand: a length of 400 px that is 80 mm', () => {
  const item: ScaleItem = { kind: 'length', from: [1000, 1000], to: [1400, 1000], mm: 80 };
  const scale = fitScale([item], SIZE, NO_LENS, 1);
  const { mmPerPx, plusMinusShare } = scaleFigure(scale, [item]);
  expect(mmPerPx).toBeCloseTo(0.2, 9);
  // two ends, a pixel each along the line
  expect(plusMinusShare).toBeCloseTo(Math.SQRT2 / 400, 6);
  expect(scale.residualsPx[0]).toBeCloseTo(0, 6);
  const { value, plusMinus } = readOff(
    scale,
    [
      [0, 0],
      [300, 400],
    ],
    length(0),
  );
  expect(value).toBeCloseTo(100, 6);
  expect(plusMinus).toBeCloseTo(100 * Math.hypot(Math.SQRT2 / 400, Math.SQRT2 / 500), 5);
});

test('two lengths that agree are known better than one', () => {
  const one: ScaleItem = { kind: 'length', from: [1000, 1000], to: [1400, 1000], mm: 80 };
  const two: ScaleItem = { kind: 'length', from: [1000, 2000], to: [1000, 1600], mm: 80 };
  const scale = fitScale([one, two], SIZE, NO_LENS, 1);
  expect(scaleFigure(scale, [one, two]).plusMinusShare).toBeCloseTo(1 / 400, 6);
  expect(scale.fits).toBe(true);
  const other: ScaleItem = { ...two, mm: 84 };
  expect(fitScale([one, other], SIZE, NO_LENS, 1).fits).toBe(false);
});

test('references that disagree leave the scale as much less sure as they disagree', () => {
  const at = (mm: number): ScaleItem[] => [
    { kind: 'length', from: [1000, 1000], to: [1400, 1000], mm: 80 },
    { kind: 'length', from: [1000, 2000], to: [1000, 1600], mm },
  ];
  const share = (mm: number) => {
    const items = at(mm);
    return scaleFigure(fitScale(items, SIZE, NO_LENS, 1), items).plusMinusShare;
  };
  // 10 % apart where a click is a third of a per cent
  expect(share(88)).toBeGreaterThan(5 * share(80));
});

test('corners may go round either way', () => {
  const c = camera({ tiltDeg: 25, tiltAxisDeg: 60 });
  const item = module(c) as ScaleItem & { kind: 'rectangle' };
  const [a, b, d, e] = item.corners;
  const back: ScaleItem = { ...item, corners: [a!, e!, d!, b!], widthMm: 30, heightMm: 67.6 };
  const ends = [seenAt(c, [130, 150, 0]), seenAt(c, [220, 90, 0])];
  for (const one of [item, back]) {
    const scale = fitScale([one], SIZE, { focalPx: 3300 }, 1);
    expect(scale.fits).toBe(true);
    expect(readOff(scale, ends, length(0)).value).toBeCloseTo(Math.hypot(90, 60), 1);
  }
});

test('a coin: a circle of 100 px that is 20 mm', () => {
  const points = Array.from({ length: 8 }, (_, k): [number, number] => [
    700 + 50 * Math.cos(k),
    900 + 50 * Math.sin(k),
  ]);
  const item: ScaleItem = { kind: 'circle', points, diameterMm: 20 };
  const scale = fitScale([item], SIZE, NO_LENS, 1);
  expect(scaleFigure(scale, [item]).mmPerPx).toBeCloseTo(0.2, 8);
});

test.each([0, 5, 20, 45, 60])(
  'tilted by %d°: four corners show it, and every length in the plane',
  (tilt) => {
    const c = camera({ tiltDeg: tilt, tiltAxisDeg: 30, rollDeg: 20 });
    const scale = fitScale([module(c)], SIZE, { focalPx: 3300 }, 1);
    expect(scale.fits).toBe(true);
    expect(tiltDeg(cameraOf(scale))).toBeCloseTo(tilt, 0);
    const a = seenAt(c, [130, 150, 0]);
    const b = seenAt(c, [220, 90, 0]);
    const { value } = readOff(scale, [a, b], length(0));
    expect(value).toBeCloseTo(Math.hypot(90, 60), 1);
  },
);

test('what stands 8 mm over the plane is seen larger: the camera tells by how much', () => {
  const c = camera({ tiltDeg: 12, tiltAxisDeg: 100 });
  const scale = fitScale([module(c)], SIZE, { focalPx: 3300 }, 1);
  const ends = [seenAt(c, [100, 150, 8]), seenAt(c, [200, 150, 8])];
  expect(readOff(scale, ends, length(8)).value).toBeCloseTo(100, 1);
  const flat = readOff(scale, ends, length(0)).value;
  expect(flat).toBeGreaterThan(101);
  // a camera that nobody knows makes the height uncertain
  const unknown = fitScale([module(camera())], SIZE, NO_LENS, 1);
  const straight = [seenAt(camera(), [100, 150, 8]), seenAt(camera(), [200, 150, 8])];
  const known = fitScale([module(camera())], SIZE, { focalPx: 3300 }, 1);
  expect(readOff(unknown, straight, length(8)).plusMinus).toBeGreaterThan(
    1.2 * readOff(known, straight, length(8)).plusMinus,
  );
});

test.each([
  ['the sides exchanged', { widthMm: 30, heightMm: 67.6 }],
  ['a side too long', { heightMm: 45 }],
])('corners that do not fit their rectangle: %s', (_, change) => {
  const c = camera({ tiltDeg: 8, tiltAxisDeg: 60 });
  const scale = fitScale([{ ...module(c), ...change } as ScaleItem], SIZE, NO_LENS, 1);
  expect(scale.fits).toBe(false);
});

test('of 400 lengths with clicks a pixel off, 85 to 95 % lie inside their 90 % band', () => {
  const next = randomStream(7);
  const off = () => normalQuantile(Math.min(1 - 1e-9, Math.max(1e-9, next())));
  let inside = 0;
  let wrong = 0;
  for (let k = 0; k < 400; k++) {
    const c = camera({
      tiltDeg: 40 * next(),
      tiltAxisDeg: 360 * next(),
      rollDeg: 360 * next(),
      distanceMm: 300 + 300 * next(),
      focalPx: 2200 + 2500 * next(),
    });
    const scale = fitScale(
      [module(c, off, [60 + 120 * next(), 40 + 100 * next()], 6 * next())],
      SIZE,
      NO_LENS,
      1,
    );
    if (!scale.fits) wrong++;
    const ends = [
      [60 + 180 * next(), 40 + 120 * next()],
      [60 + 180 * next(), 40 + 120 * next()],
    ] as const;
    const seen = ends.map(([x, y]): PointPx => {
      const [u, v] = seenAt(c, [x, y, 0]);
      return [u + off(), v + off()];
    });
    const { value, plusMinus } = readOff(scale, seen, length(0));
    const mm = Math.hypot(ends[0][0] - ends[1][0], ends[0][1] - ends[1][1]);
    if (Math.abs(value - mm) < 1.6449 * plusMinus) inside++;
  }
  expect(inside / 400).toBeGreaterThan(0.85);
  expect(inside / 400).toBeLessThan(0.95);
  expect(wrong).toBeLessThan(8);
});
