import { DOCUMENT_KINDS, kindNamed, type KindName } from '@zugluft/core/documents/kinds';
import { isObject } from '@zugluft/core/record/plainJson';
import type { Draft } from './draftShelf';

/** Names under which earlier versions of this program kept what was not sent yet. */
const OLD_NAME: Partial<Record<KindName, string>> = {
  record: 'zugluft.draft.',
  log: 'zugluft.log.',
  unit: 'zugluft.unit.',
};

/**
 * What an earlier version of this program left in the browser's storage for a document; it is taken from there once it is kept
 * in the database.
 *
 * @param server what the server has of it now
 */
export function takeOldDraft(
  kind: KindName,
  id: string,
  server: { revision: number; value: unknown },
): { draft: Draft<unknown>; drop: () => void } | null {
  const name = OLD_NAME[kind];
  if (name === undefined) return null;
  try {
    const text = localStorage.getItem(name + id);
    const kept: unknown = text === null ? null : JSON.parse(text);
    if (!isObject(kept)) return null;
    const { value, record, log, facts, base, baseRevision, revision } = kept;
    const found = value ?? record ?? log ?? facts;
    const seen = base ?? baseRevision ?? revision;
    if (typeof seen !== 'number' || found === undefined) return null;
    // what was typed of a record may hold text where a number should be, and is kept all the same
    const read = kind === DOCUMENT_KINDS.record.name ? found : kindNamed(kind).read(found);
    if (read === null) return null;
    return {
      draft: {
        // what it was made from is not known any more: what differs is asked about
        base: { revision: seen, value: seen === server.revision ? server.value : {} },
        value: read,
        dirty: true,
        past: [],
        future: [],
      },
      drop: () => localStorage.removeItem(name + id),
    };
  } catch {
    return null;
  }
}
