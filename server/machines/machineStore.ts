import { randomUUID } from 'node:crypto';
import { diffRecords } from '@zugluft/core/family/diffRecords';
import { carryCooling, splitCase } from '@zugluft/core/family/splitCase';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { Machine } from '@zugluft/core/library/answers';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { LabDefaults } from '@zugluft/core/record/resolver';
import { Op, type Transaction, type WhereOptions } from 'sequelize';
import type { MachineRow } from '../database/models';
import type { Database } from '../database/openDatabase';
import { Problem } from '../security/problem';
import { acceptRecord, DESCRIPTION, describeRecord } from './describeRecord';
import { createMachineList } from './machineList';
import { found, recordOf, withUnit, writeFirst, writeNext } from './machineRows';

export type MachineStore = ReturnType<typeof createMachineStore>;

/** Machines described anew in one transaction. */
const DESCRIBED_AT_ONCE = 20;

/**
 * Reads and writes machines. Every write is one transaction and leaves a revision behind.
 *
 * @param db an open library
 * @param labDefaults the lab's own defaults as they are now
 */
export function createMachineStore(
  db: Database,
  labDefaults: () => Promise<LabDefaults> = async () => ({}),
) {
  const { Machine, Variant, Unit } = db.models;
  const listed = createMachineList(db);

  /** The other machines of a variant get its changed cooling, each as a revision of its own. */
  const carryToSiblings = async (
    row: MachineRow,
    before: CaseRecord,
    after: CaseRecord,
    lab: LabDefaults,
    transaction: Transaction,
  ) => {
    if (!diffRecords(splitCase(before).cooling, splitCase(after).cooling).length) return;
    const siblings = await Machine.findAll({
      where: { variantId: row.variantId, id: { [Op.ne]: row.id } },
      transaction,
    });
    for (const sibling of siblings) {
      const own = await recordOf(db, sibling, transaction);
      await writeNext(db, sibling, carryCooling(before, after, own), lab, transaction);
    }
  };

  /** Writes anew what the library shows of some machines; their records and revisions stay as they are. */
  const describeAgain = async (which: WhereOptions): Promise<number> => {
    const lab = await labDefaults();
    let done = 0;
    for (let after = ''; ;) {
      const rows = await Machine.findAll({
        where: { [Op.and]: [which, { id: { [Op.gt]: after } }] },
        order: [['id', 'ASC']],
        limit: DESCRIBED_AT_ONCE,
      });
      if (!rows.length) return done;
      await db.write(async (transaction) => {
        for (const row of rows) {
          await row.reload({ transaction });
          const { record, complete } = parseRecord(await recordOf(db, row, transaction));
          if (!record) continue;
          await row.update(describeRecord(record, complete, lab), { transaction, silent: true });
        }
      });
      done += rows.length;
      after = rows[rows.length - 1]!.id;
    }
  };

  return {
    list: listed.list,
    listJson: listed.listJson,

    async read(id: string): Promise<Machine> {
      return withUnit(db, found(await Machine.findByPk(id)));
    },

    async create(input: unknown): Promise<Machine> {
      // refused before anything is written
      acceptRecord(input);
      const lab = await labDefaults();
      return db.write(async (transaction) => {
        const variantId = randomUUID();
        const unitId = randomUUID();
        await Variant.create({ id: variantId, copiedFrom: null }, { transaction });
        await Unit.create({ id: unitId, variantId, revision: 1, facts: '{}' }, { transaction });
        const place = { variantId, unitId, stateName: 'as found' };
        const row = await writeFirst(db, input, place, lab, transaction);
        return withUnit(db, row, transaction);
      });
    },

    /** Replaces the record if it is still at the revision the writer saw. */
    async update(id: string, expectedRevision: number, input: unknown): Promise<Machine> {
      acceptRecord(input);
      const lab = await labDefaults();
      return db.write(async (transaction) => {
        const row = found(await Machine.findByPk(id, { transaction }));
        if (row.revision !== expectedRevision) {
          throw new Problem(
            412,
            'Changed meanwhile',
            `this machine is at revision ${row.revision}, not ${expectedRevision}`,
            { current: await withUnit(db, row, transaction) },
          );
        }
        const before = await recordOf(db, row, transaction);
        const after = await writeNext(db, row, input, lab, transaction);
        await carryToSiblings(row, before, after, lab, transaction);
        return withUnit(db, row, transaction);
      });
    },

    /** After the lab's defaults have changed. */
    recompute: () => describeAgain({ complete: true }),

    /** After the program has learnt to show more of a machine than when its row was written. */
    catchUp: () => describeAgain({ describedBy: { [Op.lt]: DESCRIPTION } }),

    async setAside(id: string, aside: boolean): Promise<Machine> {
      return db.write(async (transaction) => {
        const row = found(await Machine.findByPk(id, { transaction }));
        await row.update({ putAsideAt: aside ? new Date() : null }, { transaction });
        return withUnit(db, row, transaction);
      });
    },
  };
}
