import { asPicture, rendered, seenAt, type TestCamera } from '../test-support/rayCaster';
import { seenCamera } from '../test-support/seenCamera';
import { randomStream } from '../uncertainty/random';
import { toPlane } from './camera';
import { countFins, type FinCount } from './countFins';
import { finProfile } from './finProfile';

export interface Stack {
  fins: number;
  pitchMm: number;
  thickMm: number;
  without?: number[];
  moved?: Record<number, number>;
  beside?: number;
  fin?: number;
  gap?: number;
  white?: [number, number];
}

/** Light of a stack of fins across x, its first fin's middle at 0. */
const stackLight =
  ({
    fins,
    pitchMm,
    thickMm,
    without = [],
    moved = {},
    beside = 0.2,
    fin = 0.6,
    gap = 0.05,
    white,
  }: Stack) =>
  (x: number): number => {
    if (white && x > white[0] * pitchMm && x < white[1] * pitchMm) return 1;
    const k = Math.round(x / pitchMm);
    if (x < -thickMm / 2 || x > (fins - 1) * pitchMm + thickMm / 2) return beside;
    for (const i of [k - 1, k, k + 1]) {
      if (i < 0 || i >= fins || without.includes(i)) continue;
      const at = (i + (moved[i] ?? 0)) * pitchMm;
      if (Math.abs(x - at) <= thickMm / 2) return fin;
    }
    return gap;
  };

interface Shot {
  pxPerFin: number;
  tiltDeg?: number;
  rollDeg?: number;
  blurPx?: number;
  noise?: number;
  seed?: number;
  /** Of the line against the fins' normal, degrees. */
  askewDeg?: number;
}

function counted(
  stack: Stack,
  { pxPerFin, tiltDeg = 0, rollDeg = 0, blurPx = 0.7, noise = 0.01, seed = 1, askewDeg = 0 }: Shot,
) {
  const long = (stack.fins - 1) * stack.pitchMm;
  const focalPx = 2500;
  const distanceMm = (focalPx * stack.pitchMm) / pxPerFin;
  const wide =
    Math.ceil(
      ((long + 14 * stack.pitchMm) * focalPx) / distanceMm / Math.cos((rollDeg * Math.PI) / 180),
    ) + 20;
  const c: TestCamera = {
    widthPx: wide,
    heightPx:
      80 +
      Math.ceil(
        wide * Math.abs(Math.sin(((Math.abs(rollDeg) + Math.abs(askewDeg)) * Math.PI) / 180)),
      ),
    focalPx,
    distanceMm,
    tiltDeg,
    tiltAxisDeg: 70,
    rollDeg,
    lookAtMm: [long / 2, 0],
  };
  const light = rendered(c, {
    lightAt: stackLight(stack),
    blurPx,
    noise,
    seed,
    vignette: 0.2,
    rays: pxPerFin < 5 ? 6 : 4,
  });
  const camera = seenCamera(c);
  const out = 5 * stack.pitchMm;
  const dy = (long / 2 + out) * Math.tan((askewDeg * Math.PI) / 180);
  const a = toPlane(camera, seenAt(c, [-out, -dy, 0]));
  const b = toPlane(camera, seenAt(c, [long + out, dy, 0]));
  return countFins(finProfile(asPicture(c, light), camera, a, b, 0));
}
const told = (x: ReturnType<typeof countFins>): FinCount => {
  expect(x).not.toHaveProperty('why');
  return x as FinCount;
};
const STACK: Stack = { fins: 64, pitchMm: 1.1, thickMm: 0.3 };

test.each([3, 4, 6, 10])('64 fins at %d pixels a fin, whatever lies beside them', (pxPerFin) => {
  for (const beside of [0.02, 0.2, 0.45, 0.7]) {
    const found = told(counted({ ...STACK, beside }, { pxPerFin }));
    expect([beside, found.count, found.notes]).toEqual([beside, 64, []]);
    expect(found.pitchMm).toBeCloseTo(1.1, 2);
    expect(found.plusMinus).toBe(0);
  }
});

test('tilted, turned, and by a line askew', () => {
  for (const shot of [
    { tiltDeg: 30 },
    { rollDeg: 25 },
    { askewDeg: 5 },
    { tiltDeg: 20, rollDeg: -8, askewDeg: -4 },
  ]) {
    const found = told(counted({ ...STACK, fins: 40 }, { pxPerFin: 5, ...shot }));
    expect([shot, found.count]).toEqual([shot, 40]);
  }
});

test('fins seen dark between bright gaps', () => {
  for (const beside of [0.1, 0.4, 0.7]) {
    const stack = { ...STACK, fins: 40, fin: 0.08, gap: 0.55, beside };
    const found = told(counted(stack, { pxPerFin: 8 }));
    expect([beside, found.count]).toEqual([beside, 40]);
    expect(found.notes.join()).toContain('dark');
  }
});

test('a fin that is missing does not count, and is noted', () => {
  const found = told(counted({ ...STACK, without: [20, 41] }, { pxPerFin: 5 }));
  expect(found.count).toBe(62);
  expect(found.notes.join()).toContain('2 missing');
  expect(found.places.filter((p) => p.is === 'missing')).toHaveLength(2);
});

test('a fin that is bent against its neighbour counts, and is noted', () => {
  const found = told(counted({ ...STACK, moved: { 30: 0.62 } }, { pxPerFin: 8 }));
  expect(found.count).toBe(64);
  expect(found.notes.join()).toContain('1 bent');
});

test('where the picture is overexposed fins are bridged, and it is said', () => {
  const found = told(counted({ ...STACK, white: [20.5, 24.5] }, { pxPerFin: 6 }));
  expect(found.count).toBe(64);
  expect(found.notes.join()).toContain('overexposed');
});

test('finer than two pixels, or nothing that repeats: not told', () => {
  // a picture's pixels make coarser patterns of them, which are none
  for (const pxPerFin of [1.95, 1.8, 1.6, 1.5, 1.3, 1.1]) {
    expect([pxPerFin, counted(STACK, { pxPerFin })]).toEqual([pxPerFin, { why: 'fine' }]);
  }
  expect(counted({ ...STACK, fin: 0.2, gap: 0.2 }, { pxPerFin: 5 })).toHaveProperty('why');
});

test('thickness where there are pixels for it, else at most', () => {
  const wide = told(counted({ ...STACK, fins: 20, thickMm: 0.4 }, { pxPerFin: 14 }));
  expect(wide.thicknessMm).toBeCloseTo(0.4, 1);
  const fine = told(counted(STACK, { pxPerFin: 4 }));
  expect(fine.thicknessMm).toBeNull();
  expect(fine.thicknessAtMostMm).toBeGreaterThan(0.3);
});

test('of many stacks at three pixels a fin and more, hardly one is wrong, and none by more than one unsaid', () => {
  const next = randomStream(11);
  let wrong = 0;
  const many = 40;
  for (let k = 0; k < many; k++) {
    const fins = 12 + Math.floor(70 * next());
    const stack: Stack = {
      fins,
      pitchMm: 0.8 + 0.75 * next(),
      thickMm: 0.2 + 0.2 * next(),
      beside: 0.7 * next(),
      fin: 0.35 + 0.5 * next(),
      gap: 0.02 + 0.1 * next(),
    };
    const found = counted(stack, {
      pxPerFin: 3 + 5 * next(),
      tiltDeg: 20 * next(),
      askewDeg: 6 * next() - 3,
      blurPx: 0.4 + 0.6 * next(),
      noise: 0.015 * next(),
      seed: k + 1,
    });
    if ('why' in found || found.count !== fins) {
      wrong++;
      if ('count' in found && Math.abs(found.count - fins) > 1) expect(found.notes).not.toEqual([]);
    }
  }
  expect(wrong / many).toBeLessThanOrEqual(0.03);
});
