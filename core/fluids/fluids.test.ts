import { air } from './air';
import { standardAtmosphere } from './standardAtmosphere';
import { water } from './water';

const within = (actual: number, expected: number, share = 0.005) =>
  expect(Math.abs(actual / expected - 1)).toBeLessThanOrEqual(share);

describe('air (Incropera et al., table A.4, values as stated there)', () => {
  test.each([
    [300, 184.6e-7, 26.3e-3, 1007, 0.707, 1.1614, 1.1766],
    [350, 208.2e-7, 30.0e-3, 1009, 0.7, 0.995, 1.0085],
  ])('%d K', (kelvin, mu, k, cp, pr, rho1bar, rhoAtm) => {
    const a = air(kelvin - 273.15, 100_000);
    within(a.viscosityPaS, mu);
    within(a.conductivityWmK, k);
    within(a.heatCapacityJkgK, cp);
    within(a.prandtl, pr);
    within(a.densityKgM3, rho1bar);
    within(air(kelvin - 273.15, 101_325).densityKgM3, rhoAtm);
  });

  test('refuses temperatures where the fits do not hold', () => {
    expect(() => air(300, 101_325)).toThrow(RangeError);
    expect(() => air(NaN, 101_325)).toThrow(RangeError);
  });
});

test('standard atmosphere at 1000 m (ISO 2533)', () => {
  const a = standardAtmosphere(1000);
  expect(a.temperatureK).toBeCloseTo(281.65, 6);
  within(a.pressurePa, 89_874.6, 1e-5);
  within(a.densityKgM3, 1.1116, 1e-4);
  expect(() => standardAtmosphere(12_000)).toThrow(RangeError);
});

describe('saturated water', () => {
  test('330 K (Incropera et al., table A.6)', () => {
    const w = water(330 - 273.15);
    within(w.pressurePa, 0.1719e5);
    within(w.latentHeatJkg, 2.366e6);
    within(w.surfaceTensionNm, 66.6e-3);
    within(w.liquidViscosityPaS, 489e-6);
    within(w.liquidConductivityWmK, 0.65);
  });

  test('373.15 K boils at one atmosphere (steam tables, from memory)', () => {
    const w = water(100);
    within(w.pressurePa, 101_420);
    within(w.liquidDensityKgM3, 958.4, 0.001);
    within(w.vaporDensityKgM3, 0.598);
    within(w.latentHeatJkg, 2.2565e6, 0.002);
    within(w.vaporViscosityPaS, 12.2e-6, 0.02);
  });

  test('holds its end values outside 10 to 150 °C', () => {
    expect(water(-20)).toEqual(water(10));
    expect(water(400)).toEqual(water(150));
  });
});
