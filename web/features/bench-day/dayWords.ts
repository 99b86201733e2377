import { format } from 'date-fns';
import type { Conflict } from '@zugluft/core/benchday/conflicts';
import type { Act, BenchDay } from '@zugluft/core/benchday/dayDocument';

/** When a minute of the day is, by the clock where it has a beginning. */
export function clockOf({ beginsAt }: Pick<BenchDay, 'beginsAt'>, min: number): string {
  if (beginsAt) return format(new Date(Date.parse(beginsAt) + 60_000 * min), 'HH:mm');
  return `${Math.floor(min / 60)}:${String(min % 60).padStart(2, '0')}`;
}

/** How long it is until then. */
export function spanWords(min: number): string {
  if (min < 120) return `${min} min`;
  return min < 48 * 60 ? `${Math.round(min / 60)} h` : `${Math.round(min / 1440)} days`;
}

/** An act as people call it. */
export const actWords = ({ machineName, name }: Act): string =>
  [machineName, name].filter(Boolean).join(', ');

/** A conflict in words. */
export function conflictWords({ acts, why, what }: Conflict, all: readonly Act[]): string {
  const [a, b] = acts.map((id) => {
    const act = all.find((x) => x.id === id);
    return act ? actWords(act) : id;
  }) as [string, string];
  if (why === 'machine') return `${a} and ${b} want the same machine at once`;
  if (why === 'hands') return `${a} and ${b} want more hands than there are`;
  if (why === 'room') return `${a} and ${b}: one is to be heard alone, the other makes a sound`;
  if (why === 'instrument') return `${a} and ${b} want the ${what ?? 'instrument'} at once`;
  return `${b} begins before ${a} is over`;
}
