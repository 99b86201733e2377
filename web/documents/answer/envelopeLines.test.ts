import type { CapEstimate } from '@zugluft/core/case/answer';
import { lineStyle, nearestPlace, placeAlong, stretches } from './envelopeLines';

const gpu = { limit: 'junction', part: 'gpu' } as const;
const cpu = { limit: 'junction', part: 'cpu' } as const;
const cap = (level: number, size: number) =>
  ({
    cap: level,
    envelope: [
      { cpuWatts: 0, gpuWatts: size, edge: gpu },
      { cpuWatts: size / 2, gpuWatts: size * 0.75, edge: gpu },
      { cpuWatts: size, gpuWatts: size / 2, edge: cpu },
      { cpuWatts: size, gpuWatts: 0, edge: null },
    ],
  }) as unknown as CapEstimate;

test('edges of one limit in a row are one stretch; styles tell the limits apart', () => {
  const s = stretches([cap(36, 80)]);
  expect(s.map((x) => [x.binding.part, x.points.length])).toEqual([
    ['gpu', 3],
    ['cpu', 2],
  ]);
  expect(lineStyle(gpu)).not.toBe(lineStyle(cpu));
  expect(lineStyle({ limit: 'skin', part: 'x' })).not.toBe(lineStyle({ limit: 'pipe', part: 'x' }));
});

test('along a line from axis to axis', () => {
  const c = cap(36, 80);
  expect(placeAlong(c, 0).point).toEqual({ cpu: 0, gpu: 80 });
  expect(placeAlong(c, 1).point.cpu).toBeCloseTo(80, 9);
  expect(placeAlong(c, 1).point.gpu).toBeCloseTo(0, 9);
  expect(placeAlong(c, 0.1).binding).toEqual(gpu);
  expect(placeAlong(c, 0.99).binding).toEqual(cpu);
});

test('the place nearest to the pointer', () => {
  expect(nearestPlace([cap(28, 40), cap(36, 80)], { cpu: 79, gpu: 2 }).capIndex).toBe(1);
  expect(nearestPlace([cap(28, 40), cap(36, 80)], { cpu: 2, gpu: 41 })).toMatchObject({
    capIndex: 0,
  });
});
