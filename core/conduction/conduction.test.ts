import { besselK0, besselK1 } from './bessel';
import { finEfficiency, stackFinEfficiency } from './fin';
import { interfaceResistance } from './interfaceMaterial';
import { horizontalConvection, radiationCoefficient } from './shell';
import { skinSpotConductance } from './skinSpot';
import { spreadingResistance } from './spreading';

describe('fin', () => {
  test('mL = 1 has efficiency tanh 1 = 0.7616 (Incropera et al., ch. 3)', () => {
    // m = √(2·50/(200·0.0005)) = 31.62 per metre
    expect(finEfficiency(1 / Math.sqrt(1000), 0.0005, 200, 50)).toBeCloseTo(0.7616, 4);
  });

  test('joined on both sides it is as good as half as high', () => {
    const fin = { heightM: 0.01, depthM: 0.02, thicknessM: 1.5e-4, conductivityWmK: 385 };
    const both = stackFinEfficiency({ ...fin, joined: 'both-sides' }, 100, 0.02);
    const half = stackFinEfficiency({ ...fin, heightM: 0.005, joined: 'one-side' }, 100, 0.02);
    expect(both).toBeCloseTo(half, 12);
  });

  test('a contact narrower than the fin is deep costs efficiency', () => {
    const fin = {
      heightM: 0.01,
      depthM: 0.024,
      thicknessM: 1.5e-4,
      conductivityWmK: 385,
      joined: 'one-side' as const,
    };
    expect(stackFinEfficiency(fin, 100, 0.01)).toBeLessThan(stackFinEfficiency(fin, 100, 0.022));
    expect(stackFinEfficiency(fin, 100, 0.03)).toBe(stackFinEfficiency(fin, 100, 0.024));
  });

  test('what overhangs on each side is a fin of half the rest: 4 of 24 mm joined, mL = 1 in 10 mm (Incropera et al.)', () => {
    // m = √(2·100/(200·0.0001)) = 100 per metre; hardly any height, so that only the overhang costs
    const fin = {
      heightM: 1e-9,
      depthM: 0.024,
      thicknessM: 1e-4,
      conductivityWmK: 200,
      joined: 'one-side' as const,
    };
    expect(stackFinEfficiency(fin, 100, 0.004)).toBeCloseTo((4 + 20 * 0.76159) / 24, 5);
  });
});

describe('spreading', () => {
  test('a small source on a very large thick plate comes near the half-space value 8/(3π²·k·a) (Carslaw & Jaeger, mean, from memory)', () => {
    const a = 0.001;
    const r = spreadingResistance(Math.PI * a * a, Math.PI * 0.2 * 0.2, 0.2, 400, 1000);
    const halfSpace = 8 / (3 * Math.PI ** 2 * 400 * a);
    expect(Math.abs(r / halfSpace - 1)).toBeLessThan(0.06);
  });

  test('a source as large as the plate spreads nothing', () => {
    expect(spreadingResistance(1e-4, 1e-4, 1e-3, 400, 1000)).toBe(0);
  });
});

test('interface: 40 µm at 5 W/mK on 1 cm² is 0.08 K/W, a contact adds, ageing stops at fourfold', () => {
  expect(interfaceResistance(40e-6, 5, 1e-4, 0, 0, 0.1)).toBeCloseTo(0.08, 12);
  expect(interfaceResistance(40e-6, 5, 1e-4, 1e-6, 0, 0.1)).toBeCloseTo(0.09, 12);
  expect(interfaceResistance(40e-6, 5, 1e-4, 0, 100, 0.1)).toBeCloseTo(0.32, 12);
});

describe('shell', () => {
  test('radiation between 40 °C and 23 °C at ε = 0.9 (Stefan–Boltzmann, worked by hand)', () => {
    const flux = 0.9 * 5.670374419e-8 * (313.15 ** 4 - 296.15 ** 4);
    expect(radiationCoefficient(0.9, 40, 23) * 17).toBeCloseTo(flux, 9);
  });

  test('a warm plate facing up loses twice what it loses facing down (0.54 to 0.27)', () => {
    const up = horizontalConvection('up', 0.355, 0.245, 45, 23, 101_325);
    const down = horizontalConvection('down', 0.355, 0.245, 45, 23, 101_325);
    expect(up / down).toBeCloseTo(2, 9);
    // a plate of that size and warmth: 4 to 7 W/m²K, common practice, no source
    expect(up).toBeGreaterThan(4);
    expect(up).toBeLessThan(8);
  });
});

test('Bessel K at 0.5, 1, 2, 3 (Abramowitz & Stegun, table 9.8, from memory)', () => {
  expect(besselK0(0.5)).toBeCloseTo(0.924419, 5);
  expect(besselK1(0.5)).toBeCloseTo(1.656441, 5);
  expect(besselK0(1)).toBeCloseTo(0.421024, 5);
  expect(besselK1(1)).toBeCloseTo(0.601907, 5);
  expect(besselK0(2)).toBeCloseTo(0.113894, 5);
  expect(besselK1(2)).toBeCloseTo(0.139866, 5);
  expect(besselK0(3)).toBeCloseTo(0.03474, 5);
  expect(besselK1(3)).toBeCloseTo(0.040156, 5);
});

test('a metal shell carries a hot spot away much better than a plastic one', () => {
  expect(skinSpotConductance(2e-3, 150, 1e-3, 8)).toBeGreaterThan(
    5 * skinSpotConductance(2e-3, 0.3, 1.6e-3, 8),
  );
});
