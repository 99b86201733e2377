import { runSchema, type RunDocument } from '../../runs/runDocument';
import { acceptBy, type DocumentKind } from '../documentKind';

/** A run of a machine on the bench. */
export const runKind: DocumentKind<RunDocument> = {
  name: 'run',
  title: 'run on the bench',
  belongsTo: 'run',
  schema: runSchema,
  blank: null,
  read: (kept) => runSchema.safeParse(kept).data ?? null,
  accept: acceptBy(runSchema),
  describe: ({ name, load }) => name ?? (load ? `${load.kind}, ${load.on}` : 'run'),
  refersTo: () => [],
  // it travels with its logs, see server/runs/runFiles.ts
  travels: null,
};
