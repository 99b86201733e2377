import { z } from 'zod';
import { MAX_CAP_DBA, MIN_CAP_DBA } from '../case/laboratory';

/** What reviewers guessed of a machine before its answer was uncovered. */

/** Letters of a name. */
export const MAX_NAME = 60;
/** Guesses of a machine. */
export const MAX_GUESSES = 200;
/** More than any notebook has. */
export const MOST_GUESSED_W = 10_000;

export const reviewerName = z
  .string('needs a name')
  .trim()
  .min(1, 'needs a name')
  .max(MAX_NAME, `must be at most ${MAX_NAME} characters`);

export const guessedWatts = z
  .number('needs watts')
  .gt(0, 'must be above 0 W')
  .lt(MOST_GUESSED_W, `must be below ${MOST_GUESSED_W.toLocaleString('en')} W`);

const guessSchema = z.looseObject({
  id: z.string().min(1).max(64),
  by: reviewerName,
  at: z.iso.datetime('needs a moment'),
  /** Both dies together at this cap. */
  cap: z.union([z.literal('off'), z.literal('full'), z.number().min(MIN_CAP_DBA).max(MAX_CAP_DBA)]),
  watts: guessedWatts,
});
export type Guess = z.infer<typeof guessSchema>;

export const guessesSchema = z.looseObject({
  format: z.literal('zugluft-guesses', { error: 'are no guesses' }),
  formatVersion: z.literal(1, { error: 'were written by a newer version' }),
  guesses: z
    .array(guessSchema)
    .max(MAX_GUESSES, `must be at most ${MAX_GUESSES}`)
    .refine((all) => new Set(all.map((g) => g.id)).size === all.length, 'must have an id each'),
});
export type Guesses = z.infer<typeof guessesSchema>;

export const NO_GUESSES: Guesses = { format: 'zugluft-guesses', formatVersion: 1, guesses: [] };

/** A name as persons are told apart by it: however it is cased or composed. */
export const nameKey = (name: string): string => name.trim().normalize('NFC').toLowerCase();

/** Whether somebody guessed already. */
export const guessedBy = ({ guesses }: Guesses, name: string): boolean =>
  guesses.some((g) => nameKey(g.by) === nameKey(name));
