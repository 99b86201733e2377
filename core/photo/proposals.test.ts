import type { PhotoMarks } from './photoMarks';
import { WHITE, type Picture } from './picture';
import { proposeMarks } from './proposals';

/** A picture of 0.1 mm a pixel, from light at a place in mm: four by four samples a pixel. */
function seen(
  widthMm: number,
  heightMm: number,
  lightAtMm: (x: number, y: number) => number,
): Picture {
  const [width, height] = [widthMm * 10, heightMm * 10];
  const light = new Uint16Array(width * height);
  let state = 7;
  for (let v = 0; v < height; v++) {
    for (let u = 0; u < width; u++) {
      let sum = 0;
      for (let s = 0; s < 4; s++) {
        sum += lightAtMm((u + 0.25 + 0.5 * (s % 2)) / 10, (v + 0.25 + 0.5 * (s >> 1)) / 10) / 4;
      }
      state = (Math.imul(state, 1103515245) + 12345) & 0x7fffffff;
      const noise = ((state >> 12) % 401) - 200;
      light[v * width + u] = Math.min(WHITE, Math.max(0, WHITE * sum + 2 * noise));
    }
  }
  return { width, height, light };
}

const FAN = { x: 50, y: 45, r: 27 };
const STACK = { x: 90, y: 20, fins: 45, pitch: 1, thick: 0.3, deep: 22 };

/** A fan with blades, a stack with a pipe over a part of it, a screw, a board with traces. */
const scene = seen(150, 90, (x, y) => {
  const r = Math.hypot(x - FAN.x, y - FAN.y);
  if (r < FAN.r) {
    const turn = Math.atan2(y - FAN.y, x - FAN.x) + 0.02 * r;
    const blade = ((turn * 19) / (2 * Math.PI)) % 1;
    return r < 10 ? 0.12 : Math.abs(blade) < 0.25 ? 0.09 : 0.03;
  }
  if (r < FAN.r + 3) return 0.4;
  if (Math.hypot(x - 120, y - 70) < 3) return 0.6;
  const [sx, sy] = [x - STACK.x, y - STACK.y];
  if (sx > -0.6 && sx < STACK.fins * STACK.pitch + 0.2 && sy > 0 && sy < STACK.deep) {
    if (Math.abs(sx - 20 - 0.5 * sy) < 5 && sy > 9) return 0.45;
    const last = (STACK.fins - 1) * STACK.pitch + STACK.thick;
    return sx >= 0 && sx <= last && sx % STACK.pitch < STACK.thick ? 0.55 : 0.04;
  }
  return 0.14 + 0.02 * Math.sin(x / 3) * Math.sin(y / 2);
});
const MARKS: PhotoMarks = {
  references: [
    {
      id: 'r',
      what: 'ruler',
      item: { kind: 'length', from: [100, 850], to: [1100, 850], mm: 100 },
    },
  ],
  marks: [],
};
const LENS = { focalPx: null };

test('the rim of a fan and a stack with a pipe over it are found, and nothing else', () => {
  const found = proposeMarks(scene, LENS, MARKS);
  expect(found.map((p) => p.kind).sort()).toEqual(['circle', 'fins']);
  const [fan, fins] = ['circle', 'fins'].map((k) => found.find((p) => p.kind === k)!);
  // the rim of the impeller, or that of its housing round it
  expect([2 * FAN.r, 2 * (FAN.r + 3)].some((d) => Math.abs(fan!.reads.value! - d) < 0.3)).toBe(
    true,
  );
  expect(fins!.reads).toMatchObject({ value: STACK.fins, note: null });
  const [a, b] = fins!.points as [[number, number], [number, number]];
  // from before the first fin to behind the last
  expect(Math.min(a[0], b[0])).toBeLessThan(10 * STACK.x);
  expect(Math.max(a[0], b[0])).toBeGreaterThan(10 * (STACK.x + STACK.fins - 1));
});

test('what is marked already is not proposed again', () => {
  const found = proposeMarks(scene, LENS, MARKS);
  const marks = found.map((p, i) => ({
    id: `m${i}`,
    mark: { kind: p.kind, points: p.points },
    figure: null,
  }));
  expect(proposeMarks(scene, LENS, { ...MARKS, marks })).toEqual([]);
});

test('nothing without something of known size, nor in a picture of nothing', () => {
  expect(proposeMarks(scene, LENS, { ...MARKS, references: [] })).toEqual([]);
  const blank = seen(120, 90, (x, y) => 0.2 + 0.001 * x + 0.05 * Math.sin(y));
  expect(proposeMarks(blank, LENS, MARKS)).toEqual([]);
});

test('fins far apart in a large picture are found as those close together', () => {
  // the same light at 0.04 mm a pixel: a fin every 26 px
  const fine = { x: 8, y: 12, fins: 60, pitch: 1.04, thick: 0.3, deep: 14 };
  const large = seen(200, 95, (u, v) => {
    const [sx, sy] = [u * 0.4 - fine.x, v * 0.4 - fine.y];
    const isIn = sx > -0.3 && sx < fine.fins * fine.pitch && sy > 0 && sy < fine.deep;
    if (isIn) return sx >= 0 && sx % fine.pitch < fine.thick ? 0.55 : 0.04;
    return 0.14 + 0.02 * Math.sin(u) * Math.sin(v);
  });
  const marks: PhotoMarks = {
    ...MARKS,
    references: [
      {
        id: 'r',
        what: 'ruler',
        item: { kind: 'length', from: [100, 900], to: [1600, 900], mm: 60 },
      },
    ],
  };
  const found = proposeMarks(large, LENS, marks, null, ['fins']);
  expect(found).toHaveLength(1);
  expect(found[0]!.reads).toMatchObject({ value: fine.fins, note: null });
});
