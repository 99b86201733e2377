import { openCase } from './openCase';
import fc from 'fast-check';
import { estimate } from './estimate';
import type { CaseRecord } from '../record/recordSchema';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { randomRecord } from '../test-support/randomRecord';
import { explain } from './explain';
import { stripStates } from './stripStates';
const two = exampleRecord('two-fan-shared-pipes');

test('the steps from the room add up to each junction, at any cap and any watts', () => {
  fc.assert(
    fc.property(
      randomRecord,
      fc.constantFrom('off' as const, 30, 'full' as const),
      fc.nat(60),
      fc.nat(90),
      (record, cap, cpuW, gpuW) => {
        for (const c of explain(openCase({ record }), cap, { cpuW, gpuW }).chains) {
          const sum = c.steps.reduce((total, s) => total + s.kelvin, c.ambientC);
          expect(sum).toBeCloseTo(c.junctionC, 6);
          for (const s of c.steps) {
            if (s.kelvinPerWatt !== null)
              expect(s.kelvinPerWatt * c.watts).toBeCloseTo(s.kelvin, 6);
          }
        }
      },
    ),
    { numRuns: 25, seed: 6, endOnFailure: true },
  );
});

test('at a readout the first limit binds, and it is the one that the estimate names', () => {
  for (const cap of [28, 36, 'full'] as const) {
    for (const readout of ['cpuAlone', 'gpuAlone', 'together'] as const) {
      const [c] = estimate(openCase({ record: two }), { caps: [cap] }).caps;
      const why = explain(openCase({ record: two }), cap, readout);
      const first = why.limits[0]!;
      expect(first.binding).toEqual(c![readout]!.binding);
      expect(first.moreWatts).toBeCloseTo(0, 2);
    }
  }
});

test('what would be next is what binds once the first limit is lifted', () => {
  const why = explain(openCase({ record: two }), 36, 'together');
  expect(why.limits[0]!.binding).toEqual({ limit: 'junction', part: 'gpu' });
  const lifted = structuredClone(two);
  lifted.dies![1]!.maxJunctionC = 120;
  const next = estimate(openCase({ record: lifted }), { caps: [36] }).caps[0]!.together;
  expect(next.binding).toEqual(why.limits[1]!.binding);
  // the setting’s 54 W + 90 W lie beyond what is carried here
  expect(why.configured.map((l) => l.binding.limit)).toContain('firmware');
  const more =
    next.watts - estimate(openCase({ record: two }), { caps: [36] }).caps[0]!.together.watts;
  expect(Math.abs(why.limits[1]!.moreWatts / more - 1)).toBeLessThan(0.05);
});

test('older paste puts its kelvins into the interface and nowhere else', () => {
  const old = structuredClone(two);
  old.dies![0]!.interface!.ageYears = 6;
  const at = { cpuW: 40, gpuW: 50 };
  const step = (record: CaseRecord, name: string) =>
    explain(openCase({ record }), 36, at).chains[0]!.steps.find((s) => s.step === name)!.kelvin;
  expect(step(old, 'interface')).toBeGreaterThan(1.3 * step(two, 'interface'));
  for (const name of ['air-in', 'fins-to-air', 'condenser', 'evaporator', 'die']) {
    expect(step(old, name)).toBeCloseTo(step(two, name), 6);
  }
});

test('a strip in both states: more air without it, unless it sealed the duct', () => {
  const record = structuredClone(two);
  record.strips = [
    { id: 'film', at: 'fins-left', coversShare: 0.4, purpose: 'unknown', state: 'present' },
    { id: 'seal', at: 'fins-right', coversShare: 0.01, purpose: 'duct-seal', state: 'present' },
  ];
  const [film, seal] = stripStates(openCase({ record: completeRecord(record) }), 36);
  expect(film!.removedW).toBeGreaterThan(film!.presentW);
  expect(seal!.removedW).toBeLessThan(seal!.presentW);
});
