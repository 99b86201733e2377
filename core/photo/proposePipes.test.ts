import { pictureOf } from './picture';
import { proposeMarks, type Proposal } from './proposals';
import type { PhotoMarks } from './photoMarks';

type Rgb = readonly [number, number, number];
type Mm = readonly [number, number];

const PX_MM = 0.2;
const [WIDE, DEEP] = [210, 130];
const BOARD: Rgb = [38, 66, 52];
const COPPER: Rgb = [184, 113, 74];

/** How far a place lies beside a line of points; not a number where it lies off it. */
function offset(points: readonly Mm[], x: number, y: number, half: number): number {
  let best = NaN;
  for (let k = 1; k < points.length; k++) {
    const a = points[k - 1]!;
    const b = points[k]!;
    // most places are far from most pieces
    if (Math.abs(2 * x - a[0] - b[0]) > Math.abs(a[0] - b[0]) + 2 * half) continue;
    if (Math.abs(2 * y - a[1] - b[1]) > Math.abs(a[1] - b[1]) + 2 * half) continue;
    const long = Math.sqrt((b[0] - a[0]) ** 2 + (b[1] - a[1]) ** 2);
    const ex = (b[0] - a[0]) / long;
    const ey = (b[1] - a[1]) / long;
    const t = (x - a[0]) * ex + (y - a[1]) * ey;
    const off = Math.abs((x - a[0]) * -ey + (y - a[1]) * ex);
    // its ends are cut at right angles
    if (t < (k === 1 ? 0 : -half) || t > (k === points.length - 1 ? long : long + half)) continue;
    if (off <= half && !(off >= best)) best = off;
  }
  return best;
}

/** Half a circle's quarter and the like as short pieces. */
function arc([cx, cy]: Mm, r: number, from: number, to: number): Mm[] {
  return Array.from({ length: 25 }, (_, i): Mm => {
    const turn = from + ((to - from) * i) / 24;
    return [cx + r * Math.cos(turn), cy + r * Math.sin(turn)];
  });
}

/** Round sides of a pressed pipe, mm. */
const SIDE_MM = 1.2;

/** A pressed pipe: flat, its sides round and darker as they turn away. */
function metal(off: number, half: number): Rgb {
  const turned = Math.min(1, Math.max(0, off - (half - SIDE_MM)) / SIDE_MM);
  const shine = 0.7 + 0.35 * Math.sqrt(1 - turned ** 2);
  return [COPPER[0] * shine, COPPER[1] * shine, COPPER[2] * shine];
}

interface Scene {
  pipes?: { points: readonly Mm[]; widthMm: number }[];
  boxes?: { at: readonly [number, number, number, number]; rgb: Rgb }[];
  /** What light makes of each colour. */
  cast?: Rgb;
}

function seen({ pipes = [], boxes = [], cast = [1, 1, 1] }: Scene) {
  const [width, height] = [WIDE / PX_MM, DEEP / PX_MM];
  const values = new Uint8Array(width * height * 3);
  const sum = new Float64Array(3);
  let state = 11;
  for (let v = 0; v < height; v++) {
    for (let u = 0; u < width; u++) {
      sum.fill(0);
      for (let s = 0; s < 4; s++) {
        const x = (u + 0.25 + 0.5 * (s % 2)) * PX_MM;
        const y = (v + 0.25 + 0.5 * (s >> 1)) * PX_MM;
        let rgb = BOARD;
        for (const { at, rgb: own } of boxes) {
          if (x >= at[0] && x <= at[0] + at[2] && y >= at[1] && y <= at[1] + at[3]) rgb = own;
        }
        for (const { points, widthMm } of pipes) {
          const off = offset(points, x, y, widthMm / 2);
          if (off >= 0) rgb = metal(off, widthMm / 2);
        }
        for (let c = 0; c < 3; c++) sum[c]! += rgb[c]! / 4;
      }
      for (let c = 0; c < 3; c++) {
        state = (Math.imul(state, 1103515245) + 12345) & 0x7fffffff;
        const value = sum[c]! * cast[c]! + ((state >> 12) % 9) - 4;
        values[(v * width + u) * 3 + c] = Math.min(255, Math.max(0, Math.round(value)));
      }
    }
  }
  return { picture: pictureOf(values, width, height), values };
}

const MARKS: PhotoMarks = {
  references: [
    {
      id: 'r',
      what: 'ruler',
      item: { kind: 'length', from: [60, 640], to: [560, 640], mm: 100 },
    },
  ],
  marks: [],
};
const LENS = { focalPx: null };
/** Scenes that are asked of more than once are drawn once. */
const drawn = new Map<Scene, ReturnType<typeof seen>>();
const ask = (scene: Scene, marks = MARKS): Proposal[] => {
  const { picture, values } = drawn.get(scene) ?? seen(scene);
  drawn.set(scene, { picture, values });
  return proposeMarks(picture, LENS, marks, values).filter(
    (p) => p.kind === 'path' || p.kind === 'strip',
  );
};
const long = (points: readonly Mm[]) =>
  points
    .slice(1)
    .reduce((s, p, i) => s + Math.hypot(p[0] - points[i]![0], p[1] - points[i]![1]), 0);
/** A scale's and a few clicks' worth. */
const near = (p: Proposal | undefined, mm: number, least: number) =>
  expect(Math.abs(p!.reads.value! - mm)).toBeLessThan(Math.max(least, 2.5 * p!.reads.plusMinus!));

/** Straight, round a quarter of a circle of 25 mm, straight. */
const BENT: Mm[] = [[20, 30], ...arc([120, 55], 25, -Math.PI / 2, 0), [145, 115]];

test('a bent pipe is found from end to end, with its width and its one bend; wires, tape, screws and plates are not', () => {
  const found = ask({
    pipes: [
      { points: BENT, widthMm: 8.4 },
      // a copper wire
      {
        points: [
          [20, 60],
          [110, 75],
        ],
        widthMm: 1.6,
      },
    ],
    boxes: [
      // a plate, a short piece of tape, a screw, a yellow cable as wide as a pipe, a red one
      { at: [30, 85, 38, 30], rgb: COPPER },
      { at: [80, 100, 20, 9], rgb: COPPER },
      { at: [165, 30, 5, 5], rgb: COPPER },
      { at: [165, 50, 8, 70], rgb: [210, 190, 60] },
      { at: [190, 10, 8, 110], rgb: [190, 40, 30] },
    ],
  });
  expect(found.map((p) => p.kind).sort()).toEqual(['path', 'strip']);
  const [path, strip] = ['path', 'strip'].map((k) => found.find((p) => p.kind === k));
  near(path, long(BENT), 0.8);
  // half of the light is a little inside of round sides
  near(strip, 8.4, 0.3);
  expect(path!.reads).toMatchObject({ bends: 1, note: null });
  expect(path!.reads.bendDeg![0]).toBeGreaterThan(80);
  expect(path!.reads.bendDeg![0]).toBeLessThan(100);
});

test('a pipe over a copper plate is one from end to end, and says that it was not seen all along', () => {
  const pipe: Mm[] = [
    [15, 60],
    [190, 70],
  ];
  const [found, ...more] = ask({
    pipes: [{ points: pipe, widthMm: 9 }],
    boxes: [{ at: [80, 40, 42, 45], rgb: COPPER }],
  }).filter((p) => p.kind === 'path');
  expect(more).toEqual([]);
  near(found, long(pipe), 0.8);
  expect(found!.reads.note).toMatch(/^taken as one pipe behind/);
});

test('a pipe that ends in a plate as copper as itself says that it is at least so long', () => {
  const pipe: Mm[] = [
    [20, 40],
    [120, 40],
  ];
  const [found] = ask({
    pipes: [{ points: pipe, widthMm: 8 }],
    boxes: [{ at: [110, 20, 45, 45], rgb: COPPER }],
  }).filter((p) => p.kind === 'path');
  expect(found!.reads.note).toMatch(/^goes on at one end/);
  expect(Math.abs(found!.reads.value! - 90)).toBeLessThan(3);
});

test('two pipes that enter a plate on one side and one that leaves it: none is joined to the wrong one', () => {
  const found = ask({
    pipes: [
      {
        points: [
          [15, 52],
          [90, 52],
        ],
        widthMm: 8,
      },
      {
        points: [
          [15, 66],
          [90, 66],
        ],
        widthMm: 8,
      },
      {
        points: [
          [110, 59],
          [190, 59],
        ],
        widthMm: 8,
      },
    ],
    boxes: [{ at: [80, 35, 45, 50], rgb: COPPER }],
  }).filter((p) => p.kind === 'path');
  expect(found).toHaveLength(3);
  for (const p of found) expect(p.reads.value!).toBeLessThan(75);
});

test('two thin pipes that touch are not one wide one: it is darker where their sides meet', () => {
  const along = (y: number, widthMm: number) => ({
    points: [
      [20, y],
      [180, y],
    ] as const,
    widthMm,
  });
  expect(ask({ pipes: [along(52, 5.5), along(57.5, 5.5)] })).toEqual([]);
  // a single one as wide is found
  expect(ask({ pipes: [along(54.75, 11)] })).toHaveLength(2);
});

test('a pipe that leaves a plate elsewhere than in line with the one that enters it is another one', () => {
  const found = ask({
    pipes: [
      {
        points: [
          [15, 52],
          [90, 52],
        ],
        widthMm: 8,
      },
      {
        points: [
          [110, 59],
          [190, 59],
        ],
        widthMm: 8,
      },
    ],
    boxes: [{ at: [80, 35, 45, 50], rgb: COPPER }],
  }).filter((p) => p.kind === 'path');
  expect(found).toHaveLength(2);
  for (const p of found) expect(p.reads.value!).toBeLessThan(75);
});

test.each<[string, Scene]>([
  [
    'a wedge',
    {
      pipes: [3, 4, 5, 6, 7, 8, 9, 10, 11, 12].map((w) => ({
        points: [
          [15 + 14 * (w - 3), 60],
          [29 + 14 * (w - 3), 60],
        ],
        widthMm: w,
      })),
    },
  ],
  ['a piece that is hardly longer than wide', { boxes: [{ at: [60, 50, 35, 9], rgb: COPPER }] }],
  [
    'a cross',
    {
      pipes: [
        {
          points: [
            [60, 60],
            [120, 60],
          ],
          widthMm: 9,
        },
        {
          points: [
            [90, 30],
            [90, 90],
          ],
          widthMm: 9,
        },
      ],
    },
  ],
  [
    'a T',
    {
      pipes: [
        {
          points: [
            [60, 60],
            [130, 60],
          ],
          widthMm: 9,
        },
        {
          points: [
            [95, 60],
            [95, 95],
          ],
          widthMm: 9,
        },
      ],
    },
  ],
  ['a pink strip', { boxes: [{ at: [30, 50, 120, 9], rgb: [205, 128, 135] }] }],
])('no pipe: %s', (_, scene) => {
  expect(ask(scene).filter((p) => p.kind === 'path')).toEqual([]);
});

test('what is marked is not offered again, each by itself', () => {
  const scene = { pipes: [{ points: BENT, widthMm: 8.4 }] };
  const all = ask(scene);
  const marks = (which: Proposal[]) => ({
    ...MARKS,
    marks: which.map((p, i) => ({
      id: `m${i}`,
      mark: { kind: p.kind, points: p.points },
      figure: null,
    })),
  });
  expect(ask(scene, marks(all))).toEqual([]);
  for (const one of all) {
    expect(ask(scene, marks([one])).map((p) => p.kind)).toEqual(
      all.filter((p) => p !== one).map((p) => p.kind),
    );
  }
});

test.each<[string, Rgb, boolean]>([
  ['warm light of a lamp', [1, 0.92, 0.8], true],
  ['cool light of a window', [0.9, 0.97, 1], true],
  ['green light, in which nothing looks like copper', [0.6, 1, 0.6], false],
])('in %s', (_, cast, isFound) => {
  const found = ask({ pipes: [{ points: BENT, widthMm: 8.4 }], cast });
  if (isFound)
    near(
      found.find((p) => p.kind === 'path'),
      long(BENT),
      0.8,
    );
  else expect(found).toEqual([]);
});

test('a painted pipe, and a picture without any: nothing', () => {
  expect(ask({ boxes: [{ at: [20, 40, 120, 8], rgb: [40, 42, 44] }] })).toEqual([]);
  expect(ask({})).toEqual([]);
});
