import { attachmentFacts, type AttachmentFacts } from '../../library/attachment';
import { acceptBy, type DocumentKind } from '../documentKind';

/** What somebody said of a photo or paper. */
export const photoKind: DocumentKind<AttachmentFacts> = {
  name: 'photo',
  title: 'facts of a photo or paper',
  belongsTo: 'photo',
  schema: attachmentFacts,
  blank: null,
  read: (kept) => attachmentFacts.safeParse(kept).data ?? null,
  accept: acceptBy(attachmentFacts),
  describe: ({ name }) => name,
  refersTo({ path }) {
    if (path === '') return [];
    return path.startsWith('log.')
      ? [{ kind: 'log', path: path.slice('log.'.length) }]
      : [{ kind: 'record', path }];
  },
  // boxes are burned in on the way out
  travels: { as: 'entry', strip: (facts) => ({ ...facts, covers: [] }) },
};
