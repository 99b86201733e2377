import { openCase } from './openCase';
import { estimate } from './estimate';
import type { CaseRecord } from '../record/recordSchema';
import { completeRecord, exampleRecord, twoLoopRecord } from '../test-support/exampleRecord';
import { fanState, controlGroups, dutyForLevel } from '../envelope/fanStates';
import { resolveCase } from '../record/resolveCase';

/** Separate loops: the CPU's fan cools nothing of the GPU. */
function loops(control: 'own' | 'shared'): CaseRecord {
  const record = twoLoopRecord();
  record.fans = record.fans!.map((f) => ({ ...f, control }));
  return completeRecord(record);
}

test('apart, the fan of the busy die takes the noise: CPU alone carries clearly more at a cap', () => {
  const caps = [30, 36] as const;
  const shared = estimate(openCase({ record: loops('shared') }), { caps }).caps;
  const own = estimate(openCase({ record: loops('own') }), { caps }).caps;
  own.forEach((c, i) => {
    expect(c.cpuAlone!.watts).toBeGreaterThan(1.04 * shared[i]!.cpuAlone!.watts);
    const [left, right] = c.cpuAlone!.fans;
    expect(left!.rpm).toBeGreaterThan(right!.rpm);
    expect(c.together.watts).toBeGreaterThanOrEqual(shared[i]!.together.watts * (1 - 1e-4));
  });
});

test('law: apart too, carry never falls with the cap', () => {
  const caps = [26, 28, 30, 32, 34, 36, 38, 40];
  const { caps: found } = estimate(openCase({ record: loops('own') }), { caps, envelopes: false });
  for (let i = 1; i < found.length; i++) {
    for (const r of ['cpuAlone', 'gpuAlone', 'together'] as const) {
      expect(found[i]![r]!.watts).toBeGreaterThanOrEqual(found[i - 1]![r]!.watts * (1 - 1e-4));
    }
  }
});

test('no state is louder than its cap', () => {
  const data = resolveCase(loops('own'));
  expect(controlGroups(data)).toHaveLength(2);
  for (const cap of [28, 33, 38]) {
    const { fans } = estimate(openCase({ record: loops('own') }), { caps: [cap] }).caps[0]!
      .cpuAlone!;
    const level = fanState(
      data,
      fans.map((f, i) => f.rpm / data.fans[i]!.maxRpm),
    ).levelDbA!;
    expect(level).toBeLessThanOrEqual(cap + 1e-6);
  }
});

test('duty and level go there and back, also where a further fan starts on the way', () => {
  const record = structuredClone(exampleRecord('two-fan-shared-pipes'));
  record.fans![0]!.minRpm = 3500;
  const data = resolveCase(record);
  for (let level = 24; level < 44; level += 0.5) {
    const duty = dutyForLevel(data, level, fanState(data, 1).levelDbA!);
    if (duty === 0) continue;
    expect(fanState(data, duty).levelDbA!).toBeLessThanOrEqual(level + 1e-9);
    // a hair more is louder than the cap
    if (duty < 1) expect(fanState(data, duty * 1.0001).levelDbA!).toBeGreaterThan(level);
  }
});

test('the duty of a level is the greatest that is no louder, whatever the fans and where they start: beside a fine scan', () => {
  const record = structuredClone(exampleRecord('four-fan-eight-pipes'));
  [1200, 2600, 1260, 3900].forEach((rpm, i) => (record.fans![i]!.minRpm = rpm));
  record.fans![2]!.impellerDiameterMm = 40;
  const data = resolveCase(record);
  const full = fanState(data, 1).levelDbA!;
  const duties = Array.from({ length: 2001 }, (_, i) => i / 2000);
  const levels = duties.map((d) => fanState(data, d).levelDbA ?? -Infinity);
  let stopped = 0;
  for (let level = full - 40; level < full; level += 0.37) {
    const found = dutyForLevel(data, level, full);
    // the loudest from where on all are too loud
    const last = levels.findLastIndex((l) => l <= level);
    if (levels[last] === -Infinity) {
      expect(found).toBe(0);
      stopped++;
    } else {
      expect(found).toBeGreaterThan(duties[last]! - 1e-6);
      expect(found).toBeLessThan(duties[last + 1]!);
    }
  }
  expect(stopped).toBeGreaterThan(3);
});
