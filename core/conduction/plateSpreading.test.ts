import { LuDecomposition, Matrix } from 'ml-matrix';
import { cosineMeans, plateSpreading, termsFor, type PlateSource } from './plateSpreading';
import { spreadingResistance } from '../test-support/discSpreading';

const K = 390;
const H = 4000;
const centred = (plate: number, side: number): PlateSource => ({
  centreXM: plate / 2,
  centreYM: plate / 2,
  widthM: side,
  lengthM: side,
});

test('one centred square die: within 6 % of Lee, Song, Au & Moran’s disc', () => {
  for (const [plate, side, t] of [
    [0.045, 0.012, 0.0015],
    [0.06, 0.02, 0.003],
  ] as const) {
    const [r] = plateSpreading([centred(plate, side)], plate, plate, t, K, H);
    const disc = t / (K * plate * plate) + spreadingResistance(side * side, plate * plate, t, K, H);
    expect(Math.abs(r! / disc - 1)).toBeLessThan(0.06);
  }
});

test('a die as large as its plate spreads nothing: t/(kA)', () => {
  const [r] = plateSpreading([centred(0.04, 0.04)], 0.04, 0.04, 0.002, K, H);
  expect(r! / (0.002 / (K * 0.04 * 0.04))).toBeCloseTo(1, 6);
});

test('one die warms the other as much as the other warms it, less when they lie apart, and least in the middle itself', () => {
  const near: PlateSource[] = [
    { centreXM: 0.03, centreYM: 0.02, widthM: 0.012, lengthM: 0.012 },
    { centreXM: 0.045, centreYM: 0.02, widthM: 0.015, lengthM: 0.015 },
  ];
  const a = plateSpreading(near, 0.1, 0.04, 0.002, K, H);
  expect(a[1]).toBeCloseTo(a[2]!, 12);
  const apart = [near[0]!, { ...near[1]!, centreXM: 0.09 }];
  const b = plateSpreading(apart, 0.1, 0.04, 0.002, K, H);
  expect(b[1]!).toBeLessThan(a[1]!);
  // a die at the rim has less plate around it
  expect(b[3]!).toBeGreaterThan(a[3]!);
});

test('an eccentric die agrees with a finite-difference solution of the plate (ml-matrix, reference package) to 4 %', () => {
  const nx = 16;
  const ny = 16;
  const nz = 3;
  const a = 0.048;
  const t = 0.003;
  const d = a / nx;
  const dz = t / nz;
  const n = nx * ny * nz;
  const at = (i: number, j: number, k: number) => (k * ny + j) * nx + i;
  const m = Matrix.zeros(n, n);
  const rhs = Matrix.zeros(n, 1);
  const join = (p: number, q: number, g: number) => {
    m.set(p, p, m.get(p, p) + g);
    m.set(q, q, m.get(q, q) + g);
    m.set(p, q, m.get(p, q) - g);
    m.set(q, p, m.get(q, p) - g);
  };
  const inside = (i: number, j: number) => i >= 2 && i < 6 && j >= 2 && j < 6;
  for (let k = 0; k < nz; k++) {
    for (let j = 0; j < ny; j++) {
      for (let i = 0; i < nx; i++) {
        const p = at(i, j, k);
        if (i + 1 < nx) join(p, at(i + 1, j, k), K * dz);
        if (j + 1 < ny) join(p, at(i, j + 1, k), K * dz);
        if (k + 1 < nz) join(p, at(i, j, k + 1), (K * d * d) / dz);
        if (k === nz - 1) {
          const g = 1 / (1 / (H * d * d) + dz / 2 / (K * d * d));
          m.set(p, p, m.get(p, p) + g);
        }
        if (k === 0 && inside(i, j)) rhs.set(p, 0, 1 / 16);
      }
    }
  }
  const x = new LuDecomposition(m).solve(rhs);
  let mean = 0;
  for (let j = 2; j < 6; j++) for (let i = 2; i < 6; i++) mean += x.get(at(i, j, 0), 0) / 16;
  // cell centres lie half a cell below the heated face
  mean += dz / 2 / (K * 16 * d * d);
  const source = { centreXM: 4 * d, centreYM: 4 * d, widthM: 4 * d, lengthM: 4 * d };
  const [series] = plateSpreading([source], a, a, t, K, H);
  expect(Math.abs((series! + 1 / (H * a * a)) / mean - 1)).toBeLessThan(0.04);
});

test('no jump when a die gets small: its resistance rises evenly, as that of a disc does', () => {
  let before = 0;
  for (let side = 0.017; side > 0.0008; side *= 0.96) {
    const sources = [centred(0.04, side), { ...centred(0.04, 0.017), centreXM: 0.06 }];
    const [own] = plateSpreading(sources, 0.09, 0.04, 0.0015, K, H);
    if (before > 0) {
      expect(own! / before).toBeGreaterThan(1);
      expect(own! / before).toBeLessThan(1.07);
    }
    before = own!;
  }
});

test.each([
  ['off the middle', 0.013, 0.02],
  ['in the middle, where every second wave has no mean', 0.03, 0.02],
  ['a hair beside it', 0.0301, 0.0199],
])('the series is the one of its source, summed term by term: %s', (_, centreXM, centreYM) => {
  const a = 0.06;
  const b = 0.04;
  const t = 0.002;
  const side = 0.012;
  const mean = (n: number, length: number, centre: number) => {
    const wave = (n * Math.PI) / length;
    const from = centre - side / 2;
    return n === 0 ? 1 : (Math.sin(wave * (from + side)) - Math.sin(wave * from)) / (wave * side);
  };
  let sum = t / (K * a * b);
  for (let m = 0; m < termsFor(a, side); m++) {
    for (let n = 0; n < termsFor(b, side); n++) {
      if (m + n === 0) continue;
      const beta = Math.PI * Math.hypot(m / a, n / b);
      const phi =
        (beta * Math.sinh(beta * t) + (H / K) * Math.cosh(beta * t)) /
        (beta * Math.cosh(beta * t) + (H / K) * Math.sinh(beta * t));
      const twice = (m > 0 ? 2 : 1) * (n > 0 ? 2 : 1);
      const means = mean(m, a, centreXM) * mean(n, b, centreYM);
      sum += (twice * means * means) / (a * b * K * beta * phi);
    }
  }
  const source = { centreXM, centreYM, widthM: side, lengthM: side };
  const [r] = plateSpreading([source], a, b, t, K, H);
  expect(r! / sum).toBeCloseTo(1, 9);
});

test('means of cosines by their forerunners are those of cosine and sine themselves, up to the last wave', () => {
  for (const [side, centre, size] of [
    [0.04, 0.02, 0.0001],
    [0.04, 0.0031, 0.006],
    [0.1, 0.05, 0.1],
    [0.1, 0.09, 0],
  ] as const) {
    const means = new Float64Array(401);
    const lambda = Math.PI / side;
    cosineMeans(means, 1, 400, lambda, centre, size);
    for (let m = 0; m < 400; m++) {
      const x = (m * lambda * size) / 2;
      const direct = Math.cos(m * lambda * centre) * (x > 0 ? Math.sin(x) / x : 1);
      expect(Math.abs(means[1 + m]! - direct)).toBeLessThan(1e-9);
    }
  }
});
