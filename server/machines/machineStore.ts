import { randomUUID } from 'node:crypto';
import type { Machine } from '@zugluft/core/library/answers';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { Op, type Transaction } from 'sequelize';
import type { Database } from '../database/openDatabase';
import type { DocumentStore, WriteAbout } from '../documents/documentStore';
import { DESCRIPTION, describeRecord } from './describeRecord';
import { addMachineAlone, machineAnswer } from './machineRows';

export type MachineStore = ReturnType<typeof createMachineStore>;

/** Machines described anew in one transaction. */
const DESCRIBED_AT_ONCE = 20;

/**
 * Machines of the library: their records in the store of documents, beside them the rows by which they are listed.
 *
 * @param db an open library
 * @param documents the store
 */
export function createMachineStore(db: Database, documents: DocumentStore) {
  const { Machine } = db.models;
  return {
    async read(id: string): Promise<Machine> {
      return machineAnswer(db, await documents.read('record', id));
    },

    async create(input: unknown): Promise<Machine> {
      const record = documents.accept('record', input, 'record');
      return db.write(async (transaction) => {
        const kept = await addMachineAlone(db, documents, record, randomUUID(), transaction);
        return machineAnswer(db, kept, transaction);
      });
    },

    /** Replaces the record if it is still at the revision the writer saw; at revision 0 a machine that is not there is made. */
    async update(id: string, seen: number, input: unknown, about?: WriteAbout): Promise<Machine> {
      const record = documents.accept('record', input, 'record');
      return machineAnswer(db, await documents.write('record', id, seen, record, about));
    },

    async rename(id: string, seen: number, name: string, about?: WriteAbout): Promise<Machine> {
      const kept = await documents.rename('record', id, seen, name, about);
      return machineAnswer(db, kept);
    },

    async setAside(id: string, seen: number, aside: boolean, about?: WriteAbout): Promise<Machine> {
      const kept = await documents.setAside('record', id, seen, aside, about);
      return machineAnswer(db, kept);
    },

    /** After the program has learnt to show more of a machine than when its row was written. */
    async catchUp(): Promise<number> {
      let done = 0;
      for (let after = ''; ;) {
        const rows = await Machine.findAll({
          where: { describedBy: { [Op.lt]: DESCRIPTION }, id: { [Op.gt]: after } },
          order: [['id', 'ASC']],
          limit: DESCRIBED_AT_ONCE,
        });
        if (!rows.length) return done;
        const describe = async (transaction: Transaction) => {
          for (const row of rows) {
            const { value } = await documents.read('record', row.id, transaction);
            const { record, complete } = parseRecord(value);
            if (!record) continue;
            await row.update(describeRecord(record, complete), { transaction, silent: true });
            db.touch(transaction, row.id, 'words');
          }
        };
        await db.write(describe);
        done += rows.length;
        after = rows[rows.length - 1]!.id;
      }
    },
  };
}
