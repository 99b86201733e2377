import { diffRecords } from '@zugluft/core/family/diffRecords';
import type { OldRecord, Page, RevisionSummary } from '@zugluft/core/library/answers';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { Op } from 'sequelize';
import type { Database } from '../database/openDatabase';
import { found } from './machineRows';

const PAGE_SIZE = 30;
const FIRST = 6;

export type MachineHistory = ReturnType<typeof createMachineHistory>;

/** Reads what machines' records were. */
export function createMachineHistory(db: Database) {
  const { Machine, Revision } = db.models;
  return {
    /** Revisions, newest first, each with what it changed. */
    async list(id: string, page: number): Promise<Page<RevisionSummary>> {
      found(await Machine.findByPk(id, { attributes: ['id'] }));
      const total = await Revision.count({ where: { machineId: id } });
      // one more than shown, to compare the last one with
      const rows = await Revision.findAll({
        where: { machineId: id },
        order: [['revision', 'DESC']],
        offset: (page - 1) * PAGE_SIZE,
        limit: PAGE_SIZE + 1,
      });
      const records = rows.map((r) => JSON.parse(r.record) as CaseRecord);
      const items = rows.slice(0, PAGE_SIZE).map((r, i): RevisionSummary => {
        const before = records[i + 1];
        const changes = before ? diffRecords(before, records[i]) : [];
        return {
          revision: r.revision,
          at: r.createdAt.toISOString(),
          changed: changes.length,
          first: changes.slice(0, FIRST),
        };
      });
      return { items, total, page, pageSize: PAGE_SIZE };
    },

    /** A record as it was. */
    async read(id: string, revision: number): Promise<OldRecord> {
      const row = found(
        await Revision.findOne({ where: { machineId: id, revision: { [Op.eq]: revision } } }),
        'revision',
      );
      return {
        revision,
        at: row.createdAt.toISOString(),
        record: JSON.parse(row.record) as CaseRecord,
      };
    },
  };
}
