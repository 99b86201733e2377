import { sameValue } from '@zugluft/core/family/diffRecords';
import { carryCooling, renamedParts, splitCase } from '@zugluft/core/family/splitCase';
import { PART_LISTS } from '@zugluft/core/record/partLists';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { QueryTypes, type Transaction } from 'sequelize';
import type { Database } from '../database/openDatabase';
import type { DocumentStore } from '../documents/documentStore';
import type { KeptDocument, Shelf } from '../documents/shelf';
import { z } from 'zod';
import { parse } from '../security/parse';
import { addMachineAlone, found, listMachine, machineAnswer } from './machineRows';

const newId = z.uuid('is not a machine’s id');

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
    if (sameValue(splitCase(before.value).cooling, splitCase(now.value).cooling)) return;
    const siblings = await db.sequelize.query<{ id: string }>(
      'SELECT id FROM machines WHERE variantId = (SELECT variantId FROM machines WHERE id = :id) AND id <> :id',
      { type: QueryTypes.SELECT, replacements: { id: now.id }, transaction },
    );
    for (const { id } of siblings) {
      const own = await documents.read('record', id, transaction);
      const carried = carryCooling(before.value, now.value, own.value);
      const value = documents.accept('record', carried, 'record');
      await documents.put(own, { value }, { note: 'cooling of its variant changed' }, transaction);
    }
  };

  /** Photos of a part or of its figures follow its new name. */
  const carryToPhotos = async (
    now: KeptDocument<CaseRecord>,
    before: KeptDocument<CaseRecord>,
    transaction: Transaction,
  ) => {
    for (const list of PART_LISTS) {
      const names = renamedParts(before.value[list] ?? [], now.value[list] ?? []);
      for (const [from, to] of names) {
        const photos = await db.models.Attachment.findAll({
          where: { machineId: now.id },
          attributes: ['id', 'path'],
          transaction,
        });
        for (const { id, path } of photos) {
          const old = `${list}.${from}`;
          if (path !== old && !path.startsWith(`${old}.`)) continue;
          const photo = await documents.read('photo', id, transaction);
          const value = { ...photo.value, path: `${list}.${to}${path.slice(old.length)}` };
          const note = `“${from}” is now called “${to}”`;
          await documents.put(photo, { value }, { note }, transaction);
        }
      }
    }
  };

  /** Marks of its photos follow the new names of the parts that they measure. */
  const carryToMarks = async (
    now: KeptDocument<CaseRecord>,
    before: KeptDocument<CaseRecord>,
    transaction: Transaction,
  ) => {
    const renamed = PART_LISTS.flatMap((list) =>
      [...renamedParts(before.value[list] ?? [], now.value[list] ?? [])].map(
        ([from, to]) => [`${list}.${from}.`, `${list}.${to}.`] as const,
      ),
    );
    if (renamed.length === 0) return;
    const photos = await db.models.Attachment.findAll({
      where: { machineId: now.id },
      attributes: ['id'],
      transaction,
    });
    for (const { id } of photos) {
      const kept = await documents.find('marks', id, transaction);
      if (!kept?.revision) continue;
      const named = (figure: string | null) => {
        const [from, to] = renamed.find(([old]) => figure?.startsWith(old)) ?? [];
        return figure && from && to ? to + figure.slice(from.length) : figure;
      };
      const marks = kept.value.marks.map((m) => ({ ...m, figure: named(m.figure) }));
      const value = { ...kept.value, marks };
      if (sameValue(value, kept.value)) continue;
      await documents.put(kept, { value }, { note: 'a part has another name' }, transaction);
    }
  };

  return {
    kind: 'record',
    aside: true,
    async owner(id, transaction) {
      found(await Machine.findByPk(id, { attributes: ['id'], ...within(transaction) }));
    },
    begin: (id, value, about, transaction) =>
      addMachineAlone(db, documents, value, parse(newId, id), transaction, about),
    listed: (now, before, transaction) => listMachine(db, now, before, transaction),
    async changed(now, before, transaction) {
      await carryToPhotos(now, before, transaction);
      await carryToMarks(now, before, transaction);
      await carryToSiblings(now, before, transaction);
    },
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
