import { plural } from '../../record/plural';
import { EMPTY_LOG, openUpLog, readOpenUpLog, type OpenUpLog } from '../../service/openUpLog';
import { acceptBy, type DocumentKind } from '../documentKind';

/** The log of an opening. */
export const openingLogKind: DocumentKind<OpenUpLog> = {
  name: 'log',
  title: 'log of the opening',
  belongsTo: 'machine',
  schema: openUpLog,
  blank: () => EMPTY_LOG,
  read: readOpenUpLog,
  accept: acceptBy(openUpLog),
  describe: ({ steps, screws }) =>
    `${plural(steps.length, 'step')}, ${plural(screws.length, 'screw')}`,
  refersTo: () => [],
  travels: { as: 'file', folder: 'logs', strip: (log) => log },
};
