import { finEfficiency } from './conduction/fin';
import { horizontalConvection } from './conduction/shell';
import { effectiveness } from './airflow/stackExchange';
import { air } from './fluids/air';

/*
 * Textbook examples carried through step by step. Data and results after Incropera, DeWitt, Bergman & Lavine, Fundamentals of
 * Heat and Mass Transfer, 6th ed.; from memory.
 */

describe('long rods as fins (example 3.9): 5 mm diameter, base 100 °C, air 25 °C, h = 100 W/m²K', () => {
  const D = 0.005;
  const h = 100;
  test.each([
    ['copper', 398, 14.2, 0.19, 8.3],
    ['aluminium alloy', 180, 21.2, 0.13, 5.6],
    ['stainless steel', 14, 75.6, 0.04, 1.6],
  ])('%s, k = %d W/mK', (_, k, mBook, lengthBook, wattsBook) => {
    // step 1: m = √(hP/kA) = √(4h/kD)
    const m = Math.sqrt((4 * h) / (k * D));
    expect(Math.abs(m / mBook - 1)).toBeLessThan(0.01);
    // step 2: the rod may be taken as infinite from 2.65/m on
    expect(2.65 / m).toBeCloseTo(lengthBook, 1);
    // step 3: heat, as efficiency times the whole surface; a sheet of thickness D/2 has the rod's ratio of rim to section
    const length = 2.65 / m;
    const eta = finEfficiency(length, D / 2, k, h);
    const watts = eta * h * Math.PI * D * length * 75;
    // the book gives two digits
    expect(Math.abs(watts / wattsBook - 1)).toBeLessThan(0.04);
  });
});

describe('steam condenser (example 11.2): one stream at constant 50 °C, 30 000 kg/s of water from 20 °C, 2·10⁹ W', () => {
  const capacity = 30_000 * 4179;
  test('step by step', () => {
    // step 1: outlet from the energy balance, 36.0 °C
    const outlet = 20 + 2e9 / capacity;
    expect(outlet).toBeCloseTo(36, 1);
    // step 2: log mean temperature difference, 21 K
    const lmtd = (30 - (50 - outlet)) / Math.log(30 / (50 - outlet));
    expect(lmtd).toBeCloseTo(21, 0);
    // step 3: overall coefficient from h_i = 7552 and h_o = 11 000 W/m²K: 4478 W/m²K
    const u = 1 / (1 / 7552 + 1 / 11_000);
    expect(Math.abs(u / 4478 - 1)).toBeLessThan(0.005);
    // step 4: length of 30 000 tubes of 25 mm in two passes, 4.51 m
    const length = 2e9 / (u * 30_000 * 2 * Math.PI * 0.025 * lmtd);
    expect(Math.abs(length / 4.51 - 1)).toBeLessThan(0.02);
    // step 5: back by ε-NTU, as the fin stacks use it
    const ua = u * 30_000 * 2 * Math.PI * 0.025 * length;
    expect(20 + effectiveness(ua, capacity) * 30).toBeCloseTo(outlet, 6);
  });
});

describe('warm duct in a room (example 9.3): 0.75 m wide, 0.3 m high, 45 °C in air of 15 °C', () => {
  // a long duct: area over perimeter is half its width
  const LONG = 1e4;
  test('step by step', () => {
    // step 1: properties at 30 °C: ν = 16.2e-6, k = 0.0265, Pr = 0.71
    const p = air(30, 101_325);
    expect(Math.abs(p.viscosityPaS / p.densityKgM3 / 16.2e-6 - 1)).toBeLessThan(0.015);
    expect(Math.abs(p.conductivityWmK / 0.0265 - 1)).toBeLessThan(0.015);
    // step 2: top, Ra = 1.38e8 → 0.15 Ra^⅓ → 5.47 W/m²K
    const top = horizontalConvection('up', 0.75, LONG, 45, 15, 101_325);
    expect(Math.abs(top / 5.47 - 1)).toBeLessThan(0.02);
    // step 3: bottom, 0.27 Ra^¼ → 2.07 W/m²K
    const bottom = horizontalConvection('down', 0.75, LONG, 45, 15, 101_325);
    expect(Math.abs(bottom / 2.07 - 1)).toBeLessThan(0.02);
    // step 4: with 4.23 W/m²K on the sides, 246 W per metre
    const watts = (2 * 4.23 * 0.3 + (top + bottom) * 0.75) * 30;
    expect(Math.abs(watts / 246 - 1)).toBeLessThan(0.02);
  });
});
