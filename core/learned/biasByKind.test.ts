import { biasByKind, coolingKind, type HeldAgainst } from './biasByKind';

const run = (over: Partial<HeldAgainst>): HeldAgainst => ({
  machineId: 'a',
  kind: 'vapor chamber',
  measuredW: 100,
  p05: 80,
  p50: 100,
  p95: 120,
  held: false,
  ...over,
});

test('each machine counts once, by the mean of its runs', () => {
  const [told, ...none] = biasByKind([
    run({ machineId: 'a', measuredW: 110 }),
    run({ machineId: 'a', measuredW: 110 }),
    run({ machineId: 'a', measuredW: 110 }),
    run({ machineId: 'b', measuredW: 70 }),
  ]);
  expect(none).toEqual([]);
  expect(told).toMatchObject({ machines: 2, runs: 4, inside: 3 });
  const [x, y] = [Math.log(1.1), Math.log(0.7)];
  expect(told!.biasShare).toBeCloseTo((x + y) / 2, 12);
  // of two values the deviation is their distance over √2
  expect(told!.spreadShare).toBeCloseTo(Math.abs(x - y) / Math.SQRT2, 12);
  expect(told!.biasDeviation).toBeCloseTo(Math.abs(x - y) / 2, 12);
});

test('a run that the setting held says only that the cooling carries as much', () => {
  const [told] = biasByKind([
    run({ machineId: 'a', measuredW: 50, held: true }),
    run({ machineId: 'b', measuredW: 130, held: true }),
    run({ machineId: 'c' }),
  ]);
  expect(told).toMatchObject({
    machines: 1,
    runs: 3,
    inside: 2,
    spreadShare: null,
    biasDeviation: null,
  });
  expect(told!.biasShare).toBeCloseTo(0, 12);
  expect(biasByKind([run({ held: true })])).toEqual([]);
});

test('kinds with most machines come first; nothing of nothing', () => {
  const told = biasByKind([
    run({ kind: 'b' }),
    run({ kind: 'c', machineId: 'x' }),
    run({ kind: 'c', machineId: 'y' }),
    run({ kind: 'a' }),
  ]);
  expect(told.map((k) => k.kind)).toEqual(['c', 'a', 'b']);
  expect(biasByKind([])).toEqual([]);
  expect(biasByKind([run({ p50: 0 })])).toEqual([]);
});

test.each([
  ['vapor chamber', true, 0, 3],
  ['without fans', false, 0, 2],
  ['plates alone', false, 1, 0],
  ['heat pipes, one fan', false, 1, 2],
  ['heat pipes, several fans', false, 2, 1],
])('%s', (kind, chamber, fans, pipes) => {
  expect(coolingKind({ chamber, fans, pipes })).toBe(kind);
});
