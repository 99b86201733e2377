import { NO_MARKS, photoMarksSchema, type PhotoMarks } from '../../photo/photoMarks';
import { plural } from '../../record/plural';
import { acceptBy, type DocumentKind } from '../documentKind';

/** What is marked and measured in a photo. */
export const marksKind: DocumentKind<PhotoMarks> = {
  name: 'marks',
  title: 'marks of a photo',
  belongsTo: 'photo',
  schema: photoMarksSchema,
  blank: () => NO_MARKS,
  read: (kept) => photoMarksSchema.safeParse(kept).data ?? null,
  accept: acceptBy(photoMarksSchema),
  describe: ({ references, marks }) =>
    `${plural(references.length, 'thing')} of known size, ${plural(marks.length, 'mark')}`,
  refersTo: ({ marks }) =>
    marks.flatMap(({ figure }) => (figure ? [{ kind: 'record', path: figure }] : [])),
  travels: { as: 'entry', strip: (marks) => marks },
};
