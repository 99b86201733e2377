import { estimate } from '../case/estimate';
import { openCase } from '../case/openCase';
import { exampleRecord } from '../test-support/exampleRecord';
import { storedBands } from './storedBands';

const plain = estimate(
  openCase({ record: exampleRecord('two-fan-shared-pipes'), lab: { caps: [32, 36] } }),
);

test('what was stored of both dies stands at its cap, the rest in the same proportion, other caps without', () => {
  const at = plain.caps.findIndex((c) => c.cap === 36);
  const { together, gpuAlone, configured } = plain.caps[at]!;
  const half = together.watts / 2;
  const found = storedBands(plain, [{ cap: 36, p05: half - 5, p50: half, p95: half + 8 }]);
  const own = found.caps[at]!;
  expect([own.together.p05, own.together.p50, own.together.p95]).toEqual([
    expect.closeTo(half - 5, 9),
    expect.closeTo(half, 9),
    expect.closeTo(half + 8, 9),
  ]);
  expect(own.gpuAlone!.p50).toBeCloseTo(gpuAlone!.watts / 2, 9);
  expect(own.configured.together.p50).toBeCloseTo(configured.together.watts / 2, 9);
  // central solutions stay what they are
  expect(own.together.watts).toBe(together.watts);
  expect(found.caps[at - 1]!.together.p50).toBeNull();
});

test('a central solution of nothing gives no proportion to go by', () => {
  const off = {
    ...plain,
    caps: plain.caps.slice(0, 1).map((c) => ({ ...c, together: { ...c.together, watts: 0 } })),
  };
  const own = storedBands(off, [{ cap: off.caps[0]!.cap, p05: 0, p50: 1, p95: 2 }]).caps[0]!;
  expect(own.together.p50).toBe(1);
  expect(own.gpuAlone!.p50).toBeNull();
});
