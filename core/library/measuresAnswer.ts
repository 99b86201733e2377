import { z } from 'zod';
import { MARK_KINDS } from '../photo/marksFile';

const measured = z.looseObject({
  id: z.string(),
  value: z.number().nullable(),
  plusMinus: z.number().nullable(),
  unit: z.enum(['mm', 'count', 'share', 'mm2', 'deg']),
  note: z.string().nullable(),
});

/** What the marks of a photo measure, as it is answered. */
export const keptMeasures = z.object({
  scale: z
    .object({
      mmPerPx: z.number(),
      plusMinusShare: z.number(),
      residualsPx: z.array(z.number()),
      note: z.string().nullable(),
    })
    .nullable(),
  marks: z.array(measured),
  faults: z.array(z.object({ path: z.string(), message: z.string() })),
});

/** Marks that somebody may take over, as they are answered. */
export const markProposals = z.object({
  items: z.array(
    z.object({
      kind: z.enum(MARK_KINDS),
      points: z.array(z.array(z.number())),
      reads: measured,
    }),
  ),
});
