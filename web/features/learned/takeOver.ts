import type { KeptLabDefaults } from '@zugluft/core/documents/labDefaults/labDefaultsKind';
import type { LearnedAnswer } from '@zugluft/core/library/learnedAnswer';

const percent = (share: number) => `${Math.round(100 * share)} %`;

/** The evidence that stands beside each learned default. */
export const noteOf = ({ machines, before, after, madeAt }: LearnedAnswer): string =>
  `learned from ${machines.length} machines on ${madeAt.slice(0, 10)}: each foretold from the others is typically ${percent(after.offShare)} off instead of ${percent(before.offShare)}, ±${percent(after.halfBand)} instead of ±${percent(before.halfBand)}`;

/** The lab's defaults with what was learned; what was learned before and is not offered any more goes, what was typed stays. */
export function takeOver(
  own: KeptLabDefaults,
  learned: LearnedAnswer,
  since: string,
): KeptLabDefaults {
  const typed = Object.entries(own).filter(([, x]) => !x.learned || x.from === 'renewals');
  const keys = new Set(typed.map(([key]) => key));
  const note = noteOf(learned);
  const offered = learned.factors.flatMap((f) =>
    f.offered && !keys.has(f.key)
      ? [[f.key, { ...f.offered, note, learned: true as const, since }] as const]
      : [],
  );
  return Object.fromEntries([...typed, ...offered]);
}

/** Whether what was learned stands there already. */
export const taken = (own: KeptLabDefaults, learned: LearnedAnswer): boolean => {
  const then = takeOver(own, learned, '');
  const keys = new Set([...Object.keys(own), ...Object.keys(then)]);
  return [...keys].every(
    (key) =>
      own[key]?.value === then[key]?.value &&
      own[key]?.low === then[key]?.low &&
      own[key]?.high === then[key]?.high,
  );
};
