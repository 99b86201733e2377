import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { rendered, seenAt, type TestCamera } from '@zugluft/core/test-support/rayCaster';
import { run } from './measure';

let folder = '';
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'measure-'));
  await sharp(bytes(), RAW).png().toFile(join(folder, 'photo.png'));
});
afterAll(() => rmSync(folder, { recursive: true }));

/** Film of 26 mm: 26 / 43.27 of the diagonal. */
const FILM_MM = 26;
const W = 1000;
const H = 750;
const camera: TestCamera = {
  widthPx: W,
  heightPx: H,
  focalPx: (FILM_MM / 43.27) * Math.hypot(W, H),
  distanceMm: 130,
  tiltDeg: 9,
  tiltAxisDeg: 40,
  rollDeg: 4,
  lookAtMm: [80, 60],
};
const RAW = { raw: { width: W, height: H, channels: 3 as const } };
const RIM = 20;

/** A bench with a module, a pipe 9 mm wide, a fan's hub, 30 fins of 1.1 mm and a mesh. */
function bench(x: number, y: number): number {
  if (x > 20 && x < 87.6 && y > 20 && y < 50) return 0.55;
  if (y > 56 && y < 65 && x > 20 && x < 140) return 0.75;
  if (x > 99 && y > 19 && x < 134 && y < 51) {
    const k = Math.round((x - 100) / 1.1);
    return k >= 0 && k < 30 && Math.abs(x - 100 - 1.1 * k) < 0.16 ? 0.8 : 0.04;
  }
  if (x > 20 && x < 60 && y > 70 && y < 100) {
    const dx = x - 2 * Math.round(x / 2);
    const dy = y - 2 * Math.round(y / 2);
    return dx * dx + dy * dy < 0.49 ? 0.03 : 0.5;
  }
  return (x - 100) ** 2 + (y - 88) ** 2 < RIM ** 2 ? 0.1 : 0.25;
}
let light: Float32Array | null = null;
const encoded = (x: number) => (x <= 0.0031308 ? 12.92 * x : 1.055 * x ** (1 / 2.4) - 0.055);
const lit = () =>
  (light ??= rendered(camera, { lightAt: bench, blurPx: 0.7, noise: 0.006, rays: 4 }));
/** As an sRGB file holds it, three to a pixel. */
const bytes = () => {
  const out = new Uint8Array(W * H * 3);
  lit().forEach((x, i) => out.fill(Math.round(255 * encoded(x)), 3 * i, 3 * i + 3));
  return out;
};
const at = (x: number, y: number) => seenAt(camera, [x, y, 0]);

const MARKS = () => ({
  scale: [
    {
      kind: 'rectangle',
      corners: [at(20, 20), at(87.6, 20), at(87.6, 50), at(20, 50)],
      widthMm: 67.6,
      heightMm: 30,
    },
  ],
  marks: [
    { id: 'length', kind: 'length', points: [at(20, 50), at(140, 65)] },
    { id: 'pipe', kind: 'strip', points: [at(75, 55.8), at(75.4, 65.3)] },
    {
      id: 'fan',
      kind: 'circle',
      points: [0, 2, 4].map((t) => at(100 + RIM * Math.cos(t), 88 + RIM * Math.sin(t))),
    },
    { id: 'run', kind: 'path', points: [at(20, 60), at(80, 60), at(80, 30)] },
    { id: 'fins', kind: 'fins', points: [at(94, 35), at(138, 35)] },
    { id: 'mesh', kind: 'openShare', points: [at(22, 72), at(58, 72), at(58, 98), at(22, 98)] },
    { id: 'area', kind: 'area', points: [at(20, 20), at(87.6, 20), at(87.6, 50), at(20, 50)] },
    { id: 'angle', kind: 'angle', points: [at(120, 20), at(100, 20), at(100, 50)] },
  ],
});
interface Answer {
  error?: { path: string; message: string };
  scale: { mmPerPx: number; plusMinusShare: number; residualsPx: number[]; note: string | null };
  marks: (Record<string, unknown> & { value: number; plusMinus: number })[];
}
async function measure(marks: unknown, photo = 'photo.png') {
  const file = join(folder, 'marks.json');
  writeFileSync(file, typeof marks === 'string' ? marks : JSON.stringify(marks));
  const { stdout, code } = await run([join(folder, photo), '--marks', file]);
  return { answer: JSON.parse(stdout) as Answer, code };
}

test('one photo: lengths, widths, circles, paths, fins, holes, areas and angles as they are', async () => {
  const { answer, code } = await measure(MARKS());
  expect(answer.error).toBeUndefined();
  expect(code).toBe(0);
  expect(answer).toMatchObject({ format: 'zugluft-measures', formatVersion: 1 });
  expect(answer.scale.note).toBeNull();
  expect(answer.scale.mmPerPx).toBeCloseTo(130 / camera.focalPx, 1);
  const truths: [string, number, string][] = [
    ['length', Math.hypot(120, 15), 'mm'],
    ['pipe', 9, 'mm'],
    ['fan', 2 * RIM, 'mm'],
    ['run', 90, 'mm'],
    ['fins', 30, 'count'],
    ['mesh', (Math.PI * 0.49) / 4, 'share'],
    ['area', 67.6 * 30, 'mm2'],
    ['angle', 90, 'deg'],
  ];
  truths.forEach(([id, truth, unit], i) => {
    const mark = answer.marks[i]!;
    expect(mark).toMatchObject({ id, unit });
    expect([
      id,
      Math.abs(mark.value - truth) <= Math.max(0.01 * truth, 2 * mark.plusMinus),
    ]).toEqual([id, true]);
  });
  expect(answer.marks[3]).toMatchObject({ bends: 1, bendDeg: [90] });
  expect(answer.marks[4]!['pitchMm']).toBeCloseTo(1.1, 1);
  expect(answer.marks[4]).toMatchObject({ plusMinus: 0, note: null });
  expect(answer.marks[1]!.plusMinus).toBeLessThan(0.15);
});

test.each([
  ['JPEG at quality 20', 'q20.jpg', () => sharp(bytes(), RAW).jpeg({ quality: 20 })],
  ['16 bit', 'deep.png', () => sharp(bytes(), RAW).toColourspace('rgb16').png()],
  ['grey', 'grey.png', () => sharp(bytes(), RAW).greyscale().png()],
  ['transparent beside what is shown', 'clear.png', () => sharp(bytes(), RAW).ensureAlpha(1).png()],
] as const)('a photo as %s says the same', async (_, name, make) => {
  await make().toFile(join(folder, name));
  const { answer } = await measure(MARKS(), name);
  expect(answer.marks[1]!.value).toBeCloseTo(9, 0);
  expect(answer.marks[4]!.value).toBe(30);
  expect(answer.marks[5]!.value).toBeCloseTo((Math.PI * 0.49) / 4, 1);
});

test('a photo that lies on its side by its EXIF flag is measured as it is displayed; its lens is read', async () => {
  const turned = await sharp(bytes(), RAW).rotate(90).raw().toBuffer();
  await sharp(turned, { raw: { width: H, height: W, channels: 3 } })
    .withExif({ IFD2: { FocalLengthIn35mmFilm: String(FILM_MM) } })
    .jpeg({ quality: 95 })
    .withMetadata({ orientation: 8 })
    .toFile(join(folder, 'turned.jpg'));
  const { answer } = await measure(MARKS(), 'turned.jpg');
  expect(answer.marks[0]!.value).toBeCloseTo(Math.hypot(120, 15), 0);
  expect(answer.marks[4]!.value).toBe(30);
});

test('what stands over the plane is measured smaller', async () => {
  const marks = MARKS();
  const raised = { ...marks, planeMm: 3, marks: [{ ...marks.marks[0]!, aboveMm: 2 }] };
  const flat = (await measure({ ...marks, marks: [marks.marks[0]] })).answer.marks[0]!;
  const over = (await measure(raised)).answer.marks[0]!;
  expect(over.value / flat.value).toBeCloseTo(1 - 5 / 130, 1);
  // how far the camera was off the plane is not quite known
  expect(over.plusMinus / over.value).toBeGreaterThan(flat.plusMinus / flat.value);
});

test('references that disagree, and corners of another proportion, are named', async () => {
  const two = {
    scale: [
      { kind: 'length', from: at(20, 20), to: at(87.6, 20), mm: 67.6 },
      { kind: 'length', from: at(20, 56), to: at(140, 56), mm: 132 },
    ],
    marks: [],
  };
  const straight = (await measure(two)).answer.scale.note!;
  expect(straight).toMatch(/scale\.[01] does not agree with scale\.[01]/);
  expect(straight).toContain('straight from above');
  const { scale } = MARKS();
  const wrong = { scale: [{ ...scale[0], heightMm: 44 }], marks: [] };
  expect((await measure(wrong)).answer.scale.note).toContain(
    'these corners do not fit 67.6 × 44 mm',
  );
  const turned = { scale: [{ ...scale[0], widthMm: 30, heightMm: 67.6 }], marks: [] };
  expect((await measure(turned)).answer.scale.note).toContain('would fit 67.6 × 30');
});

test('fins finer than two pixels are not told, with the distance from which they would be; the others are', async () => {
  const fine: TestCamera = {
    ...camera,
    tiltDeg: 0,
    rollDeg: 0,
    distanceMm: (1.1 * camera.focalPx) / 1.6,
  };
  const small = rendered(fine, { lightAt: bench, blurPx: 0.6, noise: 0.004, rays: 5 });
  const out = new Uint8Array(W * H * 3);
  small.forEach((x, i) => out.fill(Math.round(255 * encoded(x)), 3 * i, 3 * i + 3));
  await sharp(out, RAW).png().toFile(join(folder, 'far.png'));
  const seen = (x: number, y: number) => seenAt(fine, [x, y, 0]);
  const { answer, code } = await measure(
    {
      scale: [{ kind: 'length', from: seen(20, 20), to: seen(87.6, 20), mm: 67.6 }],
      marks: [
        { id: 'fins', kind: 'fins', points: [seen(94, 35), seen(138, 35)] },
        { id: 'side', kind: 'length', points: [seen(20, 20), seen(20, 50)] },
      ],
    },
    'far.png',
  );
  expect(code).toBe(0);
  expect(answer.marks[0]).toMatchObject({ value: null, plusMinus: null });
  expect(answer.marks[0]!['note']).toMatch(/a photo from about \d+ mm would do/);
  expect(answer.marks[1]!.value).toBeCloseTo(30, 0);
});

test.each<[string, () => unknown, string]>([
  ['no JSON', () => '{', ''],
  ['no scale', () => ({ scale: [], marks: [] }), 'scale'],
  [
    'three corners on a line',
    () => ({
      scale: [
        {
          ...MARKS().scale[0],
          corners: [
            [10, 10],
            [100, 10],
            [200, 10],
            [100, 90],
          ],
        },
      ],
      marks: [],
    }),
    'scale.0.corners',
  ],
  [
    'corners that cross',
    () => ({
      scale: [
        {
          ...MARKS().scale[0],
          corners: [
            [10, 10],
            [200, 10],
            [10, 90],
            [200, 90],
          ],
        },
      ],
      marks: [],
    }),
    'scale.0.corners',
  ],
  [
    'a corner outside',
    () => ({
      scale: [
        {
          ...MARKS().scale[0],
          corners: [
            [10, 10],
            [2000, 10],
            [2000, 90],
            [10, 90],
          ],
        },
      ],
      marks: [],
    }),
    'scale.0.corners.1',
  ],
  [
    'a mark outside',
    () => ({
      ...MARKS(),
      marks: [
        MARKS().marks[0],
        {
          id: 'x',
          kind: 'length',
          points: [
            [1, 1],
            [5, 751],
          ],
        },
      ],
    }),
    'marks.1.points.1',
  ],
  [
    'a mark with too few points',
    () => ({
      ...MARKS(),
      marks: [
        {
          id: 'x',
          kind: 'circle',
          points: [
            [1, 1],
            [5, 5],
          ],
        },
      ],
    }),
    'marks.0.points',
  ],
  [
    'a circle of points on a line',
    () => ({
      ...MARKS(),
      marks: [
        {
          id: 'x',
          kind: 'circle',
          points: [
            [1, 1],
            [5, 5],
            [9, 9],
          ],
        },
      ],
    }),
    'marks.0.points',
  ],
  [
    'an unknown kind',
    () => ({ ...MARKS(), marks: [{ id: 'x', kind: 'volume', points: [] }] }),
    'marks.0.kind',
  ],
  [
    'two marks of one id',
    () => ({ ...MARKS(), marks: [MARKS().marks[0], MARKS().marks[0]] }),
    'marks.1.id',
  ],
  [
    'a width of nothing',
    () => ({ scale: [{ ...MARKS().scale[0], widthMm: 0 }], marks: [] }),
    'scale.0.widthMm',
  ],
])('%s: refused with its place', async (_, marks, path) => {
  const { answer, code } = await measure(marks());
  expect(code).toBe(2);
  expect(answer.error?.path).toBe(path);
  expect(answer.error?.message).toBeTruthy();
});

test('a photo that is none, or is cut, is refused as photo', async () => {
  writeFileSync(join(folder, 'text.jpg'), 'no picture');
  const whole = await sharp(bytes(), RAW).jpeg().toBuffer();
  writeFileSync(join(folder, 'cut.jpg'), whole.subarray(0, whole.length / 2));
  for (const name of ['text.jpg', 'cut.jpg', 'none.jpg']) {
    const { answer, code } = await measure(MARKS(), name);
    expect([name, code, answer.error?.path]).toEqual([name, 2, 'photo']);
  }
});
