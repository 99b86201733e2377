import { issuePlaces } from './issuePlaces';
import type { z } from 'zod';

/** Something in a value that cannot be kept, with its place. */
export interface RefusedField {
  path: string;
  message: string;
}

/** A value that may be kept, or why not. */
export type Accepted<T> = { value: T } | { refused: RefusedField[] };

/** Something another document holds: a part or figure by its path, or the whole document by its id. */
export interface Reference {
  kind: string;
  id?: string;
  path?: string;
}

/** How documents of a kind travel: as a file of their own, or with the entry of what they belong to. */
export type Travels<T> =
  { as: 'file'; folder: string; strip: (value: T) => T } | { as: 'entry'; strip: (value: T) => T };

/**
 * A kind of thing that is kept: typed by people, with a revision for every write. All that is said of it once is said here;
 * storing, locking, history, stepping back, export and import follow from it.
 */
export interface DocumentKind<T> {
  /** Its name in addresses and in the store. */
  name: string;
  /** What people call one. */
  title: string;
  /** What a document's id is the id of. */
  belongsTo: 'machine' | 'unit' | 'photo' | 'run' | 'laboratory';
  /** The shape, also for the description of the HTTP interface. */
  schema: z.ZodType<T>;
  /** What stands where nothing was written yet; null where a document has to be made first. */
  blank: (() => T) | null;
  /** Reads what was kept by this version of the program or any before it; null where it is none of this kind. */
  read: (kept: unknown) => T | null;
  /** Takes what may be kept. */
  accept: (input: unknown) => Accepted<T>;
  /** One line for lists. */
  describe: (value: T) => string;
  /** What it mentions of other documents. */
  refersTo: (value: T) => Reference[];
  /** Null where it stays in this library. */
  travels: Travels<T> | null;
}

const MAX_REFUSED = 100;

/**
 * Takes what a schema takes.
 *
 * @example const accept = acceptBy(unitFacts)
 */
export const acceptBy =
  <T>(schema: z.ZodType<T>) =>
  (input: unknown): Accepted<T> => {
    const read = schema.safeParse(input);
    if (read.success) return { value: read.data };
    return { refused: issuePlaces(read.error).slice(0, MAX_REFUSED) };
  };
