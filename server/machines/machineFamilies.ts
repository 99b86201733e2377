import { randomUUID } from 'node:crypto';
import { copyForSibling, copyForUnit } from '@zugluft/core/family/markAssumed';
import { stateName, unitFacts, type UnitFacts } from '@zugluft/core/family/unitFacts';
import type { FamilyMember, Machine, Unit } from '@zugluft/core/library/answers';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { LabDefaults } from '@zugluft/core/record/resolver';
import { col, fn, Op, where as sqlWhere, type Transaction } from 'sequelize';
import type { Database } from '../database/openDatabase';
import { parse } from '../security/parse';
import { Problem } from '../security/problem';
import { found, recordOf, toUnit, withUnit, writeFirst } from './machineRows';

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

export type MachineFamilies = ReturnType<typeof createMachineFamilies>;

/**
 * Variants, units and states: what a machine's file has beside it.
 *
 * @param db an open library
 * @param labDefaults the lab's own defaults as they are now
 */
export function createMachineFamilies(db: Database, labDefaults: () => Promise<LabDefaults>) {
  const { Machine: Machines, Variant, Unit: Units } = db.models;

  const source = async (id: string, transaction: Transaction) => {
    const row = found(await Machines.findByPk(id, { transaction }));
    return { row, record: await recordOf(db, row, transaction) };
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
    place: { variantId: string; unitId: string; stateName: string },
    transaction: Transaction,
  ): Promise<Machine> =>
    withUnit(db, await writeFirst(db, input, place, await labDefaults(), transaction), transaction);

  const newUnit = async (variantId: string, facts: UnitFacts, transaction: Transaction) => {
    const unit = await Units.create(
      { id: randomUUID(), variantId, revision: 1, facts: JSON.stringify(facts) },
      { transaction },
    );
    return unit.id;
  };

  return {
    /** All machines of the same maker and model, this one too, by variant, unit and state. */
    async family(id: string): Promise<FamilyMember[]> {
      const own = found(await Machines.findByPk(id));
      const named = own.maker !== '' || own.model !== '';
      const same = (column: string, value: string) =>
        sqlWhere(fn('lower', col(column)), value.toLowerCase());
      const rows = await Machines.findAll({
        where: named
          ? { [Op.and]: [same('maker', own.maker), same('model', own.model)] }
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
        togetherAt36W: r.togetherAt36W,
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
        return write(record, place, transaction);
      });
    },

    /** Another unit of the same variant: its cooling is that of this one, its state is still to be found out. */
    async addUnit(id: string, facts: unknown): Promise<Machine> {
      const known = parse(unitFacts, facts);
      return db.write(async (transaction) => {
        const { row, record } = await source(id, transaction);
        await checkRoom(row.variantId, transaction);
        const { variantId } = row;
        const unitId = await newUnit(variantId, known, transaction);
        return write(
          copyForUnit(record),
          { variantId, unitId, stateName: 'as found' },
          transaction,
        );
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
        const unitId = await newUnit(variantId, {}, transaction);
        return write(copy, { variantId, unitId, stateName: 'as found' }, transaction);
      });
    },

    async renameState(id: string, name: unknown): Promise<Machine> {
      const named = parse(stateName, name);
      return db.write(async (transaction) => {
        const { row } = await source(id, transaction);
        await row.update({ stateName: named }, { transaction });
        return withUnit(db, row, transaction);
      });
    },

    /** Replaces what is known of a unit if it is still at the revision the writer saw. */
    async updateUnit(id: string, expectedRevision: number, facts: unknown): Promise<Unit> {
      const known = parse(unitFacts, facts);
      return db.write(async (transaction) => {
        const row = found(await Units.findByPk(id, { transaction }), 'unit');
        if (row.revision !== expectedRevision) {
          throw new Problem(
            412,
            'Changed meanwhile',
            `this unit is at revision ${row.revision}, not ${expectedRevision}`,
            { current: toUnit(row) },
          );
        }
        await row.update(
          { facts: JSON.stringify(known), revision: row.revision + 1 },
          { transaction },
        );
        return toUnit(row);
      });
    },
  };
}
