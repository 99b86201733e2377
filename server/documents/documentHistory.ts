import type { KindName, ValueOf } from '@zugluft/core/documents/kinds';
import { diffRecords } from '@zugluft/core/family/diffRecords';
import type { OldDocument, Page, RevisionSummary } from '@zugluft/core/library/answers';
import type { Database } from '../database/openDatabase';
import { Problem } from '../security/problem';
import type { DocumentStore } from './documentStore';

const PAGE_SIZE = 30;
const FIRST = 6;

export type DocumentHistory = ReturnType<typeof createDocumentHistory>;

/** What documents of any kind were. */
export function createDocumentHistory(db: Database, store: DocumentStore) {
  const { DocumentRevision } = db.models;
  return {
    /** Revisions, newest first, each with what it changed. */
    async list(kind: KindName, id: string, page: number): Promise<Page<RevisionSummary>> {
      await store.read(kind, id);
      const total = await DocumentRevision.count({ where: { kind, id } });
      // one more than shown, to compare the last one with
      const rows = await DocumentRevision.findAll({
        where: { kind, id },
        order: [['revision', 'DESC']],
        offset: (page - 1) * PAGE_SIZE,
        limit: PAGE_SIZE + 1,
      });
      const values = rows.map((r) => JSON.parse(r.value) as unknown);
      const items = rows.slice(0, PAGE_SIZE).map((r, i): RevisionSummary => {
        const before = values[i + 1];
        const changes = before === undefined ? [] : diffRecords(before, values[i]);
        return {
          revision: r.revision,
          at: r.createdAt.toISOString(),
          note: r.note,
          by: r.writtenBy,
          name: r.name,
          putAside: r.putAside,
          changed: changes.length,
          first: changes.slice(0, FIRST),
        };
      });
      return { items, total, page, pageSize: PAGE_SIZE };
    },

    /** A document as it was. */
    async read<K extends KindName>(
      kind: K,
      id: string,
      revision: number,
    ): Promise<OldDocument<ValueOf<K>>> {
      const row = await DocumentRevision.findOne({ where: { kind, id, revision } });
      if (!row) throw new Problem(404, 'Not found', 'there is no such revision');
      return {
        revision,
        at: row.createdAt.toISOString(),
        note: row.note,
        name: row.name,
        value: store.readValue(kind, row.value),
      };
    },
  };
}
