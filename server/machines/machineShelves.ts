import { diffRecords } from '@zugluft/core/family/diffRecords';
import { carryCooling, splitCase } from '@zugluft/core/family/splitCase';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { Op, type Transaction } from 'sequelize';
import type { Database } from '../database/openDatabase';
import type { DocumentStore } from '../documents/documentStore';
import type { KeptDocument, Shelf } from '../documents/shelf';
import { found, listMachine, machineAnswer } from './machineRows';

/** What records need of the server: the rows of the library, and the cooling that all machines of a variant share. */
export function recordShelf(db: Database, documents: DocumentStore): Shelf<'record'> {
  const { Machine } = db.models;
  const within = (transaction?: Transaction) => (transaction ? { transaction } : {});

  /** The other machines of a variant get its changed cooling, each as a revision of its own. */
  const carryToSiblings = async (
    now: KeptDocument<CaseRecord>,
    before: KeptDocument<CaseRecord>,
    transaction: Transaction,
  ) => {
    const changed = diffRecords(splitCase(before.value).cooling, splitCase(now.value).cooling);
    if (!changed.length) return;
    const { variantId } = found(await Machine.findByPk(now.id, { transaction }));
    const siblings = await Machine.findAll({
      where: { variantId, id: { [Op.ne]: now.id } },
      attributes: ['id'],
      transaction,
    });
    for (const { id } of siblings) {
      const own = await documents.read('record', id, transaction);
      const carried = carryCooling(before.value, now.value, own.value);
      const value = documents.accept('record', carried, 'record');
      await documents.put(own, { value }, { note: 'cooling of its variant changed' }, transaction);
    }
  };

  return {
    kind: 'record',
    aside: true,
    async owner(id, transaction) {
      found(await Machine.findByPk(id, { attributes: ['id'], ...within(transaction) }));
    },
    listed: (now, before, transaction) => listMachine(db, now, before, transaction),
    changed: carryToSiblings,
    answer: (now, transaction) => machineAnswer(db, now, transaction),
  };
}

/** What facts of units need of the server. */
export function unitShelf(db: Database): Shelf<'unit'> {
  const { Unit } = db.models;
  const row = async (id: string, transaction?: Transaction) =>
    found(await Unit.findByPk(id, transaction ? { transaction } : {}), 'unit');
  return {
    kind: 'unit',
    aside: false,
    async owner(id, transaction) {
      await row(id, transaction);
    },
    async listed({ id, revision, value }, before, transaction) {
      if (!before) return;
      const unit = await row(id, transaction);
      await unit.update({ facts: JSON.stringify(value), revision }, { transaction });
    },
    answer: async ({ id, revision, value }) => ({ id, revision, facts: value }),
  };
}
