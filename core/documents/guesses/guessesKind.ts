import { guessesSchema, NO_GUESSES, type Guesses } from '../../opinion/guesses';
import { plural } from '../../record/plural';
import { acceptBy, type DocumentKind } from '../documentKind';

/** What reviewers guessed of a machine before its answer was uncovered; who guessed what stays in the house. */
export const guessesKind: DocumentKind<Guesses> = {
  name: 'guesses',
  title: 'guesses',
  belongsTo: 'machine',
  schema: guessesSchema,
  blank: () => NO_GUESSES,
  read: (kept) => guessesSchema.safeParse(kept).data ?? null,
  accept: acceptBy(guessesSchema),
  describe: ({ guesses }) => plural(guesses.length, 'guess', 'guesses'),
  refersTo: () => [],
  travels: null,
};
