import { z } from 'zod';
import {
  heightMmSchema,
  markIdSchema,
  namelessMarkSchema,
  scaleItemSchema,
  uniqueIds,
  type Mark,
  type MarksFile,
} from './marksFile';

export const MAX_REFERENCES = 50;
export const MAX_MARKS = 500;

/**
 * What somebody marked in a photo of a machine: things of known size, and marks with the figure that each is of, a path such as
 * `fans.fan-left.impellerDiameterMm`; null where it is of none.
 */
export const photoMarksSchema = z
  .strictObject({
    references: z
      .array(
        z.strictObject({
          /** Its own, so that two windows know it by it. */
          id: z.string().min(1, 'must not be empty').max(40),
          /** Which of the known things it is; any other word for one that was measured. */
          what: z.string().min(1, 'needs a word').max(60, 'at most 60 characters'),
          item: scaleItemSchema,
        }),
      )
      .max(MAX_REFERENCES, `at most ${MAX_REFERENCES} things of known size`),
    planeMm: heightMmSchema.optional(),
    clickPx: z.number().gt(0, 'must be more than 0').max(50).optional(),
    marks: z
      .array(
        z.strictObject({
          id: markIdSchema,
          mark: namelessMarkSchema,
          figure: z.string().max(200).nullable().default(null),
        }),
      )
      .max(MAX_MARKS, `at most ${MAX_MARKS} marks`),
  })
  .superRefine((all, ctx) => {
    for (const list of ['references', 'marks'] as const) {
      uniqueIds(
        all[list].map((m) => m.id),
        (i, message) => ctx.addIssue({ code: 'custom', path: [list, i, 'id'], message }),
      );
    }
  });
export type PhotoMarks = z.infer<typeof photoMarksSchema>;
export type PhotoMark = PhotoMarks['marks'][number];
export type PhotoReference = PhotoMarks['references'][number];

/** A photo in which nothing is marked. */
export const NO_MARKS: PhotoMarks = { references: [], marks: [] };

/** A mark with its name, as it is measured. */
export const markOf = ({ id, mark }: PhotoMark): Mark => ({ id, ...mark });

/** The same as the measure command reads it. */
export function marksFileOf({ references, planeMm, clickPx, marks }: PhotoMarks): MarksFile {
  return {
    scale: references.map((r) => r.item),
    ...(planeMm === undefined ? {} : { planeMm }),
    ...(clickPx === undefined ? {} : { clickPx }),
    marks: marks.map(markOf),
  };
}
