import fc from 'fast-check';
import type { CaseRecord } from '../record/recordSchema';
import { exampleRecord } from '../test-support/exampleRecord';
import { simulateFirmware } from '../transient/simulateFirmware';
import { estimate } from './estimate';
import { openCase } from './openCase';
import { splitAsSet } from './setTogether';

const two = exampleRecord('two-fan-shared-pipes');

function withSetting(setting: object, adapterW?: number): CaseRecord {
  const record = structuredClone(two);
  record.settings = [{ id: 's', ...setting }];
  if (adapterW !== undefined) record.power = { ...record.power, adapterW };
  else delete record.power!.adapterW;
  return record;
}

/** The most GPU watts beside some CPU watts, read off an outline from the GPU axis to the CPU axis. */
function besideCpu(outline: { cpuWatts: number; gpuWatts: number }[], cpuW: number): number {
  const i = outline.findIndex((c) => c.cpuWatts > cpuW);
  const [a, b] = [outline[i - 1]!, outline[i]!];
  const t = (cpuW - a.cpuWatts) / (b.cpuWatts - a.cpuWatts);
  return a.gpuWatts + t * (b.gpuWatts - a.gpuWatts);
}

test('a CPU cut later leaves the GPU what the cooling has for it, as the outline says and the time view', () => {
  const record = withSetting({
    cpuSustainedW: 60,
    gpuSustainedW: 140,
    later: { afterS: 60, cpuSustainedW: 30 },
  });
  const open = openCase({ record });
  const [c] = estimate(open, { caps: ['full'] }).caps;
  const set = c!.configured.together;
  expect(set.cpuWatts).toBeCloseTo(30, 9);
  expect(set.watts).toBeCloseTo(set.cpuWatts + set.gpuWatts, 9);
  expect(set.gpuWatts / besideCpu(c!.envelope, 30)).toBeCloseTo(1, 2);
  expect(set.binding).toEqual({ limit: 'junction', part: 'gpu' });
  // the fixed mix scaled down to 30 W would have stopped at 100 W
  expect(set.gpuWatts).toBeGreaterThan(75);
  const { sustained } = simulateFirmware(open, { cap: 'full', durationS: 3600 });
  expect(sustained.cpuW).toBeCloseTo(30, 1);
  expect(set.gpuWatts / sustained.gpuW).toBeCloseTo(1, 1);
});

test('both at their limits, the adapter, and what is not stopped at all', () => {
  const at = (record: CaseRecord) =>
    estimate(openCase({ record }), { caps: ['full'] }).caps[0]!.configured.together;
  const both = at(withSetting({ cpuSustainedW: 20, gpuSustainedW: 30 }));
  expect([both.cpuWatts, both.gpuWatts]).toEqual([expect.closeTo(20, 6), expect.closeTo(30, 6)]);
  expect(both.binding.limit).toBe('firmware');
  const later = at(
    withSetting({ cpuSustainedW: 60, gpuSustainedW: 60, later: { afterS: 9, cpuSustainedW: 20 } }),
  );
  expect([later.cpuWatts, later.gpuWatts]).toEqual([expect.closeTo(20, 6), expect.closeTo(60, 6)]);
  expect(later.binding).toEqual({ limit: 'firmware', part: 'gpu' });
  const adapter = at(
    withSetting(
      { cpuSustainedW: 60, gpuSustainedW: 140, later: { afterS: 9, cpuSustainedW: 15 } },
      110,
    ),
  );
  expect(adapter.cpuWatts).toBeCloseTo(15, 6);
  expect(adapter.binding.limit).toBe('adapter');
  const free = estimate(openCase({ record: withSetting({}) }), { caps: ['full'] }).caps[0]!;
  expect(free.configured.together).toEqual(free.together);
});

test('a GPU that is stopped leaves the CPU what is left', () => {
  const record = withSetting({
    cpuSustainedW: 90,
    gpuSustainedW: 90,
    later: { afterS: 9, gpuSustainedW: 25 },
  });
  const { configured } = estimate(openCase({ record }), { caps: [36] }).caps[0]!;
  expect(configured.together.gpuWatts).toBeCloseTo(25, 6);
  expect(configured.together.cpuWatts).toBeGreaterThan(45);
});

test('law: as configured lies on or inside both outlines, and a quieter cap never gives more', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 10, max: 120 }),
      fc.integer({ min: 10, max: 160 }),
      fc.integer({ min: 5, max: 90 }),
      fc.option(fc.integer({ min: 70, max: 260 })),
      (cpuSustainedW, gpuSustainedW, cut, adapter) => {
        const setting = { cpuSustainedW, gpuSustainedW, later: { afterS: 9, cpuSustainedW: cut } };
        const record = withSetting(setting, adapter ?? undefined);
        let before = 0;
        for (const c of estimate(openCase({ record }), { caps: [28, 36, 'full'] }).caps) {
          const { cpuWatts, gpuWatts, watts } = c.configured.together;
          expect(cpuWatts).toBeLessThanOrEqual(cut + 1e-6);
          expect(gpuWatts).toBeLessThanOrEqual(gpuSustainedW + 1e-6);
          expect(gpuWatts).toBeLessThanOrEqual(besideCpu(c.envelope, cpuWatts) * 1.006 + 0.05);
          expect(watts).toBeGreaterThanOrEqual(before * (1 - 1e-4));
          before = watts;
        }
      },
    ),
    { numRuns: 25, seed: 4 },
  );
});

test.each([
  [60, 0.5, 0.5, 20, null, 20, 40],
  [60, 0.5, 0.5, null, 10, 50, 10],
  [30, 0.5, 0.5, 20, 40, 15, 15],
  [80, 0.25, 0.75, 30, 50, 30, 50],
  [40, 0.5, 0.5, 0, null, 0, 40],
])('%d W at %d to %d, limits %p and %p: %d and %d W', (watts, cpu, gpu, cpuW, gpuW, a, b) => {
  const found = splitAsSet(watts, { cpu, gpu }, { cpuW, gpuW });
  expect(found.cpuW).toBeCloseTo(a, 9);
  expect(found.gpuW).toBeCloseTo(b, 9);
});
