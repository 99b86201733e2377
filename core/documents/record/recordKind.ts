import { isObject } from '../../record/plainJson';
import { parseRecord } from '../../record/parseRecord';
import { recordSchema, type CaseRecord } from '../../record/recordSchema';
import type { DocumentKind, Reference } from '../documentKind';

const MAX_REFUSED = 100;

/** A machine's record: complete or not, as long as it holds nothing that cannot be. */
export const recordKind: DocumentKind<CaseRecord> = {
  name: 'record',
  title: 'record',
  belongsTo: 'machine',
  schema: recordSchema,
  blank: null,
  // not checked again: a record kept under older bounds can still be opened and mended
  read: (kept) =>
    isObject(kept) && kept['format'] === 'zugluft-record' ? (kept as unknown as CaseRecord) : null,
  accept(input) {
    const { record, issues, keepable } = parseRecord(input);
    if (record && keepable) return { value: record };
    return {
      refused: issues
        .filter((i) => i.kind === 'impossible')
        .slice(0, MAX_REFUSED)
        .map(({ path, message }) => ({ path, message })),
    };
  },
  describe: ({ identity }) =>
    [identity?.maker, identity?.model, identity?.variant].filter(Boolean).join(' ') ||
    'machine without a name',
  refersTo: photosOf,
  travels: { as: 'file', folder: 'records', strip: (record) => record },
};

/** Photos that figures were read from. */
function photosOf(value: unknown): Reference[] {
  if (Array.isArray(value)) return value.flatMap(photosOf);
  if (!isObject(value)) return [];
  const own = typeof value['photo'] === 'string' ? [{ kind: 'photo', id: value['photo'] }] : [];
  return [...own, ...Object.values(value).flatMap(photosOf)];
}
