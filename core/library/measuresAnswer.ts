import { z } from 'zod';

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
  marks: z.array(
    z.looseObject({
      id: z.string(),
      value: z.number().nullable(),
      plusMinus: z.number().nullable(),
      unit: z.enum(['mm', 'count', 'share', 'mm2', 'deg']),
      note: z.string().nullable(),
    }),
  ),
  faults: z.array(z.object({ path: z.string(), message: z.string() })),
});
