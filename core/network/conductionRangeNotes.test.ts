import { openCase } from '../case/openCase';
import { estimate } from '../case/estimate';
import { CONVECTION_RAYLEIGH, horizontalRayleigh } from '../conduction/shell';
import { water } from '../fluids/water';
import { chamberCapillaryW, chamberVaporKPerW, chamberVaporPaPerW } from '../pipes/chamberLimit';
import type { CaseRecord } from '../record/recordSchema';
import { exampleRecord } from '../test-support/exampleRecord';
import { sharedPlate } from '../test-support/sharedPlate';

const example = () => structuredClone(exampleRecord('two-fan-shared-pipes'));
const notesOf = (record: CaseRecord, overrides?: ReadonlyMap<string, number>) =>
  estimate(openCase({ record, overrides }), { caps: ['off', 36], envelopes: false }).notes.map(
    (n) => `${n.path}: ${n.message}`,
  );

test('within its range nothing is said', () => {
  expect(notesOf(example())).toEqual([]);
});

test('a die over the rim of a shared plate is said', () => {
  const record = sharedPlate((r) => {
    r.plates![0]!.places = [
      { die: 'cpu', xMm: 4, yMm: 20 },
      { die: 'gpu', xMm: 60, yMm: 20 },
    ];
  });
  expect(notesOf(record)).toEqual([
    'dies.cpu: it reaches over the rim of its plate and is taken as moved inside',
  ]);
});

test('a plate under a large part of the shell is said', () => {
  const record = example();
  Object.assign(record.shell!, { widthMm: 150, depthMm: 120 });
  Object.assign(record.plates![0]!, { widthMm: 75, lengthMm: 75 });
  expect(notesOf(record)).toContain(
    'plates.plate-cpu: it lies under so much of the shell that the skin above it is no spot any more',
  );
});

test('a small shell in thin air loses by convection outside the correlation', () => {
  const record = example();
  Object.assign(record.shell!, { widthMm: 100, depthMm: 100 });
  record.room = { ...record.room, altitudeM: 6000 };
  // 25 mm, half an atmosphere: Ra of a few thousand per ten kelvin
  expect(horizontalRayleigh(0.1, 0.1, 10, 23, 47200)).toBeLessThan(CONVECTION_RAYLEIGH.low);
  expect(notesOf(record).join()).toContain('shell: natural convection');
});

// Incropera et al., example 9.3-like figures by hand: L = 0.1 m, 50 K, film 325 K: ν 18.4e-6, Pr 0.704 → Ra 3.14e6
test('Rayleigh number of a surface', () => {
  expect(horizontalRayleigh(0.4, 0.4, 50, 26.85, 101325) / 3.14e6).toBeCloseTo(1, 1);
});

describe('vapor of a chamber', () => {
  const w = water(60);
  const wick = { permeabilityM2: 1e-11, poreM: 20e-6 };
  const SHAPE = 0.5 * Math.log(50) + 0.5;

  test('loses pressure with the cube of its height', () => {
    const thick = chamberVaporPaPerW(SHAPE, 1e-3, w);
    expect(chamberVaporPaPerW(SHAPE, 0.5e-3, w)).toBeCloseTo(8 * thick, 9);
    // 6 μ / (π ρ h g³) · shape 2.456 with μ 10.9e-6, ρ 0.1302, h 2.358e6 (Incropera A.6 near 333 K)
    expect(thick / (((6 * 10.9e-6) / (Math.PI * 0.1302 * 2.358e6 * 1e-9)) * 2.456)).toBeCloseTo(
      1,
      1,
    );
    expect(chamberVaporKPerW(thick, 60, w)).toBeCloseTo((thick * 333.15) / (0.1302 * 2.358e6), 5);
  });

  test('takes its share of what the wick can pump', () => {
    const wide = chamberCapillaryW(SHAPE, 0.4e-3, 1, wick, w);
    const flat = chamberCapillaryW(SHAPE, 0.4e-3, 0.05e-3, wick, w);
    // Darcy alone: 2σ/r · 2π ρ h K t / (μ · shape)
    const darcy =
      (((2 * w.surfaceTensionNm) / 20e-6) *
        (2 * Math.PI * w.liquidDensityKgM3 * w.latentHeatJkg * 1e-11 * 0.4e-3)) /
      (w.liquidViscosityPaS * SHAPE);
    expect(wide).toBeCloseTo(darcy, 6);
    expect(1 / flat - 1 / wide).toBeCloseTo(
      chamberVaporPaPerW(SHAPE, 0.05e-3, w) / ((2 * w.surfaceTensionNm) / 20e-6),
      9,
    );
  });

  test('a very thin space is said', () => {
    const record = example();
    record.heatPipes = [];
    record.plates = [
      {
        id: 'chamber',
        kind: 'vapor-chamber',
        dies: ['cpu', 'gpu'],
        widthMm: 280,
        lengthMm: 60,
        thicknessMm: 0.45,
      },
    ];
    for (const s of record.finStacks!) s.plates = ['chamber'];
    expect(notesOf(record).join()).toContain('plates.chamber: its vapor space is so thin');
    record.plates[0]!.thicknessMm = 2;
    expect(notesOf(record).join()).not.toContain('vapor space');
  });
});
