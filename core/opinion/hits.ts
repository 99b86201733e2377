import { z } from 'zod';
import { nameKey, type Guess } from './guesses';

/** A guess beside what its machine is now known to hold at that cap. */
export interface AnsweredGuess extends Guess {
  machineId: string;
  machine: string;
  /** Null where there is no answer at that cap (yet). */
  answer: { p05: number; p50: number; p95: number } | null;
  /** The answer stands on runs. */
  learned: boolean;
}

/** How well somebody guesses. */
export interface RecordOfHits {
  by: string;
  guesses: number;
  /** Of them, how many have an answer. */
  answered: number;
  /** Of those, how many answers stand on runs. */
  learned: number;
  /** Inside the 5–95 % band. */
  inBand: number;
  /** Root mean square of ln(guess / median): the usual error as a share; null where nothing is answered. */
  offShare: number | null;
  /** Mean of it: above 0 guesses too high. */
  leanShare: number | null;
  /** Each error in the order of time, oldest first; the newest of them. */
  errors: number[];
}

/** Errors that are kept of a person. */
const NEWEST = 50;

/** Whether a guess lies in the band of the answer; null without one. */
export const isHit = ({ watts, answer }: AnsweredGuess): boolean | null =>
  answer && watts >= answer.p05 && watts <= answer.p95;

/** Error of a guess, ln(guess / median); null without an answer. */
export const errorOfGuess = ({ watts, answer }: AnsweredGuess): number | null =>
  answer && answer.p50 > 0 ? Math.log(watts / answer.p50) : null;

/**
 * Each person's record of hits, whoever guessed most first.
 *
 * @param guesses of any machines, in any order
 */
export function recordsOfHits(guesses: readonly AnsweredGuess[]): RecordOfHits[] {
  const people = new Map<string, AnsweredGuess[]>();
  for (const g of [...guesses].sort((a, b) => a.at.localeCompare(b.at))) {
    const own = people.get(nameKey(g.by));
    if (own) own.push(g);
    else people.set(nameKey(g.by), [g]);
  }
  return [...people.values()]
    .map((own): RecordOfHits => {
      const errors = own.map(errorOfGuess).filter((e) => e !== null);
      const mean = (of: (e: number) => number) =>
        errors.length ? errors.reduce((sum, e) => sum + of(e), 0) / errors.length : null;
      const square = mean((e) => e * e);
      return {
        // as it was written last
        by: own.at(-1)!.by,
        guesses: own.length,
        answered: errors.length,
        learned: own.filter((g) => g.learned && errorOfGuess(g) !== null).length,
        inBand: own.filter((g) => isHit(g)).length,
        offShare: square === null ? null : Math.sqrt(square),
        leanShare: mean((e) => e),
        errors: errors.slice(-NEWEST),
      };
    })
    .sort((a, b) => b.guesses - a.guesses || a.by.localeCompare(b.by));
}

const share = z.number().nullable();
const answered = z.looseObject({
  id: z.string(),
  by: z.string(),
  at: z.string(),
  cap: z.union([z.number(), z.literal('off'), z.literal('full')]),
  watts: z.number(),
  machineId: z.string(),
  machine: z.string(),
  answer: z.object({ p05: z.number(), p50: z.number(), p95: z.number() }).nullable(),
  learned: z.boolean(),
});

/** Guesses of the library, the newest first, page by page, and each person's record over all of them. */
export const guessPage = z.object({
  items: z.array(answered),
  total: z.int(),
  page: z.int(),
  pageSize: z.int(),
  people: z.array(
    z.object({
      by: z.string(),
      guesses: z.int(),
      answered: z.int(),
      learned: z.int(),
      inBand: z.int(),
      offShare: share,
      leanShare: share,
      errors: z.array(z.number()),
    }),
  ),
});
export type GuessPage = z.infer<typeof guessPage>;
