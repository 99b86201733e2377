import { openCase } from '../case/openCase';
import { estimate } from '../case/estimate';
import { exampleRecord } from '../test-support/exampleRecord';
import { estimateWithDraws } from './estimateWithDraws';
import { lastKnownBands } from './lastKnownBands';
import { medianOutline } from './medianOutline';
import { sustainedBands } from './sustainedBands';

const two = exampleRecord('two-fan-shared-pipes');
const options = { draws: 60, seed: 1, caps: ['off', 36, 'full'] as const };
const { estimate: before } = estimateWithDraws(openCase({ record: two }), options);

test('while draws are made each readout keeps its distance to its median and the ends of its band', () => {
  const narrower = structuredClone(two);
  narrower.finStacks![0]!.blockedShare = 0.5;
  const plain = estimate(openCase({ record: narrower }), { caps: [36, 31] });
  const now = lastKnownBands(plain, before);
  const was = before.caps[1]!.together;
  const is = now.caps[0]!.together;
  expect(is.watts).toBe(plain.caps[0]!.together.watts);
  expect(is.watts).toBeLessThan(was.watts * 0.97);
  for (const end of ['p05', 'p50', 'p95'] as const) {
    expect(is[end]! / is.watts).toBeCloseTo(was[end]! / was.watts, 12);
  }
  expect(is.held).toEqual(was.held);
  expect(now.caps[0]!.configured.cpuAlone!.p50).toBeGreaterThan(0);
  // a cap that was not there before has none
  expect(now.caps[1]!.together.p50).toBeNull();
});

test('an outline drawn in goes through the medians on both axes and along the ratio', () => {
  const cap = before.caps[1]!;
  const outline = medianOutline(cap);
  expect(outline[0]!.gpuWatts).toBeCloseTo(cap.gpuAlone!.p50!, 6);
  expect(outline[outline.length - 1]!.cpuWatts).toBeCloseTo(cap.cpuAlone!.p50!, 6);
  expect(outline.map((c) => c.edge)).toEqual(cap.envelope.map((c) => c.edge));
  // along the ratio: where the ray crosses the outline
  const ratio = cap.together.cpuWatts / cap.together.gpuWatts;
  const i = outline.findIndex((c) => c.cpuWatts > ratio * c.gpuWatts);
  const [a, b] = [outline[i - 1]!, outline[i]!];
  const side = (c: typeof a) => c.cpuWatts - ratio * c.gpuWatts;
  const t = side(a) / (side(a) - side(b));
  const watts =
    a.cpuWatts + t * (b.cpuWatts - a.cpuWatts) + a.gpuWatts + t * (b.gpuWatts - a.gpuWatts);
  expect(watts / cap.together.p50!).toBeCloseTo(1, 1);
  const plain = estimate(openCase({ record: two }), { caps: [36] }).caps[0]!;
  expect(medianOutline(plain)).toEqual(plain.envelope);
});

test('a list’s bands are those of the whole answer', () => {
  for (const record of [two, exampleRecord('one-die')]) {
    const { caps } = estimateWithDraws(openCase({ record }), options).estimate;
    const bands = sustainedBands(openCase({ record }), options);
    bands.forEach((b, i) => {
      for (const end of ['p05', 'p50', 'p95'] as const) {
        expect(b[end] / caps[i]!.together[end]!).toBeCloseTo(1, 2);
      }
    });
  }
});

test('held shares add up to one, and the limit most often met comes first', () => {
  for (const c of before.caps) {
    for (const r of [c.cpuAlone!, c.gpuAlone!, c.together, c.configured.together]) {
      expect(r.held.reduce((sum, h) => sum + h.share, 0)).toBeCloseTo(1, 9);
      const shares = r.held.map((h) => h.share);
      expect(shares).toEqual([...shares].sort((a, b) => b - a));
      expect(r.p05!).toBeLessThanOrEqual(r.p50!);
      expect(r.p50!).toBeLessThanOrEqual(r.p95!);
    }
  }
  expect(before.caps[2]!.together.held[0]!.limit).toBe('junction');
});

test('a list’s watts as configured are those of the estimate of the same seed, cut where the firmware stops', () => {
  const record = exampleRecord('two-fan-shared-pipes');
  record.settings = [{ id: 'quiet', cpuSustainedW: 25, gpuSustainedW: 30 }];
  const open = openCase({ record });
  const options = { caps: [36, 'full'] as const, draws: 60, seed: 3 };
  const bands = sustainedBands(open, options);
  const { estimate } = estimateWithDraws(open, { ...options, envelopes: false });
  estimate.caps.forEach((c, i) => {
    expect(bands[i]!.configured!.p50).toBeCloseTo(c.configured.together.p50!, 9);
    expect(bands[i]!.configured!.p95).toBeCloseTo(55, 9);
  });
});
