import { openCase } from '../case/openCase';
import type { CaseRecord } from '../record/recordSchema';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { sustainedBands } from '../uncertainty/sustainedBands';
import { builtSizes } from './builtSizes';
import { compareMachines } from './compareMachines';

jest.setTimeout(120_000);
const two = completeRecord(exampleRecord('two-fan-shared-pipes'));
const four = completeRecord(exampleRecord('four-fan-eight-pipes'));
const one = completeRecord(exampleRecord('one-die'));
const of = (record: CaseRecord, name: string) => ({ name, request: { record } });
const CAPS = [28, 36, 'full'] as const;

test('each machine has its own bands, whoever stands beside it', () => {
  const { machines } = compareMachines([of(two, 'two'), of(one, 'one')], { caps: CAPS });
  const alone = compareMachines([of(two, 'two')], { caps: CAPS }).machines[0]!;
  expect(machines[0]).toEqual(alone);
  for (const [i, record] of [two, one].entries()) {
    const bands = sustainedBands(openCase({ record }), { caps: CAPS, draws: 400, seed: 9 });
    machines[i]!.at.forEach((a, c) => {
      // other draws of the same machine
      expect(Math.abs(a.p50 / bands[c]!.p50 - 1)).toBeLessThan(0.04);
      expect(Math.abs((a.p95 - a.p05) / (bands[c]!.p95 - bands[c]!.p05) - 1)).toBeLessThan(0.25);
    });
  }
});

test('watts for a decibel is the slope of the medians, per kilogram and millimetre those at the middle level', () => {
  const [m] = compareMachines([of(two, 'two')], {
    caps: [30, 34, 38, 'full'],
    draws: 100,
  }).machines;
  const [a, b, c] = m!.at;
  // least squares of three points evenly apart is the slope between the outer ones
  expect(m!.wattsPerDb).toBeCloseTo((c!.p50 - a!.p50) / 8, 9);
  expect(m!.wattsPerMm).toBeCloseTo(b!.p50 / Number(two.shell!.thicknessMm), 9);
  const light = { ...two, shell: { ...two.shell, massKg: undefined } } as CaseRecord;
  const [own] = compareMachines([of(light, 'x')], { caps: [34], draws: 10 }).machines;
  expect(own!.wattsPerKg).toBeNull();
  expect(own!.wattsPerDb).toBeNull();
});

test('a machine against itself is better in half of the draws; against a stronger one hardly, and both ways add up to one', () => {
  const same = compareMachines([of(two, 'a'), of(two, 'b')], { caps: [36] }).better[0]!;
  expect(Math.abs(same.chance - 0.5)).toBeLessThan(0.08);
  const [there] = compareMachines([of(two, 'a'), of(four, 'b')], { caps: [36] }).better;
  const [back] = compareMachines([of(four, 'b'), of(two, 'a')], { caps: [36] }).better;
  expect(there!.chance).toBeLessThan(0.05);
  expect(there!.chance + back!.chance).toBeCloseTo(1, 1);
});

test('what both share takes no certainty away: a warm doubt about the room counts for both alike', () => {
  const room = { temperatureC: { value: 24, plusMinus: 6 } };
  const doubtful = { ...two, room: { ...two.room, ...room } } as CaseRecord;
  const better = structuredClone(doubtful);
  for (const s of better.finStacks!) s.depthMm = 1.25 * Number(s.depthMm);
  const { better: pairs, machines } = compareMachines([of(better, 'a'), of(doubtful, 'b')], {
    caps: [36],
  });
  const [a, b] = machines.map((m) => m.at[0]!);
  // as if nothing were shared: bands as wide as these would leave far more doubt
  const spread = (x: typeof a) => (x!.p95 - x!.p05) / 3.29;
  const z = (a!.p50 - b!.p50) / Math.hypot(spread(a), spread(b));
  const apart = 0.5 * (1 + erf(z / Math.SQRT2));
  expect(pairs[0]!.chance).toBeGreaterThan(apart + 0.02);
});

test('machines of the same name are numbered; it can be given up after any of them', () => {
  const { machines, better } = compareMachines([of(one, 'x'), of(one, 'x'), of(one, 'x')], {
    caps: ['full'],
    draws: 20,
    progress: (done) => done < 2,
  });
  expect(machines.map((m) => m.name)).toEqual(['x', 'x (2)']);
  expect(better).toHaveLength(1);
});

test('areas by hand: fans, pipes pressed flat with their perimeter kept, both faces of the fins', () => {
  const { sweptCm2, pipeSectionMm2, finAreaCm2 } = builtSizes(openCase({ record: two }).data);
  const discs = two.fans!.reduce(
    (s, f) => s + (Math.PI / 4) * Number(f.impellerDiameterMm) ** 2,
    0,
  );
  expect(sweptCm2).toBeCloseTo(discs / 100, 6);
  const [pipe] = two.heatPipes!;
  const [d, t] = [Number(pipe!.diameterMm), Number(pipe!.flattenedMm)];
  const w = t + (Math.PI * (d - t)) / 2;
  const section = Number(pipe!.count) * ((w - t) * t + (Math.PI / 4) * t * t);
  expect(pipeSectionMm2).toBeCloseTo(section, 6);
  // two stacks of 64 fins, both faces of 8.5 by 24 mm
  expect(finAreaCm2).toBeCloseTo((2 * 64 * 2 * 8.5 * 24) / 100, 6);
});

/** Abramowitz & Stegun 7.1.26, to 1.5e-7; from memory. */
function erf(x: number): number {
  const t = 1 / (1 + 0.3275911 * Math.abs(x));
  const poly =
    t *
    (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  return Math.sign(x) * (1 - poly * Math.exp(-x * x));
}
