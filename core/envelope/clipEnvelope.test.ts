import fc from 'fast-check';
import { maxByLinearProgram } from '../test-support/maxByLinearProgram';
import { clipEnvelope } from './clipEnvelope';
import type { EnvelopeCorner } from './envelope';
import type { HalfPlane } from './limitTypes';

const junction = { limit: 'junction', part: 'gpu' } as const;
const outline: EnvelopeCorner[] = [
  { cpuWatts: 0, gpuWatts: 100, edge: junction },
  { cpuWatts: 60, gpuWatts: 60, edge: { limit: 'junction', part: 'cpu' } },
  { cpuWatts: 90, gpuWatts: 0, edge: null },
];
const firmware = (cpu: number, gpu: number, headroom: number): HalfPlane => ({
  cpu,
  gpu,
  headroom,
  binding: { limit: 'firmware', part: cpu ? 'cpu' : 'gpu' },
});

test('no cut: the outline as it was', () => {
  expect(clipEnvelope(outline, [firmware(1, 0, 200)])).toEqual(outline);
});

test('firmware cuts a corner off on each side, and each new edge carries its name', () => {
  const cut = clipEnvelope(outline, [firmware(1, 0, 45), firmware(0, 1, 80)]);
  expect(cut.map((c) => [c.cpuWatts, c.gpuWatts, c.edge?.limit ?? null])).toEqual([
    [0, 80, 'firmware'],
    [expect.closeTo(30, 9), 80, 'junction'],
    [45, expect.closeTo(70, 9), 'firmware'],
    [45, 0, null],
  ]);
});

test('an adapter that leaves nothing leaves the origin', () => {
  expect(
    clipEnvelope(outline, [
      { cpu: 1, gpu: 1, headroom: -3, binding: { limit: 'adapter', part: 'adapter' } },
    ]),
  ).toEqual([{ cpuWatts: 0, gpuWatts: 0, edge: null }]);
});

test('reaches what an LP solver finds under the same cuts (yalps, reference package)', () => {
  const plane = fc.record({
    cpu: fc.double({ min: 0, max: 1, noNaN: true }),
    gpu: fc.double({ min: 0.05, max: 1, noNaN: true }),
    headroom: fc.double({ min: 3, max: 120, noNaN: true }),
  });
  fc.assert(
    fc.property(
      fc.array(plane, { maxLength: 4 }),
      fc.double({ min: 0.05, max: 0.95, noNaN: true }),
      (cuts, weight) => {
        const corners = clipEnvelope(
          outline,
          cuts.map((c) => ({ ...c, binding: { limit: 'adapter', part: 'adapter' } })),
        );
        const best = Math.max(
          ...corners.map((c) => weight * c.cpuWatts + (1 - weight) * c.gpuWatts),
        );
        // the outline itself: 2/3·x + y ≤ 100 and 2·x + y ≤ 180
        const all = [
          { cpu: 2 / 3, gpu: 1, headroom: 100 },
          { cpu: 2, gpu: 1, headroom: 180 },
          ...cuts,
        ];
        expect(best).toBeCloseTo(maxByLinearProgram(all, weight), 5);
      },
    ),
    { numRuns: 200, seed: 4, endOnFailure: true },
  );
});
