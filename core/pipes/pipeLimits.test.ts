import { emptyWater, water } from '../fluids/water';
import { waterFromTable } from '../fluids/waterTable';
import { boilingFlux, entrainmentW, sonicW, viscousCapacityWm } from './pipeLimits';
import { pipeSection } from './pipeSection';

const round = {
  ...pipeSection(0.006, 0.006, undefined, 'sintered', 1, 1),
  wick: { poreM: 50e-6, conductivityWmK: 40 },
  nucleationM: 3e-6,
  limitFactor: 1,
};

test('sonic limit at 60 °C: A ρ h √(γRT/2(γ+1)) worked by hand (Chi 1976, from memory)', () => {
  // ρ_v = 0.1304 kg/m³, h_fg = 2.358e6 J/kg, √(1.33·461.5·333.15/4.66) = 209.5 m/s
  const expected = round.vaporAreaM2 * 0.1304 * 2.358e6 * 209.5;
  expect(Math.abs(sonicW(round, water(60), 60) / expected - 1)).toBeLessThan(0.005);
});

test('entrainment at 60 °C: A h √(σρ/2r) worked by hand (Chi 1976, from memory)', () => {
  // σ = 66.2e-3 N/m → √(66.2e-3·0.1304/1e-4) = 9.29
  const expected = round.vaporAreaM2 * 2.358e6 * 9.29;
  expect(Math.abs(entrainmentW(round, water(60)) / expected - 1)).toBeLessThan(0.01);
});

test('a round passage has Busse’s viscous limit D² A ρ p h / (64 μ)', () => {
  const w = water(20);
  const d = round.vaporGapM;
  const expected =
    (d * d * round.vaporAreaM2 * w.vaporDensityKgM3 * w.pressurePa * w.latentHeatJkg) /
    (64 * w.vaporViscosityPaS);
  expect(viscousCapacityWm(round, w) / expected).toBeCloseTo(1, 6);
});

test('a cold pipe is held by its vapor, a hot one by boiling: each limit moves as it should', () => {
  for (let c = 15; c < 140; c += 5) {
    expect(sonicW(round, water(c + 5), c + 5)).toBeGreaterThan(sonicW(round, water(c), c));
    expect(viscousCapacityWm(round, water(c + 5))).toBeGreaterThan(
      viscousCapacityWm(round, water(c)),
    );
    expect(boilingFlux(round, water(c + 5), c + 5)).toBeLessThan(boilingFlux(round, water(c), c));
  }
  // sintered copper at 80 °C boils between 30 and 200 W/cm² (common practice, no source)
  expect(boilingFlux(round, water(80), 80) / 1e4).toBeGreaterThan(30);
  expect(boilingFlux(round, water(80), 80) / 1e4).toBeLessThan(250);
});

test('the table of water keeps within 1e-5 of the equations', () => {
  const out = emptyWater();
  for (let c = 10.013; c < 150; c += 1.377) {
    const exact = water(c);
    waterFromTable(c, out);
    for (const key of Object.keys(out) as (keyof typeof out)[]) {
      expect(Math.abs(out[key] / exact[key] - 1)).toBeLessThan(1e-5);
    }
  }
});
