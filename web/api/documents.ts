import type { KindName, ValueOf } from '@zugluft/core/documents/kinds';
import type {
  DocumentAnswer,
  OldDocument,
  Page,
  RevisionSummary,
} from '@zugluft/core/library/answers';
import { fetchJson } from './http';

export type { DocumentAnswer, OldDocument, RevisionSummary };

/** A request that goes on when the page is left may have at most 64 kB, all of them together. */
const MAX_KEEPALIVE = 30_000;

const at = (kind: KindName, id: string) => `/api/documents/${kind}/${id}`;

export const documentKeys = {
  history: (kind: KindName, id: string, page: number, revision: number) =>
    ['documents', 'history', kind, id, page, revision] as const,
  revision: (kind: KindName, id: string, revision: number | null) =>
    ['documents', 'revision', kind, id, revision] as const,
};

export const readDocument = <K extends KindName>(kind: K, id: string) =>
  fetchJson<DocumentAnswer<ValueOf<K>>>(at(kind, id));

/**
 * Replaces a document that is still at the revision seen.
 *
 * @param writeId the same for a write that is sent again because its answer was lost
 */
export function writeDocument<K extends KindName>(
  kind: K,
  id: string,
  seen: number,
  value: ValueOf<K>,
  writeId: string,
) {
  const body = { value };
  return fetchJson<DocumentAnswer<ValueOf<K>>>(at(kind, id), {
    method: 'PUT',
    body,
    ifMatch: seen,
    writeId,
    keepalive: JSON.stringify(body).length < MAX_KEEPALIVE,
  });
}

export const listRevisions = (kind: KindName, id: string, page: number) =>
  fetchJson<Page<RevisionSummary>>(`${at(kind, id)}/revisions?page=${page}`);
export const readRevision = <K extends KindName>(kind: K, id: string, revision: number) =>
  fetchJson<OldDocument<ValueOf<K>>>(`${at(kind, id)}/revisions/${revision}`);
