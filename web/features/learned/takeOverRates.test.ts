import type { WearAnswer } from '@zugluft/core/library/wearAnswer';
import { checkLabDefault, labDefaultSchema } from '@zugluft/core/record/labDefaults';
import type { LearnedAnswer } from '@zugluft/core/library/learnedAnswer';
import { takeOver } from './takeOver';
import { ratesToTake, takeOverRates } from './takeOverRates';

const LINT = 'upkeep.lintPerThousandHours';
const PASTE = 'dies.interface.ageingPerYear.paste';
const rate = (key: WearAnswer['rates'][number]['key'], value: number | null) => ({
  key,
  machines: 3,
  mean: -0.5,
  meanDeviation: 0.31,
  between: 0.42,
  deviation: 0.5,
  offered: value === null ? null : { value, low: value / 2, high: value * 2 },
});
const wear = (lint: number | null, paste: number | null): WearAnswer => ({
  renewals: [],
  rates: [rate(PASTE, paste), rate(LINT, lint)],
});
const typed = { value: 0.2, low: 0.1, high: 0.3, note: 'by hand', since: 'then' };

test('rates stand with their evidence, in the shape that is kept', () => {
  const then = takeOverRates({}, wear(0.08, null), '2026-11-30T10:00:00.000Z');
  expect(then).toEqual({
    [LINT]: {
      value: 0.08,
      low: 0.04,
      high: 0.16,
      note: 'learned from runs before and after 3 renewals on 2026-11-30: the middle is known to 0.31 of the built-in spread, machines differ by 0.42 of it',
      learned: true,
      from: 'renewals',
      since: '2026-11-30T10:00:00.000Z',
    },
  });
  const { since: _, ...kept } = then[LINT]!;
  expect(labDefaultSchema.parse(kept)).toEqual(kept);
  expect(checkLabDefault(LINT, kept)).toEqual([]);
});

test('what was typed stays; what is not told any more goes; other learned factors stay', () => {
  const before = takeOverRates({ [PASTE]: typed }, wear(0.08, 0.3), 'a');
  expect(before[PASTE]).toEqual(typed);
  const factor = { ...typed, note: 'learned from 6', learned: true as const };
  const then = takeOverRates({ ...before, 'fans.psi': factor }, wear(null, 0.3), 'b');
  expect(Object.keys(then).sort()).toEqual([PASTE, 'fans.psi'].sort());
  expect(ratesToTake(then, wear(null, 0.3))).toEqual({ count: 0, taken: true });
});

test('rates to take are counted, and known once they are taken', () => {
  expect(ratesToTake({}, wear(0.08, 0.3))).toEqual({ count: 2, taken: false });
  const then = takeOverRates({}, wear(0.08, 0.3), 'a');
  expect(ratesToTake(then, wear(0.08, 0.3))).toEqual({ count: 2, taken: true });
  expect(ratesToTake(then, wear(0.09, 0.3))).toEqual({ count: 2, taken: false });
});

test('factors taken over from machines leave rates from renewals alone', () => {
  const rates = takeOverRates({}, wear(0.08, 0.3), 'a');
  const learned = {
    madeAt: '2026-11-29T02:00:00.000Z',
    machines: [],
    factors: [{ ...rate(PASTE, 0.5), machines: 5 }],
    before: { inside: 5, halfBand: 0.2, offShare: 0.1 },
    after: { inside: 5, halfBand: 0.1, offShare: 0.1 },
  } as unknown as LearnedAnswer;
  expect(takeOver(rates, learned, 'b')).toEqual(rates);
});
