import { daySchema, emptyDay, type BenchDay } from '../../benchday/dayDocument';
import { acceptBy, type DocumentKind } from '../documentKind';

/** The day on the bench of a laboratory. */
export const benchDayKind: DocumentKind<BenchDay> = {
  name: 'day',
  title: 'bench day',
  belongsTo: 'laboratory',
  schema: daySchema,
  blank: emptyDay,
  read: (kept) => daySchema.safeParse(kept).data ?? null,
  accept: acceptBy(daySchema),
  describe: ({ acts }) => `bench day, ${acts.length} acts`,
  refersTo: ({ acts }) =>
    [...new Set(acts.filter((a) => a.kind !== 'other').map((a) => a.machine))].map((id) => ({
      kind: 'record',
      id,
    })),
  travels: null,
};
