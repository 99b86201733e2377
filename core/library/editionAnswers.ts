import { z } from 'zod';

/** A report as it was published, with the files that it was written as. */
export const editionSummary = z.object({
  number: z.int(),
  createdAt: z.iso.datetime(),
  recordRevision: z.int(),
  headline: z.string(),
  cap: z.string(),
  units: z.string(),
  /** It was published in another library, whose revision of the record it tells. */
  imported: z.boolean(),
  files: z.array(z.object({ name: z.string(), bytes: z.int() })),
});
export type EditionSummary = z.infer<typeof editionSummary>;

const banded = z
  .object({ p05: z.number().nullable(), value: z.number(), p95: z.number().nullable() })
  .nullable();
const textPair = z.object({ before: z.string(), after: z.string() });

/** What differs from the edition before. */
export const editionChangesSchema = z.object({
  headline: textPair.nullable(),
  figures: z.array(
    z.object({
      figure: z.string(),
      cap: z.string(),
      unit: z.string(),
      before: banded,
      after: banded,
    }),
  ),
  conditions: z.array(
    z.object({ name: z.string(), before: z.string().nullable(), after: z.string().nullable() }),
  ),
  record: z.array(
    z.object({ path: z.string(), before: z.unknown().optional(), after: z.unknown().optional() }),
  ),
  words: z.array(z.string()),
  asked: z.array(textPair.extend({ name: z.string() })),
});

/** An edition with what is new in it; null in the first. */
export const editionAnswer = editionSummary.extend({ changes: editionChangesSchema.nullable() });
export type EditionAnswer = z.infer<typeof editionAnswer>;
