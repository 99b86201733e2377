import { darcyFall, darcyPressures, type DarcyDie } from '../test-support/darcyReference';
import { chamberDemands, placesOfDemand, type ChamberSource } from './chamberFlow';
import { chamberFlowShape } from './chamberFlowShape';

type Placed = Omit<DarcyDie, 'watts'> & { role: 'cpu' | 'gpu'; share?: number };

const source = ({ x, y, w, l, role, share = 1 }: Placed): ChamberSource => ({
  centreXM: x * 1e-3,
  centreYM: y * 1e-3,
  widthM: w * 1e-3,
  lengthM: l * 1e-3,
  perCpu: role === 'cpu' ? share : 0,
  perGpu: role === 'gpu' ? share : 0,
});

function demandsOf(dies: readonly Placed[], w: number, l: number) {
  const sources = dies.map(source);
  const places = placesOfDemand(sources, w * 1e-3, l * 1e-3);
  return { places, demands: chamberDemands(sources, w * 1e-3, l * 1e-3, places) };
}

const CASES: [string, number, number, Placed[]][] = [
  [
    'a die at each end of a long one',
    201,
    61,
    [
      { x: 35.5, y: 30.5, w: 13, l: 15, role: 'cpu' },
      { x: 165.5, y: 30.5, w: 17, l: 21, role: 'gpu' },
    ],
  ],
  [
    'two beside each other at one end',
    181,
    81,
    [
      { x: 30.5, y: 24.5, w: 13, l: 13, role: 'cpu' },
      { x: 30.5, y: 56.5, w: 17, l: 17, role: 'gpu' },
    ],
  ],
  [
    'one in the middle, one in a corner',
    141,
    101,
    [
      { x: 70.5, y: 50.5, w: 11, l: 19, role: 'cpu' },
      { x: 14.5, y: 14.5, w: 15, l: 15, role: 'gpu' },
    ],
  ],
  [
    'three, two of them of one role',
    161,
    81,
    [
      { x: 30.5, y: 40.5, w: 11, l: 13, role: 'cpu', share: 0.7 },
      { x: 56.5, y: 40.5, w: 9, l: 9, role: 'cpu', share: 0.3 },
      { x: 120.5, y: 30.5, w: 17, l: 17, role: 'gpu', share: 0.9 },
    ],
  ],
];

test.each(CASES)(
  '%s: within 3 %% of two-dimensional Darcy flow',
  (_, w, l, dies) => {
    const { places, demands } = demandsOf(dies, w, l);
    expect(places.length).toBeGreaterThan(0);
    // what a row of a draw looks at is few
    expect(places.length).toBeLessThanOrEqual(10);
    for (const [cpuW, gpuW] of [
      [1, 0],
      [0, 1],
      [1, 1],
      [1, 0.3],
      [0.4, 1],
    ] as const) {
      const heated = dies.map((d) => ({
        ...d,
        watts: (d.role === 'cpu' ? cpuW : gpuW) * (d.share ?? 1),
      }));
      const pressures = darcyPressures(heated, w, l);
      const falls = heated.map((d) => darcyFall(pressures, d, w));
      const worst = Math.max(...falls);
      demands.forEach(({ shape, perCpu, perGpu }, i) => {
        const fall = shape * Math.max(...perCpu.map((c, k) => cpuW * c + gpuW * perGpu[k]!));
        // against the fall that binds: a die that stands where the liquid comes from asks for next to nothing
        expect(Math.abs(fall - falls[i]!) / worst).toBeLessThan(0.03);
      });
    }
  },
  60_000,
);

test('alone at work each die asks what it asked on a chamber of its own', () => {
  const [, w, l, dies] = CASES[0]!;
  const { demands } = demandsOf(dies, w, l);
  dies.forEach((d, i) => {
    const shape = chamberFlowShape(source(d), w * 1e-3, l * 1e-3);
    expect(demands[i]!.shape / shape).toBeCloseTo(1, 3);
    const own = d.role === 'cpu' ? demands[i]!.perCpu : demands[i]!.perGpu;
    expect(Math.max(...own)).toBeCloseTo(1, 9);
  });
});

test('what flows to a neighbour takes liquid away, and more so the nearer it stands', () => {
  const near = (apart: number) => {
    const { demands } = demandsOf(
      [
        { x: 40.5, y: 40.5, w: 13, l: 13, role: 'cpu' },
        { x: 40.5 + apart, y: 40.5, w: 13, l: 13, role: 'gpu' },
      ],
      181,
      81,
    );
    const { perCpu, perGpu } = demands[0]!;
    return Math.max(...perCpu.map((c, k) => c + perGpu[k]!));
  };
  expect(near(20)).toBeGreaterThan(1.5);
  expect(near(20)).toBeGreaterThan(near(40));
  expect(near(40)).toBeGreaterThan(near(100));
});

test('one die needs no places; one as large as its chamber asks nothing', () => {
  const one = source({ x: 40, y: 30, w: 15, l: 15, role: 'gpu', share: 0.8 });
  expect(placesOfDemand([one], 0.1, 0.06)).toEqual([]);
  expect(chamberDemands([one], 0.1, 0.06, [])).toEqual([
    { shape: chamberFlowShape(one, 0.1, 0.06), perCpu: [0], perGpu: [0.8] },
  ]);
  const whole = source({ x: 50, y: 30, w: 100, l: 60, role: 'cpu' });
  const places = placesOfDemand([whole, one], 0.1, 0.06);
  const [first] = chamberDemands([whole, one], 0.1, 0.06, places);
  expect(first!.shape).toBeCloseTo(0, 9);
  expect(first!.perCpu.every(Number.isFinite)).toBe(true);
});
