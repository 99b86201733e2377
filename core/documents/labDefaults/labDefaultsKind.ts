import { z } from 'zod';
import {
  checkLabDefault,
  isDefaultKey,
  labDefaultSchema,
  type LabDefault,
} from '../../record/labDefaults';
import { acceptBy, type DocumentKind, type RefusedField } from '../documentKind';

const entry = labDefaultSchema.extend({ since: z.iso.datetime() });
const labDefaults = z.record(z.string().max(120), entry);

export type KeptLabDefaults = Record<string, LabDefault & { since: string }>;

/** A laboratory's own values in place of the built-in defaults, by name. */
export const labDefaultsKind: DocumentKind<KeptLabDefaults> = {
  name: 'defaults',
  title: 'laboratory defaults',
  belongsTo: 'laboratory',
  schema: labDefaults,
  blank: () => ({}),
  read: (kept) => labDefaults.safeParse(kept).data ?? null,
  accept(input) {
    const shaped = acceptBy(labDefaults)(input);
    if ('refused' in shaped) return shaped;
    const refused = Object.entries(shaped.value).flatMap(([key, x]): RefusedField[] => {
      // a name that only an older version knew is kept as it is
      if (!isDefaultKey(key)) return [];
      return checkLabDefault(key, x).map((i) => ({
        path: `${key}.${i.path}`,
        message: i.message,
      }));
    });
    return refused.length ? { refused } : shaped;
  },
  describe: (value) => {
    const n = Object.keys(value).length;
    return n === 1 ? 'one default of its own' : `${n} defaults of its own`;
  },
  refersTo: () => [],
  travels: null,
};
