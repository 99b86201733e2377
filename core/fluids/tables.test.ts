import { air } from './air';
import { water } from './water';

const within = (found: number, published: number, share: number) =>
  expect(Math.abs(found / published - 1)).toBeLessThan(share);

// Incropera et al., table A.6: T K, p bar, h_fg kJ/kg, μ_l 1e-6 Pa s, k_l 1e-3 W/mK, σ 1e-3 N/m; from memory
describe('saturated water over the range', () => {
  test.each([
    [300, 0.03531, 2438, 855, 613, 71.7],
    [310, 0.06221, 2414, 695, 628, 70.0],
    [320, 0.1053, 2390, 577, 640, 68.3],
    [340, 0.2713, 2342, 420, 660, 64.9],
    [350, 0.4163, 2317, 365, 668, 63.2],
    [360, 0.6209, 2291, 324, 674, 61.4],
    [370, 0.904, 2265, 289, 679, 59.5],
    [400, 2.455, 2183, 217, 688, 53.6],
  ])('%d K', (t, bar, latent, viscosity, conductivity, tension) => {
    const w = water(t - 273.15);
    within(w.pressurePa, bar * 1e5, 0.005);
    within(w.latentHeatJkg, latent * 1e3, 0.003);
    within(w.liquidViscosityPaS, viscosity * 1e-6, 0.015);
    within(w.liquidConductivityWmK, conductivity * 1e-3, 0.01);
    within(w.surfaceTensionNm, tension * 1e-3, 0.006);
  });

  test('every property moves one way only over the whole range', () => {
    for (let c = 10; c < 149; c++) {
      const a = water(c);
      const b = water(c + 1);
      expect(b.pressurePa).toBeGreaterThan(a.pressurePa);
      expect(b.vaporDensityKgM3).toBeGreaterThan(a.vaporDensityKgM3);
      expect(b.liquidDensityKgM3).toBeLessThan(a.liquidDensityKgM3);
      expect(b.latentHeatJkg).toBeLessThan(a.latentHeatJkg);
      expect(b.surfaceTensionNm).toBeLessThan(a.surfaceTensionNm);
      expect(b.liquidViscosityPaS).toBeLessThan(a.liquidViscosityPaS);
      expect(b.vaporViscosityPaS).toBeGreaterThan(a.vaporViscosityPaS);
    }
  });
});

// Incropera et al., table A.4, at 100 000 Pa: T K, ρ kg/m³, cp J/kgK, μ 1e-7 Pa s, k 1e-3 W/mK, Pr; from memory
describe('air over the range', () => {
  test.each([
    [250, 1.3947, 1006, 159.6, 22.3, 0.72],
    [300, 1.1614, 1007, 184.6, 26.3, 0.707],
    [350, 0.995, 1009, 208.2, 30.0, 0.7],
    [400, 0.8711, 1014, 230.1, 33.8, 0.69],
  ])('%d K', (t, density, heat, viscosity, conductivity, prandtl) => {
    const a = air(t - 273.15, 100_000);
    within(a.densityKgM3, density, 0.005);
    within(a.heatCapacityJkgK, heat, 0.005);
    within(a.viscosityPaS, viscosity * 1e-7, 0.01);
    within(a.conductivityWmK, conductivity * 1e-3, 0.012);
    within(a.prandtl, prandtl, 0.015);
  });
});
