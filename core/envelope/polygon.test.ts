import fc from 'fast-check';
import { maxByLinearProgram } from '../test-support/maxByLinearProgram';
import type { HalfPlane } from './limitTypes';
import { clipPolygon, crossing } from './polygon';

const plane = (cpu: number, gpu: number, headroom: number, part = 'x'): HalfPlane => ({
  cpu,
  gpu,
  headroom,
  binding: { limit: 'junction', part },
});

test('two junctions: corners from the GPU axis to the CPU axis, edges named', () => {
  const corners = clipPolygon([plane(1, 2, 100, 'gpu'), plane(2, 1, 100, 'cpu')]);
  expect(corners.map((c) => [c.cpuW, c.gpuW, c.plane?.binding.part ?? null])).toEqual([
    [0, 50, 'gpu'],
    [expect.closeTo(33.333, 3), expect.closeTo(33.333, 3), 'cpu'],
    [50, 0, null],
  ]);
});

test('a limit passed with both dies idle leaves nothing', () => {
  expect(clipPolygon([plane(1, 1, -5)])).toEqual([{ cpuW: 0, gpuW: 0, plane: null }]);
});

test('corners reach what an LP solver finds in every direction (yalps, reference package)', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          cpu: fc.double({ min: 0.05, max: 2, noNaN: true }),
          gpu: fc.double({ min: 0.05, max: 2, noNaN: true }),
          headroom: fc.double({ min: 5, max: 100, noNaN: true }),
        }),
        { minLength: 1, maxLength: 12 },
      ),
      fc.double({ min: 0.05, max: 0.95, noNaN: true }),
      (limits, weight) => {
        const planes = limits.map((l, i) => plane(l.cpu, l.gpu, l.headroom, String(i)));
        const corners = clipPolygon(planes);
        const best = Math.max(...corners.map((c) => weight * c.cpuW + (1 - weight) * c.gpuW));
        expect(best).toBeCloseTo(maxByLinearProgram(planes, weight), 5);
      },
    ),
    { numRuns: 200, seed: 3 },
  );
});

test('parallel limits do not cross', () => {
  expect(crossing(plane(1, 2, 10), plane(2, 4, 30))).toBeNull();
  expect(crossing(plane(1, 0, 10), plane(0, 1, 7))).toEqual({ cpuW: 10, gpuW: 7 });
});
