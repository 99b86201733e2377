import fc from 'fast-check';
import { fanCurveFromCoefficients, pressureAtFlow, type FanCurve } from './fanCurve';
import { fanCurveFromPoints, type FanPoint } from './fanCurveFromPoints';

const RPM = 5000;
const computed = fanCurveFromCoefficients(
  { impellerDiameterM: 0.058, bladeHeightM: 0.008 },
  RPM,
  0.9,
  0.1,
  1.5,
  1.2,
);
const stall = computed.pressurePa[0]!;
const free = computed.flowM3s[computed.flowM3s.length - 1]!;
const at = (flowM3s: number, pressurePa: number, rpm = RPM): FanPoint => ({
  rpm,
  flowM3s,
  pressurePa,
});
/** Where a fan meets a system of `Δp = k Q²`: an independent bisection. */
function operating(curve: FanCurve, k: number): number {
  let lo = 0;
  let hi = curve.flowM3s[curve.flowM3s.length - 1]!;
  for (let i = 0; i < 100; i++) {
    const mid = 0.5 * (lo + hi);
    if (pressureAtFlow(curve, mid) > k * mid * mid) lo = mid;
    else hi = mid;
  }
  return lo;
}
const SYSTEMS = [0.05, 0.3, 1, 3, 20].map((x) => (x * stall) / (free * free));

test('a lone free delivery scales the flows, a lone shut-off pressure the pressures', () => {
  const delivered = fanCurveFromPoints([at(1.3 * free, 0)], computed);
  const shut = fanCurveFromPoints([at(0, 0.7 * stall)], computed);
  for (const x of [0, 0.2, 0.5, 0.8, 1]) {
    const p = pressureAtFlow(computed, x * free);
    expect(pressureAtFlow(delivered, 1.3 * x * free)).toBeCloseTo(p, 9);
    expect(pressureAtFlow(shut, x * free)).toBeCloseTo(0.7 * p, 9);
  }
});

test('both ends of a label keep the default shape between them, at their own speeds, in either order', () => {
  const ends = [at(0.5 * 1.2 * free, 0, RPM / 2), at(0, 0.8 * stall)];
  for (const points of [ends, [...ends].reverse()]) {
    const curve = fanCurveFromPoints(points, computed);
    for (const x of [0, 0.3, 0.6, 1]) {
      const p = 0.8 * pressureAtFlow(computed, x * free);
      expect(pressureAtFlow(curve, 1.2 * x * free)).toBeCloseTo(p, 9);
    }
  }
});

test.each<[string, FanPoint[]]>([
  ['the free delivery', [at(free, 0)]],
  ['the shut-off pressure', [at(0, stall)]],
  ['both ends', [at(0, stall), at(free, 0)]],
  ['a point between', [at(0.5 * free, pressureAtFlow(computed, 0.5 * free))]],
  [
    'both ends and a point',
    [at(0, stall), at(free, 0), at(0.4 * free, pressureAtFlow(computed, 0.4 * free))],
  ],
  ['two points between', [0.3, 0.7].map((x) => at(x * free, pressureAtFlow(computed, x * free)))],
  [
    'five points',
    [0.1, 0.3, 0.5, 0.7, 0.9].map((x) => at(x * free, pressureAtFlow(computed, x * free))),
  ],
])('points of the computed curve give the computed answer within 2 %%: %s', (_, points) => {
  const curve = fanCurveFromPoints(points, computed);
  for (const k of SYSTEMS) {
    expect(operating(curve, k) / operating(computed, k)).toBeGreaterThan(0.98);
    expect(operating(curve, k) / operating(computed, k)).toBeLessThan(1.02);
  }
});

test('three points and more are followed, in any order', () => {
  const points = [at(0, 110), at(0.5e-3, 20, RPM / 2), at(2e-3, 0)];
  for (const order of [points, [points[2]!, points[0]!, points[1]!]]) {
    const measured = fanCurveFromPoints(order, computed);
    expect(pressureAtFlow(measured, 0)).toBe(110);
    expect(pressureAtFlow(measured, 1e-3)).toBeCloseTo(80, 9);
    expect(pressureAtFlow(measured, 2e-3)).toBe(0);
  }
});

test('one point between the ends lies on the curve; beside a given end it sets the other one', () => {
  const point = at(0.6 * free, 0.8 * pressureAtFlow(computed, 0.6 * free));
  for (const points of [[point], [point, at(0, stall)], [at(1.1 * free, 0), point]]) {
    const curve = fanCurveFromPoints(points, computed);
    expect(pressureAtFlow(curve, point.flowM3s) / point.pressurePa).toBeCloseTo(1, 2);
    for (const p of points) {
      if (p.flowM3s === 0) expect(pressureAtFlow(curve, 0)).toBeCloseTo(p.pressurePa, 6);
      if (p.pressurePa === 0) expect(curve.flowM3s.at(-1)).toBeCloseTo(p.flowM3s, 9);
    }
  }
});

test('never a fan without pressure or flow, whatever the points: it falls from above 0 to 0', () => {
  const share = fc.oneof(fc.constant(0), fc.double({ min: 0, max: 3, noNaN: true }));
  fc.assert(
    fc.property(
      fc.array(fc.record({ q: share, p: share, rpm: fc.integer({ min: 800, max: 9000 }) }), {
        minLength: 1,
        maxLength: 8,
      }),
      (points) => {
        const curve = fanCurveFromPoints(
          points.map((x) => at(x.q * free, x.p * stall, x.rpm)),
          computed,
        );
        const { flowM3s: q, pressurePa: p } = curve;
        expect(p[0]).toBeGreaterThan(0);
        expect(q[0]).toBe(0);
        expect(q.at(-1)).toBeGreaterThan(0);
        expect(p.at(-1)).toBe(0);
        for (let i = 1; i < q.length; i++) {
          expect(q[i]!).toBeGreaterThan(q[i - 1]!);
          expect(p[i]!).toBeLessThanOrEqual(p[i - 1]! * (1 + 1e-12));
        }
      },
    ),
    { numRuns: 400, seed: 6 },
  );
});
