import { DEFAULTS } from '../record/defaults';
import { water } from '../fluids/water';
import { axialIntegral, axialPlaces, axialProfileInto, type AxialHeat } from './axialProfile';
import { capillaryCapacityWm } from './capillaryLimit';
import { layAlong } from './pipeLayout';
import { pipeSection, type WickKind } from './pipeSection';

const range = (contacts: AxialHeat[]) => {
  const values = axialPlaces(contacts).map((x) => axialIntegral(contacts, x));
  return Math.max(...values) - Math.min(...values);
};

/** What one pipe carries at 60 °C from 30 mm at one end to 60 mm at the other, by the defaults of its kind of wick. */
const carry = (
  diameterMm: number,
  pressedMm: number,
  lengthMm: number,
  tiltDeg = 0,
  kind: WickKind = 'sintered',
) => {
  const section = pipeSection(diameterMm / 1000, pressedMm / 1000, undefined, kind, 1, 1);
  const reach = capillaryCapacityWm(
    {
      ...section,
      wick: {
        permeabilityM2: DEFAULTS[`heatPipes.permeability.${kind}`].value,
        poreM: DEFAULTS[`heatPipes.poreUm.${kind}`].value * 1e-6,
        conductivityWmK: DEFAULTS[`heatPipes.wickWmK.${kind}`].value,
      },
      tiltRad: (tiltDeg * Math.PI) / 180,
      lengthM: lengthMm / 1000,
      limitFactor: 1,
      bendFactor: 1,
      nucleationM: 3e-6,
    },
    water(60),
  );
  const perWatt = range([
    { fromM: 0, toM: 0.03, watts: 1 },
    { fromM: (lengthMm - 60) / 1000, toM: lengthMm / 1000, watts: -1 },
  ]);
  return reach / perWatt;
};

describe('sanity band of sintered copper–water pipes, horizontal, 150–200 mm, one heated and one cooled end (common practice, no source)', () => {
  const factor = DEFAULTS['heatPipes.limitFactor.sintered'];
  test.each([
    [6, 6, 35, 60],
    [8, 8, 60, 90],
    [8, 3, 45, 80],
    [6, 2, 15, 30],
  ])('%d mm pressed to %d mm: 5–95 %% of the draws are %d to %d W', (d, t, low, high) => {
    const middle = carry(d, t, 175);
    expect(Math.abs(Math.log((middle * factor.low) / low))).toBeLessThan(0.15);
    expect(Math.abs(Math.log((middle * factor.high) / high))).toBeLessThan(0.15);
  });
});

test('kinds of wick differ as they do in practice: a round 6 mm pipe with grooves or mesh (common practice, no source)', () => {
  // grooves carry about what a sintered wick does while they lie flat, and nothing against gravity
  expect(carry(6, 6, 175, 0, 'grooved')).toBeGreaterThan(35);
  expect(carry(6, 6, 175, 0, 'grooved')).toBeLessThan(70);
  expect(carry(6, 6, 175, 30, 'grooved')).toBe(0);
  expect(carry(6, 6, 175, 30)).toBeGreaterThan(15);
  // a few layers of mesh carry about half
  expect(carry(6, 6, 175, 0, 'mesh')).toBeGreaterThan(15);
  expect(carry(6, 6, 175, 0, 'mesh')).toBeLessThan(35);
});

test('fins at both ends and heat in the middle: a quarter of the range of one finned end', () => {
  const L = 0.3;
  const point = 1e-6;
  const one = range([
    { fromM: 0, toM: point, watts: 1 },
    { fromM: L - point, toM: L, watts: -1 },
  ]);
  const both = range([
    { fromM: 0, toM: point, watts: -0.5 },
    { fromM: L / 2 - point, toM: L / 2 + point, watts: 1 },
    { fromM: L - point, toM: L, watts: -0.5 },
  ]);
  expect(both / one).toBeCloseTo(0.25, 3);
});

test('the textbook effective length: half of both ends and all between (Reay, Kew & McGlen)', () => {
  const r = range([
    { fromM: 0, toM: 0.04, watts: 2 },
    { fromM: 0.1, toM: 0.16, watts: -2 },
  ]);
  expect(r).toBeCloseTo(2 * (0.02 + 0.06 + 0.03), 12);
});

test('tilt against the flow costs, and a steep long pipe stops pumping', () => {
  expect(carry(8, 3, 200, 10)).toBeLessThan(carry(8, 3, 200, 0));
  expect(carry(8, 3, 900, 90)).toBe(0);
});

test('pressing keeps the perimeter: 8 mm to 3 mm is 10.9 mm wide', () => {
  const s = pipeSection(0.008, 0.003, undefined, 'sintered', 1, 1);
  expect(s.outerWidthM * 1000).toBeCloseTo(3 + (Math.PI * 5) / 2, 9);
  expect(pipeSection(0.008, 0.008, undefined, 'sintered', 1, 1).outerWidthM).toBeCloseTo(0.008, 12);
});

test('a vapor gap stays open in every pipe, however thick the rules make wall and wick', () => {
  for (let t = 0.3; t <= 8; t += 0.1) {
    const s = pipeSection(0.008, t / 1000, undefined, 'sintered', 1.6, 1.5);
    expect(s.vaporGapM).toBeGreaterThan(0);
    expect(s.wickThicknessM).toBeGreaterThan(0);
  }
});

describe('layout along a pipe', () => {
  test('recorded positions are kept, the rest shares the room evenly', () => {
    const laid = layAlong(
      [
        { fromM: 0, toM: 0.07, naturalM: 0.07 },
        { naturalM: 0.02 },
        { naturalM: 0.03 },
        { fromM: 0.23, toM: 0.3, naturalM: 0.07 },
      ],
      0.3,
    );
    expect(laid[0]).toEqual({ fromM: 0, toM: 0.07 });
    expect(laid[3]).toEqual({ fromM: 0.23, toM: 0.3 });
    const gaps = [laid[1]!.fromM - 0.07, laid[2]!.fromM - laid[1]!.toM, 0.23 - laid[2]!.toM];
    for (const g of gaps) expect(g).toBeCloseTo(0.11 / 3, 12);
  });

  test('without positions the outer parts lie at the ends', () => {
    const laid = layAlong([{ naturalM: 0.05 }, { naturalM: 0.02 }, { naturalM: 0.05 }], 0.3);
    expect(laid[0]!.fromM).toBe(0);
    expect(laid[2]!.toM).toBeCloseTo(0.3, 12);
  });

  test('too many parts for the length shrink alike and stay in order', () => {
    const laid = layAlong([{ naturalM: 0.2 }, { naturalM: 0.2 }], 0.1);
    expect(laid).toEqual([
      { fromM: 0, toM: 0.05 },
      { fromM: 0.05, toM: 0.1 },
    ]);
  });

  test('mirrored, it is the mirror image', () => {
    const parts = [
      { naturalM: 0.06 },
      { naturalM: 0.02 },
      { naturalM: 0.03 },
      { fromM: 0.2, toM: 0.25, naturalM: 0.06 },
    ];
    const mirror = [...parts]
      .reverse()
      .map((p) =>
        'fromM' in p ? { naturalM: p.naturalM, fromM: 0.3 - p.toM!, toM: 0.3 - p.fromM! } : p,
      );
    const a = layAlong(parts, 0.3);
    const b = layAlong(mirror, 0.3).reverse();
    a.forEach((x, i) => {
      expect(x.fromM).toBeCloseTo(0.3 - b[i]!.toM, 9);
      expect(x.toM).toBeCloseTo(0.3 - b[i]!.fromM, 9);
    });
  });
});

test('a pipe’s profile holds integral and flow of each contact at its places, as summed step by step along it', () => {
  const contacts = [
    { fromM: 0, toM: 0.03 },
    { fromM: 0.05, toM: 0.09 },
    { fromM: 0.08, toM: 0.18 },
  ];
  const places = axialPlaces(contacts);
  const room = () => new Float64Array(places.length * contacts.length);
  const profile = { perHeat: 0, spanM: 0, integral: room(), flow: room() };
  axialProfileInto(contacts, 2, profile);
  expect(profile.perHeat).toBe(0.5);
  expect(profile.spanM).toBeCloseTo(0.18, 12);
  const STEP = 1e-5;
  contacts.forEach(({ fromM, toM }, j) => {
    let flow = 0;
    let integral = 0;
    const at = new Map<number, { flow: number; integral: number }>();
    for (let n = 0; n <= 18_000; n++) {
      at.set(n, { flow, integral });
      const middle = (n + 0.5) * STEP;
      const before = flow;
      if (middle > fromM && middle < toM) flow += (0.5 * STEP) / (toM - fromM);
      integral += 0.5 * (before + flow) * STEP;
    }
    places.forEach((x, i) => {
      const summed = at.get(Math.round(x / STEP))!;
      expect(profile.flow[i * contacts.length + j]).toBeCloseTo(summed.flow, 6);
      expect(profile.integral[i * contacts.length + j]).toBeCloseTo(summed.integral, 8);
    });
  });
});
