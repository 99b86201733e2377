import { estimate } from '../case/estimate';
import { openCase } from '../case/openCase';
import type { CaseRecord } from '../record/recordSchema';
import { exampleRecord } from '../test-support/exampleRecord';
import { gapResistance, gapShape, rimAreaM2, type BaseGap } from './baseGap';

const gapOf = (open: BaseGap['open'], heightM = 1e-3): BaseGap => ({
  heightM,
  widthM: 0.36,
  depthM: 0.24,
  open,
  rimLoss: 1.5,
  turnLoss: 1,
});

/**
 * Flow from the open rims of one strip of the base to an opening in its middle for a potential difference of one: finite
 * differences of the plane potential, by successive over-relaxation. Of two strips the seam between them is closed.
 */
function potentialFlow(gap: BaseGap, alike: 1 | 2, o: Parameters<typeof gapShape>[0]): number {
  const cell = 5e-3;
  const nx = Math.round(gap.widthM / alike / cell);
  const ny = Math.round(gap.depthM / cell);
  const x0 = Math.round((nx - o.widthM / cell) / 2);
  const y0 = Math.round(o.toRearRimM / cell);
  const inside = (i: number, j: number) =>
    i >= x0 && i < x0 + o.widthM / cell && j >= y0 && j < y0 + o.lengthM / cell;
  const p = new Float64Array(nx * ny);
  /** Conductance to the room where a cell lies at an open rim: half a cell. */
  const toRoom = (i: number, j: number) =>
    2 *
    ((j === 0 ? gap.open.rear : 0) +
      (j === ny - 1 ? gap.open.front : 0) +
      (i === 0 ? gap.open.side : 0) +
      (i === nx - 1 && alike === 1 ? gap.open.side : 0));
  for (let j = 0; j < ny; j++) for (let i = 0; i < nx; i++) if (inside(i, j)) p[j * nx + i] = 1;
  // edges of cells and of parts coincide
  for (let sweep = 0; sweep < 4000; sweep++) {
    let moved = 0;
    for (let j = 0; j < ny; j++) {
      for (let i = 0; i < nx; i++) {
        if (inside(i, j)) continue;
        let sum = 0;
        let weight = toRoom(i, j);
        for (const [a, b] of [
          [i - 1, j],
          [i + 1, j],
          [i, j - 1],
          [i, j + 1],
        ] as const) {
          if (a < 0 || b < 0 || a >= nx || b >= ny) continue;
          sum += p[b * nx + a]!;
          weight++;
        }
        const next = 1.9 * (sum / weight) - 0.9 * p[j * nx + i]!;
        moved = Math.max(moved, Math.abs(next - p[j * nx + i]!));
        p[j * nx + i] = next;
      }
    }
    if (moved < 1e-7) break;
  }
  let flow = 0;
  for (let j = 0; j < ny; j++) for (let i = 0; i < nx; i++) flow += toRoom(i, j) * p[j * nx + i]!;
  return flow;
}

const all = { rear: 1, front: 1, side: 1 };

test.each([
  ['one opening, all rims open', 1, all, 0.08, 0.06, 0.04],
  ['two openings, all rims open', 2, all, 0.08, 0.06, 0.04],
  ['strips front and rear', 2, { rear: 0, front: 0, side: 1 }, 0.08, 0.06, 0.04],
  ['a strip along the rear', 1, { rear: 0, front: 1, side: 1 }, 0.12, 0.05, 0.03],
  ['close to the rear rim', 2, all, 0.09, 0.05, 0.015],
  ['far from it', 1, all, 0.06, 0.06, 0.1],
] as const)(
  'the shape of the ways is that of two-dimensional potential flow, to 25 %%: %s (finite differences)',
  (_, alike, open, widthM, lengthM, toRearRimM) => {
    const opening = { widthM, lengthM, toRearRimM };
    const shape = gapShape(opening, gapOf(open), alike);
    expect(Math.abs(shape / potentialFlow(gapOf(open), alike, opening) - 1)).toBeLessThan(0.25);
  },
);

test('a wide slot close to one open rim is a plane channel: 12 μ Q L/(w h³) (Hele-Shaw flow)', () => {
  const opening = { widthM: 0.3, lengthM: 0.02, toRearRimM: 0.01 };
  const gap = gapOf({ rear: 1, front: 0, side: 0 });
  const mu = 1.85e-5;
  const { linear } = gapResistance(opening, gap, 1, mu);
  const plane = (12 * mu * 0.01) / (0.3 * 1e-9);
  expect(linear / plane).toBeGreaterThan(0.9);
  expect(linear / plane).toBeLessThan(1);
});

test('friction goes with the cube of the gap, the turn with its square; closed rims still leak', () => {
  const opening = { widthM: 0.08, lengthM: 0.06, toRearRimM: 0.04 };
  const at = (h: number) => gapResistance(opening, gapOf(all, h), 2, 1.85e-5);
  expect(at(1e-3).linear / at(2e-3).linear).toBeCloseTo(8, 9);
  expect(at(1e-3).turnPerM4 / at(2e-3).turnPerM4).toBeCloseTo(4, 9);
  const closed = gapOf({ rear: 0, front: 0, side: 0 });
  expect(gapResistance(opening, closed, 2, 1.85e-5).linear).toBeLessThan(Infinity);
  expect(rimAreaM2(closed)).toBeGreaterThan(0);
});

describe('what feet and strips cost a machine with two fans (common practice, no source)', () => {
  const watts = (change: (r: CaseRecord) => void) => {
    const record = structuredClone(exampleRecord('two-fan-shared-pipes'));
    change(record);
    return estimate(openCase({ record }), { caps: ['full'], envelopes: false }).caps[0]!.together
      .watts;
  };
  const free = watts((r) => (r.shell!.footHeightMm = 12));
  const feet = (mm: number) => 1 - watts((r) => (r.shell!.footHeightMm = mm)) / free;

  test('3 mm feet take hardly any watts, 1 mm about a fifth, with strips front and rear a third', () => {
    expect(feet(3)).toBeLessThan(0.03);
    expect(feet(1)).toBeGreaterThan(0.14);
    expect(feet(1)).toBeLessThan(0.26);
    const strips = watts((r) => Object.assign(r.shell!, { footHeightMm: 1, feet: 'two-strips' }));
    expect(1 - strips / free).toBeGreaterThan(0.27);
    expect(1 - strips / free).toBeLessThan(0.4);
  });

  test('one strip costs less than two, soft ground more than a desk, a stand nothing', () => {
    const one = (feet: string) => watts((r) => Object.assign(r.shell!, { footHeightMm: 1, feet }));
    expect(one('rear-strip')).toBeLessThan(one('front-strip'));
    expect(one('two-strips')).toBeLessThan(one('rear-strip'));
    expect(one('front-strip')).toBeLessThan(one('feet'));
    const on = (surface: 'desk' | 'soft' | 'stand') =>
      watts((r) => {
        r.shell!.footHeightMm = 1.5;
        r.room = { ...r.room, surface };
      });
    expect(on('soft')).toBeLessThan(on('desk'));
    expect(on('stand') / free).toBeGreaterThan(0.98);
  });

  test('a vent further from the rim gets less air', () => {
    const rim = (mm: number) =>
      watts((r) => {
        r.shell!.footHeightMm = 1;
        r.shell!.feet = 'front-strip';
        for (const x of r.vents!) if (x.side === 'base') x.rimMm = mm;
      });
    expect(rim(15)).toBeGreaterThan(rim(60) * 1.02);
    // put on the plan instead: its middle 90 mm from the rear edge, of 60 mm half is before it
    const placed = watts((r) => {
      r.shell!.footHeightMm = 1;
      r.shell!.feet = 'front-strip';
      const on = r.vents!.filter((x) => x.side === 'base').map((x) => x.id);
      r.airway = { places: Object.fromEntries(on.map((id) => [id, { xMm: 80, yMm: 90 }])) };
    });
    expect(placed).toBeCloseTo(rim(60), 6);
  });
});
