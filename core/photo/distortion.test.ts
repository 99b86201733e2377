import { seenAt, type TestCamera } from '../test-support/rayCaster';
import { normalQuantile } from '../uncertainty/normal';
import { randomStream } from '../uncertainty/random';
import { toPixel, toPlane } from './camera';
import { distorted, LEAST_K1, MOST_K1, undistorted } from './distortion';
import { cameraOf, fitScale } from './fitScale';
import type { ScaleItem } from './marksFile';
import { measureKept } from './measureKept';
import { measureMark } from './measureMarks';
import { MeasureFault, parseMarks, scaleAnswer } from './measures';
import type { PhotoMarks } from './photoMarks';
import { WHITE, type Picture } from './picture';

const SIZE = [4000, 3000] as const;
const NO_LENS = { focalPx: null };
type Px = [number, number];
const CAMERA: TestCamera = {
  widthPx: SIZE[0],
  heightPx: SIZE[1],
  focalPx: 3300,
  distanceMm: 330,
  tiltDeg: 8,
  tiltAxisDeg: 30,
  rollDeg: 10,
  lookAtMm: [0, 0],
};

/** As a lens shows it, told here a second time. */
const bent = (
  k1: number,
  [u, v]: readonly [number, number],
  size: readonly number[] = SIZE,
): Px => {
  const [x, y] = [u - size[0]! / 2, v - size[1]! / 2];
  const r = Math.hypot(x, y) / (Math.hypot(size[0]!, size[1]!) / 2);
  return [size[0]! / 2 + x * (1 + k1 * r ** 2), size[1]! / 2 + y * (1 + k1 * r ** 2)];
};

test('by hand: a corner is moved by k1 of its distance, half way there by an eighth of that, the middle not at all', () => {
  const lens = { k1: -0.1, middle: [2000, 1500] as const };
  expect(distorted(lens, [4000, 3000])).toEqual([3800, 2850]);
  expect(distorted(lens, [3000, 2250])).toEqual([2975, 2231.25]);
  expect(distorted(lens, [2000, 1500])).toEqual([2000, 1500]);
  expect(undistorted(lens, [2000, 1500])).toEqual([2000, 1500]);
  expect(undistorted({ ...lens, k1: 0 }, [12, 34])).toEqual([12, 34]);
});

test.each([LEAST_K1, -0.05, 0.05, MOST_K1])('there and back, k1 %d', (k1) => {
  const lens = { k1, middle: [2000, 1500] as const };
  const camera = { ...lens, focalPx: 3000, slopeX: 0.2, slopeY: -0.1, distanceMm: 300 };
  for (const at of [
    [1990, 1500],
    [0, 1500],
    [3999, 20],
    [4000, 3000],
  ] as const) {
    const there = distorted(lens, at);
    const back = undistorted(lens, there);
    expect(back[0]).toBeCloseTo(at[0], 4);
    expect(back[1]).toBeCloseTo(at[1], 4);
    const seen = toPixel(camera, toPlane(camera, there, 5), 5);
    expect(seen[0]).toBeCloseTo(there[0], 4);
    expect(seen[1]).toBeCloseTo(there[1], 4);
  }
});

interface Marked {
  items: ScaleItem[];
  /** Across the picture, near its lower edge: 300 mm. */
  ends: [Px, Px];
}

/** A module near the middle, edges of a shell far out, a length near the lower edge, as a lens shows them and a hand clicks them. */
function marked(k1: number, seed: number): Marked {
  const random = randomStream(seed);
  const off = () => normalQuantile(random());
  const seen = (x: number, y: number): Px => {
    const [u, v] = bent(k1, seenAt(CAMERA, [x, y, 0]));
    return [u + off(), v + off()];
  };
  const edge = (from: Px, to: Px): ScaleItem => ({
    kind: 'straight',
    points: Array.from({ length: 9 }, (_, i) =>
      seen(from[0] + ((to[0] - from[0]) * i) / 8, from[1] + ((to[1] - from[1]) * i) / 8),
    ),
  });
  return {
    items: [
      {
        kind: 'rectangle',
        corners: [seen(-30, -20), seen(37.6, -20), seen(37.6, 10), seen(-30, 10)],
        widthMm: 67.6,
        heightMm: 30,
      },
      edge([-160, -110], [160, -110]),
      edge([-160, -110], [-160, 105]),
    ],
    ends: [seen(-150, 100), seen(150, 100)],
  };
}
const readLength = (items: readonly ScaleItem[], ends: [Px, Px]) =>
  measureMark(
    { width: SIZE[0], height: SIZE[1], light: new Uint16Array(0) },
    fitScale(items, SIZE, NO_LENS, 1),
    { id: 'm', kind: 'length', points: ends },
    0,
  );

test('straight edges tell how the lens bends; a length far out is right then, and was not before', () => {
  const K1 = -0.06;
  const { items, ends } = marked(K1, 3);
  const scale = fitScale(items, SIZE, NO_LENS, 1);
  const { lens, note } = scaleAnswer(items, SIZE, NO_LENS, scale);
  expect(Math.abs(lens!.k1 - K1)).toBeLessThan(3 * lens!.plusMinus);
  expect(lens!.plusMinus).toBeLessThan(0.005);
  expect(note).toBeNull();
  expect(scale.fits).toBe(true);
  const known = readLength(items, ends);
  expect(Math.abs(known.value! - 300)).toBeLessThan(3 * known.plusMinus!);
  const blind = readLength(items.slice(0, 1), ends);
  expect(Math.abs(blind.value! - 300)).toBeGreaterThan(6);
  expect(
    scaleAnswer(items.slice(0, 1), SIZE, NO_LENS, fitScale(items.slice(0, 1), SIZE, NO_LENS, 1))
      .lens,
  ).toBeUndefined();
});

test('what a grid told of the lens in another photo does as well, as surely as it was told', () => {
  const { items, ends } = marked(0.08, 5);
  const [module] = items;
  const told = readLength([module!, { kind: 'lens', k1: 0.08, plusMinus: 0.002 }], ends);
  const rough = readLength([module!, { kind: 'lens', k1: 0.08, plusMinus: 0.05 }], ends);
  expect(Math.abs(told.value! - 300)).toBeLessThan(3 * told.plusMinus!);
  expect(rough.plusMinus!).toBeGreaterThan(1.5 * told.plusMinus!);
});

test('k1 lies inside its 90 % band as often as it should, for barrels and cushions', () => {
  let inside = 0;
  let lengths = 0;
  const RUNS = 60;
  for (let seed = 0; seed < RUNS; seed++) {
    const k1 = seed % 2 ? -0.09 : 0.05;
    const { items, ends } = marked(k1, 100 + seed);
    const scale = fitScale(items, SIZE, NO_LENS, 1);
    const { lens } = scaleAnswer(items, SIZE, NO_LENS, scale);
    if (Math.abs(lens!.k1 - k1) < 1.645 * lens!.plusMinus) inside++;
    const { value, plusMinus } = readLength(items, ends);
    if (Math.abs(value! - 300) < 1.645 * plusMinus!) lengths++;
  }
  // 54 of 60, three deviations
  expect(inside).toBeGreaterThanOrEqual(47);
  expect(lengths).toBeGreaterThanOrEqual(47);
  expect(inside + lengths).toBeLessThan(2 * RUNS);
});

test('an edge that is bent is named, and is not taken for the lens', () => {
  const { items } = marked(-0.05, 7);
  const edge = items[1] as ScaleItem & { kind: 'straight' };
  // an S: no lens does that
  const bentEdge = edge.points.map(([u, v], i): Px => [
    u,
    v + 25 * Math.sin((2 * Math.PI * i) / 8),
  ]);
  const all: ScaleItem[] = [items[0]!, { kind: 'straight', points: bentEdge }, items[2]!];
  const { note } = scaleAnswer(all, SIZE, NO_LENS, fitScale(all, SIZE, NO_LENS, 1));
  expect(note).toMatch(/^scale\.1: these points lie \d+\.\d px off a straight line/);
});

test('a lens that was told otherwise than the edges say is named, one that agrees is not', () => {
  const { items } = marked(-0.05, 13);
  const noteOf = (k1: number) => {
    const all: ScaleItem[] = [...items, { kind: 'lens', k1, plusMinus: 0.001 }];
    return scaleAnswer(all, SIZE, NO_LENS, fitScale(all, SIZE, NO_LENS, 1)).note;
  };
  expect(noteOf(-0.05)).toBeNull();
  expect(noteOf(-0.12)).toMatch(
    /^scale\.3 does not agree with the straight edges: by them k1 is -0\.0[45]\d ± 0\.00\d, not -0\.12$/,
  );
});

test('two references that disagree are still told apart beside an edge, by their own places', () => {
  const { items } = marked(-0.05, 9);
  const [a, b] = [
    bent(-0.05, seenAt(CAMERA, [40, 40, 0])),
    bent(-0.05, seenAt(CAMERA, [110, 40, 0])),
  ];
  // 70 mm that are said to be 80
  const all: ScaleItem[] = [
    items[1]!,
    items[0]!,
    { kind: 'length', from: a, to: b, mm: 80 },
    items[2]!,
  ];
  const { note } = scaleAnswer(all, SIZE, NO_LENS, fitScale(all, SIZE, NO_LENS, 1));
  expect(note).toMatch(/scale\.2 does not agree with scale\.1/);
});

test('edges alone give no scale, and bad ones are named', () => {
  const { items, ends } = marked(-0.05, 11);
  const edges = items.slice(1);
  const refusal = (input: unknown) => {
    try {
      parseMarks(input);
    } catch (cause) {
      if (cause instanceof MeasureFault) return `${cause.path}: ${cause.message}`;
      throw cause;
    }
    return null;
  };
  expect(refusal({ scale: edges, marks: [] })).toBe(
    'scale: needs at least one thing of known size',
  );
  expect(
    refusal({
      scale: [
        {
          kind: 'straight',
          points: [
            [0, 0],
            [9, 9],
          ],
        },
      ],
      marks: [],
    }),
  ).toBe('scale.0.points: needs three points along the edge or more');
  expect(
    refusal({
      scale: [
        items[0],
        {
          kind: 'straight',
          points: [
            [5, 5],
            [6, 5],
            [7, 5],
          ],
        },
      ],
      marks: [],
    }),
  ).toBe('scale.1.points: the points lie on one place: an edge is longer');
  expect(
    refusal({ scale: [items[0], { kind: 'lens', k1: -0.6, plusMinus: 0.1 }], marks: [] }),
  ).toBe('scale.1.k1: must be at least -0.25');
  expect(refusal({ scale: items, marks: [] })).toBeNull();
  const marks: PhotoMarks = {
    references: edges.map((item, i) => ({ id: `e${i}`, what: 'straight-edge', item })),
    marks: [{ id: 'm', mark: { kind: 'length', points: ends }, figure: null }],
  };
  const kept = measureKept(null, SIZE, NO_LENS, marks);
  expect(kept.scale).toBeNull();
  expect(kept.marks[0]!.value).toBeNull();
});

test('fins far out under a barrel: counted along where the lens shows them, their pitch that of the plane', () => {
  const [width, height] = [1600, 1200];
  const K1 = -0.12;
  const light = new Uint16Array(width * height);
  const camera = cameraOf(
    fitScale(
      [
        { kind: 'length', from: [0, 0], to: [1000, 0], mm: 100 },
        { kind: 'lens', k1: 0, plusMinus: 1e-6 },
      ],
      [width, height],
      NO_LENS,
      1,
    ),
  );
  // 60 fins of 1 mm pitch, 0.4 thick, 8 mm deep, 45 mm below the middle
  for (let v = 0; v < height; v++) {
    for (let u = 0; u < width; u++) {
      let sum = 0;
      for (let s = 0; s < 4; s++) {
        const at = undistorted({ k1: K1, middle: [width / 2, height / 2] }, [
          u + 0.25 + 0.5 * (s % 2),
          v + 0.25 + 0.5 * (s >> 1),
        ]);
        const [x, y] = toPlane(camera, at);
        const t = x + 30;
        const isFin = t >= 0 && t < 59.4 && y > 41 && y < 49 && t % 1 < 0.4;
        sum += isFin ? 0.6 : 0.1;
      }
      light[v * width + u] = (WHITE * sum) / 4;
    }
  }
  const picture: Picture = { width, height, light };
  const seen = (x: number, y: number): Px => bent(K1, toPixel(camera, [x, y]), [width, height]);
  const items: ScaleItem[] = [
    { kind: 'length', from: seen(-25, 0), to: seen(25, 0), mm: 50 },
    { kind: 'lens', k1: K1, plusMinus: 0.002 },
  ];
  const read = (scale: readonly ScaleItem[]) =>
    measureMark(
      picture,
      fitScale(scale, [width, height], NO_LENS, 1),
      { id: 'f', kind: 'fins', points: [seen(-31, 45), seen(31, 45)] },
      0,
    );
  const known = read(items);
  expect(known).toMatchObject({ value: 60, note: null });
  expect(Math.abs(known.pitchMm! - 1)).toBeLessThan(Math.max(0.004, 3 * known.pitchPlusMinusMm!));
  // without the lens the line would run across its edge, or the pitch be wrong by what it is squeezed
  const blind = read(items.slice(0, 1));
  expect(blind.value === 60 && Math.abs(blind.pitchMm! - 1) < 0.01).toBe(false);
});
