import type { KeptLabDefaults } from '@zugluft/core/documents/labDefaults/labDefaultsKind';
import type { WearAnswer } from '@zugluft/core/library/wearAnswer';
import { plural } from '@zugluft/core/record/plural';

type Rate = WearAnswer['rates'][number];

/** The evidence that stands beside a learned rate. */
export const noteOfRate = ({ machines, meanDeviation, between }: Rate, day: string): string =>
  `learned from runs before and after ${plural(machines, 'renewal')} on ${day}: the middle is known to ${meanDeviation.toFixed(2)} of the built-in spread, machines differ by ${between.toFixed(2)} of it`;

/**
 * The lab's defaults with rates that renewals told. Rates they told before and do not tell any more go; what was typed stays, and so
 * do factors learned from machines.
 */
export function takeOverRates(
  own: KeptLabDefaults,
  { rates }: WearAnswer,
  since: string,
): KeptLabDefaults {
  const others = Object.entries(own).filter(([, x]) => x.from !== 'renewals');
  const typed = new Set(others.filter(([, x]) => !x.learned).map(([key]) => key));
  const offered = rates.flatMap((r) =>
    r.offered && !typed.has(r.key)
      ? [
          [
            r.key,
            {
              ...r.offered,
              note: noteOfRate(r, since.slice(0, 10)),
              learned: true as const,
              from: 'renewals' as const,
              since,
            },
          ] as const,
        ]
      : [],
  );
  return Object.fromEntries([...others, ...offered]);
}

/** Rates that are offered and not typed by hand, and whether they stand there already. */
export function ratesToTake(
  own: KeptLabDefaults,
  wear: WearAnswer,
): { count: number; taken: boolean } {
  const then = takeOverRates(own, wear, '');
  const offered = wear.rates.filter((r) => r.offered && then[r.key]?.from === 'renewals');
  const same = (key: string) =>
    own[key]?.value === then[key]?.value &&
    own[key]?.low === then[key]?.low &&
    own[key]?.high === then[key]?.high;
  return {
    count: offered.length,
    taken: [...new Set([...Object.keys(own), ...Object.keys(then)])].every(same),
  };
}
