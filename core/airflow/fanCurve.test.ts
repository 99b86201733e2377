import { emptyFanCurve, fanCurveFromCoefficients, pressureAtFlow } from './fanCurve';

const shape = { impellerDiameterM: 0.058, bladeHeightM: 0.008 };
const curveOf = (exponent: number, room = emptyFanCurve()) =>
  fanCurveFromCoefficients(shape, 5000, 0.5, 0.1, exponent, 1.2, room);

test.each([1, 1.4, 2, 3.3])(
  'a curve from coefficients falls as its exponent says, from shut off to free delivery: %d',
  (exponent) => {
    const tip = (Math.PI * 0.058 * 5000) / 60;
    const stall = 0.5 * 0.5 * 1.2 * tip * tip;
    const free = 0.1 * Math.PI * 0.058 * 0.008 * tip;
    const curve = curveOf(exponent);
    expect(curve.pressurePa[0]).toBeCloseTo(stall, 10);
    expect(curve.pressurePa.at(-1)).toBe(0);
    expect(curve.flowM3s.at(-1)).toBeCloseTo(free, 12);
    for (const share of [0.25, 0.5, 0.75]) {
      const hand = stall * (1 - share ** exponent);
      expect(pressureAtFlow(curve, share * free)).toBeCloseTo(hand, 10);
    }
  },
);

test('curves of other exponents, one after the other, do not take over each other’s powers', () => {
  const alone = [1.4, 2, 1.4].map((exponent) => [...curveOf(exponent).pressurePa]);
  expect(alone[2]).toEqual(alone[0]);
  expect(alone[1]).not.toEqual(alone[0]);
  // room that was used before is written over whole
  const room = emptyFanCurve();
  curveOf(2, room);
  expect([...curveOf(1.4, room).pressurePa]).toEqual(alone[0]);
});
