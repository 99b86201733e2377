import { goldenSection } from './goldenSection';

test.each([0.1, 2, 3.7])('the hump at %f is closed in on, with one call a step', (top) => {
  let calls = 0;
  const [lo, hi] = goldenSection(
    (x) => {
      calls++;
      return -Math.abs(x - top);
    },
    0,
    4,
    20,
  );
  expect(calls).toBe(22);
  expect(lo).toBeLessThanOrEqual(top);
  expect(hi).toBeGreaterThanOrEqual(top);
  // Kiefer 1953: each step leaves 0.618 of the interval
  expect((hi - lo) / 4).toBeCloseTo(0.6180339887 ** 20, 9);
});
