import type { LearnedAnswer } from '@zugluft/core/library/learnedAnswer';
import { checkLabDefault } from '@zugluft/core/record/labDefaults';
import { noteOf, taken, takeOver } from './takeOver';

const told = { inside: 5, halfBand: 0.22, offShare: 0.11 };
const factor = (key: LearnedAnswer['factors'][number]['key'], offered: boolean) => ({
  key,
  machines: 5,
  mean: -0.5,
  meanDeviation: 0.3,
  between: 0.4,
  deviation: 0.5,
  offered: offered ? { value: 0.65, low: 0.55, high: 0.75 } : null,
});
const learned = {
  madeAt: '2026-11-29T02:00:00.000Z',
  machines: Array.from({ length: 5 }, () => ({})),
  factors: [factor('finStacks.uaFactor', true), factor('fans.psi', false)],
  before: told,
  after: { inside: 5, halfBand: 0.156, offShare: 0.04 },
} as unknown as LearnedAnswer;

const typed = { value: 0.9, low: 0.8, high: 1, note: 'measured here', since: 'then' };
const former = { ...typed, note: 'learned from 6', learned: true as const };

test('what was learned stands with its evidence; it may be kept as it is', () => {
  const then = takeOver({}, learned, 'now');
  expect(then).toEqual({
    'finStacks.uaFactor': {
      value: 0.65,
      low: 0.55,
      high: 0.75,
      note: 'learned from 5 machines on 2026-11-29: each foretold from the others is typically 4 % off instead of 11 %, ±16 % instead of ±22 %',
      learned: true,
      since: 'now',
    },
  });
  expect(noteOf(learned).length).toBeLessThanOrEqual(500);
  expect(checkLabDefault('finStacks.uaFactor', then['finStacks.uaFactor']!)).toEqual([]);
});

test('what was typed stays, also where something was learned of it', () => {
  const own = { 'finStacks.uaFactor': typed, 'noise.referenceDbA': typed };
  expect(takeOver(own, learned, 'now')).toEqual(own);
});

test('what was learned before and is not offered any more goes', () => {
  const own = { 'fans.psi': former, 'fans.phi': typed };
  expect(Object.keys(takeOver(own, learned, 'now')).sort()).toEqual([
    'fans.phi',
    'finStacks.uaFactor',
  ]);
});

test('it is taken over once nothing would change', () => {
  expect(taken({}, learned)).toBe(false);
  const then = takeOver({ 'fans.phi': typed }, learned, 'now');
  expect(taken(then, learned)).toBe(true);
  // learned before and not offered any more
  expect(taken({ ...then, 'fans.psi': former }, learned)).toBe(false);
  const own = then['finStacks.uaFactor']!;
  for (const field of ['value', 'low', 'high'] as const) {
    expect(taken({ 'finStacks.uaFactor': { ...own, [field]: 0.6 } }, learned)).toBe(false);
  }
});
