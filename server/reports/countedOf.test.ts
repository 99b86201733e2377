import type { MachineSummary } from '@zugluft/core/library/answers';
import { countedOf } from './countedOf';

const RULE = { wattsPerFan: 20, wattsPerPipe: 0, wattsPer100Cm2: 0 };
const row = (id: string, watts: number, over: object = {}): MachineSummary =>
  ({
    id,
    fans: 2,
    pipes: 1,
    finAreaCm2: 500,
    putAsideAt: null,
    togetherAt36W: watts,
    ...over,
  }) as unknown as MachineSummary;

test('it is learned from the machines that stand on runs, itself and those put aside left out', () => {
  const rows = [
    row('own', 1),
    row('a', 80),
    row('never run', 7),
    row('aside', 9, { putAsideAt: '2026-01-01T00:00:00.000Z' }),
  ];
  const told = countedOf(rows, 'own', 36, RULE, new Set(['own', 'a', 'aside']))!;
  expect(told.counted).toEqual({ refused: true, machines: 1, needs: 12 });
  expect(told.points!.watts).toBe(40);
  expect(told.points!.machines).toBe(1);
  // 40 by the rule, 80 by its runs
  expect(told.points!.offShare).toBeCloseTo(Math.log(2), 12);
});

test('a machine that is not listed has none', () => {
  expect(countedOf([row('a', 80)], 'own', 36, RULE, new Set(['a']))).toBeNull();
});
