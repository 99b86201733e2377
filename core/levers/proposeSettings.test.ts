import { estimate } from '../case/estimate';
import { openCase } from '../case/openCase';
import { completeRecord, exampleRecord } from '../test-support/exampleRecord';
import { simulateFirmware } from '../transient/simulateFirmware';
import { BURST, proposeSettings } from './proposeSettings';
import { splitWatts } from './splitWatts';

jest.setTimeout(120_000);
const record = completeRecord(exampleRecord('two-fan-shared-pipes'));
const CAPS = [28, 36, 'full'] as const;
const OPTIONS = { draws: 60, seed: 3 };

test('three settings from quiet to full, each at or below the median along its own split, in the ratio asked for', () => {
  const ratio = { cpu: 1, gpu: 2 };
  const found = proposeSettings({ record }, { ratio }, CAPS, OPTIONS);
  expect(found.map((s) => s.name)).toEqual(['quiet', 'balanced', 'full']);
  let before = 0;
  for (const s of found) {
    const sum = s.cpuW + s.gpuW;
    expect(sum).toBeLessThanOrEqual(s.band.p50);
    expect(sum).toBeGreaterThan(s.band.p50 - 2);
    expect(s.gpuW / s.cpuW).toBeCloseTo(2, 0);
    expect(sum).toBeGreaterThan(before);
    before = sum;
  }
  expect(found[0]!.levelDbA).toBeCloseTo(28, 1);
});

test('a burst is held by the die as long as a load of just these watts is in time', () => {
  const [quiet] = proposeSettings({ record }, { cpu: 1, gpu: 1 }, CAPS, OPTIONS);
  const { burst } = quiet!;
  expect(burst.cpuW).toBeCloseTo(BURST * quiet!.cpuW, 9);
  const { settings: _, ...free } = record;
  const simulated = simulateFirmware(openCase({ record: free }), {
    cap: 28,
    cpuLoadW: burst.cpuW,
    gpuLoadW: burst.gpuW,
    durationS: 600,
  });
  // from that moment on less than what was asked for is drawn, and not before
  const first = simulated.cpuW.findIndex(
    (w, k) => w + simulated.gpuW[k]! < burst.cpuW + burst.gpuW - 1e-6,
  );
  expect(burst.seconds).toBeGreaterThan(5);
  expect(first * simulated.stepS).toBeCloseTo(burst.seconds!, 6);
});

test('limits above what the maker has set are named, by die', () => {
  const low = structuredClone(record);
  low.settings = [{ id: 's', cpuSustainedW: 500, gpuSustainedW: 5 }];
  const [quiet] = proposeSettings({ record: low }, { ratio: { cpu: 1, gpu: 1 } }, CAPS, OPTIONS);
  expect(quiet!.beyondMaker).toEqual(['gpu']);
});

test('a machine with one die has nothing to split', () => {
  const one = completeRecord(exampleRecord('one-die'));
  expect(proposeSettings({ record: one }, { cpu: 1, gpu: 1 }, CAPS, OPTIONS)).toEqual([]);
});

test('in a ratio the split lies on the outline where the ray of the ratio leaves it, against a fine scan', () => {
  const [answer] = estimate(openCase({ record }), { caps: [36] }).caps;
  const outline = answer!.envelope;
  const within = (cpu: number, gpu: number) =>
    outline.slice(1).every((b, i) => {
      const a = outline[i]!;
      const side =
        (b.cpuWatts - a.cpuWatts) * (gpu - a.gpuWatts) -
        (b.gpuWatts - a.gpuWatts) * (cpu - a.cpuWatts);
      return side <= 1e-9;
    });
  for (const [cpu, gpu] of [
    [1, 1],
    [1, 3],
    [5, 1],
  ] as const) {
    const split = splitWatts(outline, { ratio: { cpu, gpu } })!;
    expect(split.cpuWatts * gpu).toBeCloseTo(split.gpuWatts * cpu, 6);
    let most = 0;
    for (let w = 0; w < 300; w += 0.01) {
      if (within((w * cpu) / (cpu + gpu), (w * gpu) / (cpu + gpu))) most = w;
    }
    expect(Math.abs(split.value - most)).toBeLessThan(0.02);
  }
});
