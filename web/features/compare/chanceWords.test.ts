import { chanceWords, neighbours } from './chanceWords';

test.each([
  [0.9991, 'A sustains more than B (over 99 %).'],
  [0.96, 'A sustains more than B (96 %).'],
  [0.9499, 'A likely sustains more than B (94 %).'],
  [0.75, 'A likely sustains more than B (75 %).'],
  [0.7499, 'A and B cannot be told apart (74 % to 26 %).'],
  [0.5, 'A and B cannot be told apart (50 % to 50 %).'],
])('with a chance of %f: %s', (chance, words) => {
  expect(chanceWords({ a: 'A', b: 'B', cap: 36, chance })).toBe(words);
});

test('each machine is held against the next one of the ranking, whichever way its chance was told', () => {
  const machine = (name: string, p50: number) => ({
    name,
    at: [{ cap: 36, p05: p50 - 5, p50, p95: p50 + 5 }],
    wattsPerDb: null,
    wattsPerKg: null,
    wattsPerMm: null,
    finAreaCm2: 1,
    sweptCm2: 1,
    pipeSectionMm2: 1,
  });
  const machines = [machine('low', 40), machine('top', 90), machine('mid', 60)];
  const better = [
    { a: 'low', b: 'top', cap: 36, chance: 0 },
    { a: 'low', b: 'mid', cap: 36, chance: 0.1 },
    { a: 'top', b: 'mid', cap: 36, chance: 0.45 },
    { a: 'top', b: 'mid', cap: 40, chance: 1 },
  ];
  // the higher median may still be the less likely winner
  expect(neighbours(machines, better, 36)).toEqual([
    { a: 'mid', b: 'top', cap: 36, chance: 0.55 },
    { a: 'mid', b: 'low', cap: 36, chance: 0.9 },
  ]);
  expect(neighbours(machines.slice(0, 1), better, 36)).toEqual([]);
});
