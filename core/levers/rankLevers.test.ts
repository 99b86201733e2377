import fc from 'fast-check';
import type { Lever } from './lever';
import type { LeverGain } from './leverGains';
import { minutesOf, RANKINGS, rankLevers, type WeighedLever } from './rankLevers';

const weighed = (
  id: string,
  watts: number | null,
  minutes: number | null,
  about: Partial<Lever> = {},
): WeighedLever => ({
  lever: {
    id,
    name: id,
    change: [],
    possible: true,
    whyNot: null,
    reversible: true,
    cautions: [],
    goal: 'clean-fans',
    moves: 'cooling',
    ...about,
  },
  effort: { steps: null, screws: null, minutes, cost: null },
  gain:
    watts === null
      ? null
      : ({
          cap: 36,
          wattsGained: { central: watts, p05: watts - 1, p50: watts, p95: watts + 1 },
          dbSaved: { p05: 0, p50: watts / 3, p95: 1 },
          kelvinSaved: { p05: 0, p50: watts / 2, p95: 1 },
          chanceNoticeable: 1,
          tooSmallToFeel: false,
        } satisfies LeverGain),
});
const ids = (all: readonly WeighedLever[]) => all.map((x) => x.lever.id);

test('by watts per minute, by watts, by least work', () => {
  const all = [
    weighed('slow', 6, 60),
    weighed('quick', 2, 5),
    weighed('none', 0, 1),
    weighed('free', 1, null, { goal: null }),
  ];
  expect(ids(rankLevers(all, 'per-minute'))).toEqual(['free', 'quick', 'slow', 'none']);
  expect(ids(rankLevers(all, 'gain'))).toEqual(['slow', 'quick', 'free', 'none']);
  // of as little work the one that brings more
  expect(ids(rankLevers(all, 'effort'))).toEqual(['free', 'none', 'quick', 'slow']);
});

test('a loss does not rise for taking long, and what is not computed yet stands behind what is', () => {
  const all = [weighed('later', null, 1), weighed('bad-long', -2, 60), weighed('bad-short', -2, 5)];
  expect(ids(rankLevers(all, 'per-minute'))).toEqual(['bad-short', 'bad-long', 'later']);
});

test('what cannot be pulled comes last, whatever it would bring', () => {
  const all = [weighed('soldered', 50, 1, { possible: false }), weighed('small', 0.1, 100)];
  for (const by of RANKINGS) expect(ids(rankLevers(all, by))).toEqual(['small', 'soldered']);
});

test('an opening that no log tells takes what is usual, and it is said; nothing to open takes a minute', () => {
  const usual = minutesOf(weighed('x', 1, null));
  expect(usual.usual).toBe(true);
  expect(usual.minutes).toBeGreaterThan(10);
  expect(minutesOf(weighed('x', 1, 17))).toEqual({ minutes: 17, usual: false });
  expect(minutesOf(weighed('x', 1, null, { goal: null }))).toEqual({ minutes: 1, usual: false });
});

test('ranking only puts in order, and what ties keeps its place', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.tuple(
          fc.option(fc.integer({ min: -5, max: 5 }), { nil: null }),
          fc.option(fc.integer({ min: 0, max: 3 }), { nil: null }),
        ),
        { maxLength: 12 },
      ),
      fc.constantFrom(...RANKINGS),
      (rows, by) => {
        const all = rows.map(([w, m], i) => weighed(String(i), w, m));
        const ranked = rankLevers(all, by);
        expect([...ids(ranked)].sort()).toEqual([...ids(all)].sort());
        for (let k = 1; k < ranked.length; k++) {
          const [a, b] = [ranked[k - 1]!, ranked[k]!];
          const same =
            a.gain?.wattsGained.p50 === b.gain?.wattsGained.p50 &&
            minutesOf(a).minutes === minutesOf(b).minutes;
          if (same) expect(Number(a.lever.id)).toBeLessThan(Number(b.lever.id));
        }
      },
    ),
  );
});
