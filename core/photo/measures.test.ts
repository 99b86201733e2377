import { seenAt, type TestCamera } from '../test-support/rayCaster';
import type { MarksFile } from './marksFile';
import type { MeasureFault } from './measures';
import { measurePhoto, parseMarks } from './measures';

/** Lengths need no light. */
const PICTURE = { width: 4000, height: 3000, light: new Uint16Array(0) };
const LENS = { focalPx: 3300 };
const length = (y: number, px: number, mm: number) => ({
  kind: 'length' as const,
  from: [1000, y] as [number, number],
  to: [1000 + px, y] as [number, number],
  mm,
});
const measured = (file: MarksFile, progress?: (done: number) => boolean | void) =>
  measurePhoto(PICTURE, LENS, file, progress);

const TILTED: TestCamera = {
  widthPx: 4000,
  heightPx: 3000,
  focalPx: 3300,
  distanceMm: 420,
  tiltDeg: 50,
  tiltAxisDeg: 20,
  rollDeg: 10,
  lookAtMm: [40, 20],
};
const corner = (x: number, y: number) => seenAt(TILTED, [x, y, 0]);
const MODULE = {
  kind: 'rectangle' as const,
  corners: [corner(0, 0), corner(67.6, 0), corner(67.6, 30), corner(0, 30)],
  widthMm: 67.6,
  heightMm: 30,
};

test('of three references the one that does not agree with the others is named, with what they make of it', () => {
  const { scale } = measured({
    scale: [length(500, 400, 80), length(1200, 400, 84), length(2400, 800, 160)],
    marks: [],
  });
  expect(scale.note).toMatch(
    /scale\.1 does not agree with the others: by them its 84 mm are 80\.0 ± 0\.\d mm/,
  );
  // lengths that agree: only that the tilt is not known
  const fine = measured({ scale: [length(500, 400, 80), length(1200, 400, 80)], marks: [] });
  expect(fine.scale.note).toMatch(/^taken as seen straight from above/);
});

test('a coin beside a module that makes it larger', () => {
  const coin = (diameterMm: number) => ({
    kind: 'circle' as const,
    points: [0, 1, 2, 3, 4, 5].map((t) => corner(100 + 10 * Math.cos(t), 10 * Math.sin(t))),
    diameterMm,
  });
  // that it is seen as an ellipse says the module as well
  expect(measured({ scale: [MODULE, coin(20)], marks: [] }).scale.note).toBe(
    'seen from 50° to the side: a photo from above would be surer',
  );
  expect(measured({ scale: [MODULE, coin(22)], marks: [] }).scale.note).toContain(
    'scale.1 does not agree with scale.0: by it its 22 mm are 20.0',
  );
});

test('a coin alone, seen from the side, is no circle, and it is said', () => {
  const points = Array.from({ length: 8 }, (_, t): [number, number] => [
    900 + 200 * Math.cos(t),
    900 + 150 * Math.sin(t),
  ]);
  const { scale } = measured({ scale: [{ kind: 'circle', points, diameterMm: 20 }], marks: [] });
  expect(scale.note).toContain('scale.0: these points are not those of a circle seen from above');
});

test('from the side: a photo from above would be surer; what lies over the horizon is refused', () => {
  const file: MarksFile = { scale: [MODULE], marks: [] };
  expect(measured(file).scale.note).toContain('seen from 50° to the side');
  const steep = { ...TILTED, tiltDeg: 78 };
  const at = (x: number, y: number) => seenAt(steep, [x, y, 0]);
  const scale = [{ ...MODULE, corners: [at(0, 0), at(67.6, 0), at(67.6, 30), at(0, 30)] }];
  const marks = [0, 1].map((k) => ({
    id: `edge ${k}`,
    kind: 'length' as const,
    points: [at(0, 0), [k === 0 ? 0 : 4000, k === 0 ? 0 : 3000]] as [number, number][],
  }));
  const refused = marks.filter((m) => {
    try {
      measured({ scale, marks: [m] });
      return false;
    } catch (cause) {
      expect((cause as MeasureFault).path).toBe('marks.0.points');
      expect((cause as MeasureFault).message).toContain('horizon');
      return true;
    }
  });
  expect(refused).toHaveLength(1);
});

test('clicks that are half as sure make figures half as sure', () => {
  const file = (clickPx?: number): MarksFile => ({
    scale: [length(500, 400, 80)],
    marks: [
      {
        id: 'a',
        kind: 'length',
        points: [
          [100, 100],
          [100, 700],
        ],
      },
    ],
    ...(clickPx ? { clickPx } : {}),
  });
  const [one, two] = [measured(file()).marks[0]!, measured(file(2)).marks[0]!];
  expect(one.value).toBeCloseTo(120, 6);
  expect(one.plusMinus).toBeCloseTo(120 * Math.hypot(Math.SQRT2 / 400, Math.SQRT2 / 600), 4);
  expect(two.plusMinus! / one.plusMinus!).toBeCloseTo(2, 3);
});

test('by hand, straight above at 0.2 mm a pixel: area, angle, path', () => {
  const file: MarksFile = {
    scale: [length(500, 400, 80)],
    marks: [
      {
        id: 'area',
        kind: 'area',
        points: [
          [0, 0],
          [100, 0],
          [100, 50],
          [0, 50],
        ],
      },
      {
        id: 'angle',
        kind: 'angle',
        points: [
          [100, 0],
          [0, 0],
          [-0, 100],
        ],
      },
      {
        id: 'wide',
        kind: 'angle',
        points: [
          [100, 0],
          [200, 0],
          [300, 100],
        ],
      },
      {
        id: 'path',
        kind: 'path',
        points: [
          [0, 0],
          [300, 0],
          [300, 400],
        ],
      },
    ],
  };
  const [area, angle, wide, path] = measured(file).marks;
  expect(area).toMatchObject({ unit: 'mm2', note: null });
  expect(area!.value).toBeCloseTo(200, 6);
  expect(angle!.value).toBeCloseTo(90, 6);
  expect(wide!.value).toBeCloseTo(135, 6);
  expect(path!.value).toBeCloseTo(140, 6);
  expect(path).toMatchObject({ bends: 1, bendDeg: [90] });
});

test('it tells how many marks are done, and is ended by who looks', () => {
  const marks = ['a', 'b', 'c'].map((id) => ({
    id,
    kind: 'length' as const,
    points: [
      [0, 0],
      [9, 9],
    ] as [number, number][],
  }));
  const seen: number[] = [];
  const { marks: done } = measured({ scale: [length(500, 400, 80)], marks }, (n) => {
    seen.push(n);
    return n < 2;
  });
  expect(seen).toEqual([1, 2]);
  expect(done.map((m) => m.id)).toEqual(['a', 'b']);
});

test.each([
  [{ scale: [{ ...length(5, 0.5, 80) }], marks: [] }, 'scale.0.to'],
  [
    {
      scale: [
        {
          kind: 'circle',
          points: [
            [0, 0],
            [5, 5],
            [9, 9],
          ],
          diameterMm: 20,
        },
      ],
      marks: [],
    },
    'scale.0.points',
  ],
])('references that are none are refused at their place', (file, path) => {
  expect(() => parseMarks(file)).toThrow(expect.objectContaining({ path }) as Error);
});
