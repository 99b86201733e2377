import { besselJ0, besselK0, besselK1 } from './bessel';
import { finEfficiency, spreadingFin, stackFinEfficiency, type FinRow } from './fin';
import { interfaceResistance } from './interfaceMaterial';
import { horizontalConvection, radiationCoefficient } from './shell';
import { skinSpotConductance } from './skinSpot';
import { spreadingResistance } from '../test-support/discSpreading';

describe('fin', () => {
  test('mL = 1 has efficiency tanh 1 = 0.7616 (Incropera et al., ch. 3)', () => {
    // m = √(2·50/(200·0.0005)) = 31.62 per metre
    expect(finEfficiency(1 / Math.sqrt(1000), 0.0005, 200, 50)).toBeCloseTo(0.7616, 4);
  });

  const copper = { thicknessM: 1.5e-4, conductivityWmK: 385, joined: 'one-side' as const };
  const efficiency = (fin: FinRow, h: number, contactM: number) =>
    stackFinEfficiency(spreadingFin(fin, contactM), h);

  test('joined on both sides it is as good as half as high', () => {
    const fin = { ...copper, heightM: 0.01, depthM: 0.02 };
    const half = { ...fin, heightM: 0.005 };
    for (const contact of [0.02, 0.008]) {
      const both = efficiency({ ...fin, joined: 'both-sides' }, 100, contact);
      expect(both).toBeCloseTo(efficiency(half, 100, contact), 12);
    }
  });

  test('a contact narrower than the fin is deep costs efficiency, a wider one nothing', () => {
    const fin = { ...copper, heightM: 0.01, depthM: 0.024 };
    expect(efficiency(fin, 100, 0.01)).toBeLessThan(efficiency(fin, 100, 0.022));
    expect(efficiency(fin, 100, 0.022)).toBeLessThan(efficiency(fin, 100, 0.024));
    expect(efficiency(fin, 100, 0.03)).toBe(efficiency(fin, 100, 0.024));
    // nothing jumps as the last bit of overhang goes
    expect(efficiency(fin, 100, 0.02399) / efficiency(fin, 100, 0.024)).toBeCloseTo(1, 2);
  });

  /** Mean temperature over that of the contact, by finite differences over half a fin. */
  function byDifferences(heightM: number, depthM: number, contactM: number, m: number): number {
    const cell = 2.5e-4;
    const [nx, ny] = [Math.round(depthM / 2 / cell), Math.round(heightM / cell)];
    const joined = Math.round(contactM / 2 / cell);
    const t = new Float64Array(nx * ny).fill(0.5);
    for (let sweep = 0; sweep < 20_000; sweep++) {
      let moved = 0;
      for (let j = 0; j < ny; j++) {
        for (let i = 0; i < nx; i++) {
          const at = j * nx + i;
          let sum = 0;
          let weight = (m * cell) ** 2;
          const add = (value: number, by: number) => {
            sum += by * value;
            weight += by;
          };
          if (i > 0) add(t[at - 1]!, 1);
          if (i < nx - 1) add(t[at + 1]!, 1);
          if (j < ny - 1) add(t[at + nx]!, 1);
          if (j > 0) add(t[at - nx]!, 1);
          else if (i < joined) add(1, 2);
          const next = t[at]! + 1.9 * (sum / weight - t[at]!);
          moved = Math.max(moved, Math.abs(next - t[at]!));
          t[at] = next;
        }
      }
      if (moved < 1e-9) break;
    }
    return t.reduce((a, b) => a + b, 0) / t.length;
  }

  test.each([
    [8.5, 24, 11, 100],
    [8.5, 24, 6, 140],
    [6, 30, 8, 150],
    [12, 20, 16, 80],
    [4, 34, 5, 60],
    [20, 24, 7, 120],
  ])(
    'heat from a narrow contact spreads as in two dimensions, to 3 %%: %d high, %d deep, %d mm joined, m = %d (finite differences)',
    (height, depth, contact, m) => {
      const fin = { ...copper, heightM: height / 1000, depthM: depth / 1000 };
      const h = (m * m * fin.conductivityWmK * fin.thicknessM) / 2;
      const found = efficiency(fin, h, contact / 1000);
      const known = byDifferences(fin.heightM, fin.depthM, contact / 1000, m);
      expect(Math.abs(found / known - 1)).toBeLessThan(0.03);
    },
  );

  test('a low fin is a strip: what overhangs on each side is a fin of half the rest, 4 of 24 mm joined, mL = 1 in 10 mm (Incropera et al.)', () => {
    // m = √(2·100/(200·0.0001)) = 100 per metre; hardly any height, so that only the overhang costs
    const low = { heightM: 5e-4, depthM: 0.024, thicknessM: 1e-4, conductivityWmK: 200 };
    const found = efficiency({ ...low, joined: 'one-side' }, 100, 0.004);
    expect(Math.abs(found / ((4 + 20 * 0.76159) / 24) - 1)).toBeLessThan(0.03);
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

test('Bessel J₀ at 0, 1, 2.404826, 5, 20 (Abramowitz & Stegun, table 9.1, from memory)', () => {
  expect(besselJ0(0)).toBe(1);
  expect(besselJ0(1)).toBeCloseTo(0.7651977, 6);
  expect(besselJ0(2.404826)).toBeCloseTo(0, 6);
  expect(besselJ0(5)).toBeCloseTo(-0.1775968, 6);
  expect(besselJ0(20)).toBeCloseTo(0.1670247, 6);
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
