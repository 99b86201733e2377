import { linearRegression } from 'simple-statistics';
import { Matrix, solve } from 'ml-matrix';
import { randomStream } from '../uncertainty/random';
import { countedOpinion, LEAST_MACHINES, type CountedMachine } from './countedOpinion';

/** Machines of a known law with a known scatter. */
function machines(count: number, scatter: number, seed = 1): CountedMachine[] {
  const next = randomStream(seed);
  const normal = () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
  return Array.from({ length: count }, () => {
    const finAreaCm2 = 400 + 2600 * next();
    const fans = 1 + Math.floor(3 * next());
    const pipes = 1 + Math.floor(5 * next());
    const law = 2 * finAreaCm2 ** 0.4 * (1 + fans) ** 0.3 * (1 + pipes) ** 0.2;
    return { finAreaCm2, fans, pipes, watts: law * Math.exp(scatter * normal()) };
  });
}

const OWN = { finAreaCm2: 1500, fans: 2, pipes: 3 };

test('a law without scatter is found again', () => {
  const told = countedOpinion(OWN, machines(20, 0));
  if (told.refused) throw new Error('refused');
  expect(told.band.p50).toBeCloseTo(2 * 1500 ** 0.4 * 3 ** 0.3 * 4 ** 0.2, 6);
  expect(told.leaveOneOutShare).toBeLessThan(1e-9);
});

test('its error is that of fitting anew without each machine, one after the other', () => {
  const all = machines(18, 0.15, 7);
  // brute force: normal equations solved by another routine
  const row = (m: typeof OWN) => [
    1,
    Math.log(m.finAreaCm2),
    Math.log(1 + m.fans),
    Math.log(1 + m.pipes),
  ];
  let sum = 0;
  all.forEach((left, i) => {
    const rest = all.filter((_, k) => k !== i);
    const x = new Matrix(rest.map(row));
    const y = Matrix.columnVector(rest.map((m) => Math.log(m.watts)));
    const b = solve(x.transpose().mmul(x), x.transpose().mmul(y)).to1DArray();
    const foretold = row(left).reduce((s, v, k) => s + v * b[k]!, 0);
    sum += (Math.log(left.watts) - foretold) ** 2;
  });
  const told = countedOpinion(OWN, all);
  if (told.refused) throw new Error('refused');
  expect(told.leaveOneOutShare).toBeCloseTo(Math.sqrt(sum / all.length), 9);
});

test('with one count that differs it is the line of a statistics package', () => {
  const all = machines(14, 0.1, 3).map((m) => ({ ...m, fans: 2, pipes: 3 }));
  // reference: simple-statistics
  const { m, b } = linearRegression(all.map((x) => [Math.log(x.finAreaCm2), Math.log(x.watts)]));
  const told = countedOpinion(OWN, all);
  if (told.refused) throw new Error('refused');
  expect(Math.log(told.band.p50)).toBeCloseTo(b + m * Math.log(1500), 8);
});

test('nine of ten machines that it never saw lie in its band', () => {
  const seen = machines(40, 0.2, 11);
  const unseen = machines(400, 0.2, 99);
  const inside = unseen.filter((m) => {
    const told = countedOpinion(m, seen);
    return !told.refused && m.watts >= told.band.p05 && m.watts <= told.band.p95;
  }).length;
  expect(inside / unseen.length).toBeGreaterThan(0.85);
  expect(inside / unseen.length).toBeLessThan(0.96);
});

test('a machine unlike those it learned from has a wider band', () => {
  const all = machines(24, 0.2, 5);
  const width = (own: typeof OWN) => {
    const told = countedOpinion(own, all);
    if (told.refused) throw new Error('refused');
    return told.band.p95 / told.band.p05;
  };
  expect(width({ finAreaCm2: 40_000, fans: 8, pipes: 1 })).toBeGreaterThan(1.3 * width(OWN));
});

test('below enough machines it refuses and says how many there are', () => {
  const few = machines(LEAST_MACHINES - 1, 0.1);
  expect(countedOpinion(OWN, few)).toEqual({ refused: true, machines: 11, needs: 12 });
  const useless = { ...few[0]!, watts: 0 };
  expect(countedOpinion(OWN, [...few, useless]).refused).toBe(true);
  expect(countedOpinion({ ...OWN, finAreaCm2: 0 }, machines(20, 0.1)).refused).toBe(true);
});
