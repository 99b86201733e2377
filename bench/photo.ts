import { performance } from 'node:perf_hooks';
import { fitScale } from '@zugluft/core/photo/fitScale';
import { measureMark } from '@zugluft/core/photo/measureMarks';
import type { Mark } from '@zugluft/core/photo/marksFile';
import { pictureOf } from '@zugluft/core/photo/picture';
import type { LoadRow } from './library';

const REPEATS = 7;
const WIDTH = 4000;
const HEIGHT = 3000;
const PITCH_PX = 12;
const STACK = { left: 300, right: 3700, top: 1000, bottom: 2000 };

/** What is measured in a photo of 12 megapixels, once it is read: fins across its width, the edges of a strip. */
export function benchPhoto(): LoadRow[] {
  const values = new Uint8Array(WIDTH * HEIGHT * 3);
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const isIn = x > STACK.left && x < STACK.right && y > STACK.top && y < STACK.bottom;
      const light = isIn ? (x % PITCH_PX < PITCH_PX / 3 ? 200 : 20) : 110;
      const at = 3 * (y * WIDTH + x);
      values.fill(light + ((x * 7 + y * 13) % 9), at, at + 3);
    }
  }
  const picture = pictureOf(values, WIDTH, HEIGHT);
  const size = [WIDTH, HEIGHT] as const;
  const known = { kind: 'length', from: [100, 100], to: [900, 100], mm: 80 } as const;
  const scale = fitScale(
    [{ ...known, from: [...known.from], to: [...known.to] }],
    size,
    { focalPx: WIDTH },
    1,
  );
  const time = (mark: Mark) => medianMs(() => void measureMark(picture, scale, mark, 0));
  return [
    {
      name: 'fins counted across a photo of 12 megapixels',
      ms: time({
        id: 'fins',
        kind: 'fins',
        points: [
          [STACK.left - 80, 1500],
          [STACK.right + 80, 1500],
        ],
      }),
      bound: 300,
    },
    {
      name: 'both edges of a strip found beside rough clicks',
      ms: time({
        id: 'strip',
        kind: 'strip',
        points: [
          [STACK.left + 2, 1503],
          [STACK.left + 300, 1500],
        ],
      }),
      bound: 30,
    },
  ];
}

function medianMs(run: () => void): number {
  const times = Array.from({ length: REPEATS }, () => {
    const begun = performance.now();
    run();
    return performance.now() - begun;
  });
  return times.sort((a, b) => a - b)[(REPEATS - 1) / 2]!;
}
