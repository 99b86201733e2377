import { readWattsByCap } from '@zugluft/core/uncertainty/wattsBand';
import { randomUUID } from 'node:crypto';
import { copyForSibling, copyForUnit } from '@zugluft/core/family/markAssumed';
import { stateName, unitFacts } from '@zugluft/core/family/unitFacts';
import type { FamilyMember, Machine, Unit } from '@zugluft/core/library/answers';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { Transaction } from 'sequelize';
import type { Database } from '../database/openDatabase';
import type { DocumentStore, WriteAbout } from '../documents/documentStore';
import { parse } from '../security/parse';
import { Problem } from '../security/problem';
import {
  addMachine,
  addUnit,
  found,
  machineAnswer,
  toUnit,
  type MachinePlace,
} from './machineRows';

const MAX_SHOWN = 200;
/** Every write to the cooling reaches each of them. */
const MAX_PER_VARIANT = 60;

/** Whether a variant takes no further unit or state. */
export async function variantIsFull(
  db: Database,
  variantId: string,
  transaction: Transaction,
): Promise<boolean> {
  return (await db.models.Machine.count({ where: { variantId }, transaction })) >= MAX_PER_VARIANT;
}

/** Watts of a row as they are answered. */
function wattsOf(text: string): Pick<FamilyMember, 'watts' | 'togetherAt36W'> {
  const watts = readWattsByCap(text);
  return { watts, togetherAt36W: watts['36']?.p50 ?? null };
}

export type MachineFamilies = ReturnType<typeof createMachineFamilies>;

/**
 * Variants, units and states: what a machine's file has beside it.
 *
 * @param db an open library
 * @param documents the store
 */
export function createMachineFamilies(db: Database, documents: DocumentStore) {
  const { Machine: Machines, Variant, Unit: Units } = db.models;

  const source = async (id: string, transaction: Transaction) => {
    const row = found(await Machines.findByPk(id, { transaction }));
    return { row, record: (await documents.read('record', id, transaction)).value };
  };

  const checkRoom = async (variantId: string, transaction: Transaction) => {
    if (await variantIsFull(db, variantId, transaction)) {
      throw new Problem(
        409,
        'Too many',
        `a variant has at most ${MAX_PER_VARIANT} units and states together`,
      );
    }
  };

  const write = async (
    input: CaseRecord,
    place: MachinePlace,
    transaction: Transaction,
    note: string,
  ): Promise<Machine> => {
    const record = documents.accept('record', input, 'record');
    const kept = await addMachine(db, documents, record, place, transaction, { note });
    return machineAnswer(db, kept, transaction);
  };

  return {
    /** All machines of the same maker and model, this one too, by variant, unit and state. */
    async family(id: string): Promise<FamilyMember[]> {
      const own = found(await Machines.findByPk(id));
      const named = own.maker !== '' || own.model !== '';
      const rows = await Machines.findAll({
        where: named
          ? { makerKey: own.makerKey, modelKey: own.modelKey }
          : { variantId: own.variantId },
        attributes: { exclude: ['searchText'] },
        limit: MAX_SHOWN,
        order: [
          ['variant', 'ASC'],
          ['variantId', 'ASC'],
          ['unitId', 'ASC'],
          ['createdAt', 'ASC'],
          ['id', 'ASC'],
        ],
      });
      const units = new Map(
        (await Units.findAll({ where: { id: [...new Set(rows.map((r) => r.unitId))] } })).map(
          (u) => [u.id, toUnit(u)],
        ),
      );
      return rows.map((r) => ({
        id: r.id,
        variantId: r.variantId,
        unitId: r.unitId,
        variant: r.variant,
        serial: units.get(r.unitId)?.facts.serial ?? '',
        stateName: r.stateName,
        complete: r.complete,
        ...wattsOf(r.watts),
        putAside: r.putAsideAt !== null,
      }));
    },

    /** A new state of the same unit, starting from this one. */
    async addState(id: string, name: unknown): Promise<Machine> {
      const named = parse(stateName, name);
      return db.write(async (transaction) => {
        const { row, record } = await source(id, transaction);
        await checkRoom(row.variantId, transaction);
        const place = { variantId: row.variantId, unitId: row.unitId, stateName: named };
        return write(record, place, transaction, `begun from “${row.stateName}”`);
      });
    },

    /** Another unit of the same variant: its cooling is that of this one, its state is still to be found out. */
    async addUnit(id: string, facts: unknown): Promise<Machine> {
      const known = parse(unitFacts, facts);
      return db.write(async (transaction) => {
        const { row, record } = await source(id, transaction);
        await checkRoom(row.variantId, transaction);
        const { variantId } = row;
        const unitId = await addUnit(db, documents, { variantId }, known, transaction);
        const place = { variantId, unitId, stateName: 'as found' };
        return write(copyForUnit(record), place, transaction, 'begun from another unit');
      });
    },

    /** A sibling variant: every figure copied and marked as assumed from this one. */
    async addVariant(id: string, variant: unknown): Promise<Machine> {
      const named = parse(stateName, variant);
      return db.write(async (transaction) => {
        const { row, record } = await source(id, transaction);
        const from = [row.maker, row.model, row.variant].filter(Boolean).join(' ') || 'a sibling';
        const copy = copyForSibling(record, from);
        copy.identity = { ...copy.identity, variant: named };
        const variantId = randomUUID();
        await Variant.create({ id: variantId, copiedFrom: row.variantId }, { transaction });
        const unitId = await addUnit(db, documents, { variantId }, {}, transaction);
        const place = { variantId, unitId, stateName: 'as found' };
        return write(copy, place, transaction, `begun from ${from}`.slice(0, 200));
      });
    },

    /** Replaces what is known of a unit if it is still at the revision the writer saw. */
    async updateUnit(id: string, seen: number, facts: unknown, about?: WriteAbout): Promise<Unit> {
      const known = documents.accept('unit', facts);
      const { revision, value } = await documents.write('unit', id, seen, known, about);
      return { id, revision, facts: value };
    },
  };
}
