import { randomUUID } from 'node:crypto';
import { diffRecords } from '@zugluft/core/family/diffRecords';
import { carryCooling, splitCase } from '@zugluft/core/family/splitCase';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { LabDefaults } from '@zugluft/core/record/resolver';
import {
  col,
  fn,
  Op,
  where as sqlWhere,
  type Order,
  type Transaction,
  type WhereOptions,
} from 'sequelize';
import type { Database } from '../database/openDatabase';
import type { MachineRow } from '../database/models';
import { Problem } from '../security/problem';
import { acceptRecord, answerOf, describeRecord } from './describeRecord';
import { found, withUnit, type Machine } from './machineRows';

/** A machine as a row of the library. */
export interface MachineSummary {
  id: string;
  revision: number;
  maker: string;
  model: string;
  variant: string;
  stateName: string;
  complete: boolean;
  fans: number;
  pipes: number;
  stacks: number;
  thicknessMm: number | null;
  massKg: number | null;
  togetherAt36W: number | null;
  togetherFullW: number | null;
  updatedAt: string;
  putAsideAt: string | null;
}

export const SORTABLE = [
  'maker',
  'variant',
  'fans',
  'pipes',
  'thicknessMm',
  'massKg',
  'togetherAt36W',
  'togetherFullW',
  'updatedAt',
] as const;

export interface ListQuery {
  q: string;
  page: number;
  pageSize: number;
  sort: (typeof SORTABLE)[number];
  descending: boolean;
  putAside: boolean;
}

export type MachineStore = ReturnType<typeof createMachineStore>;

/** Machines recomputed in one transaction. */
const RECOMPUTED_AT_ONCE = 20;

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
  const { Machine, Variant, Unit, Revision } = db.models;

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
      const own = JSON.parse(sibling.record) as CaseRecord;
      const { record, complete } = acceptRecord(carryCooling(before, after, own));
      const revision = sibling.revision + 1;
      await sibling.update({ ...describeRecord(record, complete, lab), revision }, { transaction });
      await Revision.create(
        { machineId: sibling.id, revision, record: sibling.record },
        { transaction },
      );
    }
  };

  return {
    async list(query: ListQuery): Promise<{ items: MachineSummary[]; total: number }> {
      const words = query.q.toLowerCase().split(/\s+/).filter(Boolean).slice(0, 10);
      const where: WhereOptions = {
        putAsideAt: query.putAside ? { [Op.ne]: null } : null,
        // instr and not LIKE: what the user types holds no wildcards
        [Op.and]: words.map((word) =>
          sqlWhere(fn('instr', col('searchText'), word), { [Op.gt]: 0 }),
        ),
      };
      const direction = query.descending ? 'DESC' : 'ASC';
      const order: Order =
        query.sort === 'maker'
          ? [
              ['maker', direction],
              ['model', direction],
              ['variant', direction],
              ['id', 'ASC'],
            ]
          : [
              [query.sort, direction],
              ['maker', 'ASC'],
              ['model', 'ASC'],
              ['id', 'ASC'],
            ];
      const { rows, count } = await Machine.findAndCountAll({
        where,
        order,
        limit: query.pageSize,
        offset: (query.page - 1) * query.pageSize,
        attributes: { exclude: ['record', 'searchText'] },
      });
      const items = rows.map((r) => ({
        id: r.id,
        revision: r.revision,
        maker: r.maker,
        model: r.model,
        variant: r.variant,
        stateName: r.stateName,
        complete: r.complete,
        fans: r.fans,
        pipes: r.pipes,
        stacks: r.stacks,
        thicknessMm: r.thicknessMm,
        massKg: r.massKg,
        togetherAt36W: r.togetherAt36W,
        togetherFullW: r.togetherFullW,
        updatedAt: r.updatedAt.toISOString(),
        putAsideAt: r.putAsideAt?.toISOString() ?? null,
      }));
      return { items, total: count };
    },

    async read(id: string): Promise<Machine> {
      return withUnit(db, found(await Machine.findByPk(id)));
    },

    async create(input: unknown): Promise<Machine> {
      const { record, complete } = acceptRecord(input);
      const lab = await labDefaults();
      return db.write(async (transaction) => {
        const variantId = randomUUID();
        const unitId = randomUUID();
        await Variant.create({ id: variantId, copiedFrom: null }, { transaction });
        await Unit.create({ id: unitId, variantId, revision: 1, facts: '{}' }, { transaction });
        const row = await Machine.create(
          {
            id: randomUUID(),
            revision: 1,
            putAsideAt: null,
            variantId,
            unitId,
            ...describeRecord(record, complete, lab),
          },
          { transaction },
        );
        await Revision.create(
          { machineId: row.id, revision: 1, record: row.record },
          { transaction },
        );
        return withUnit(db, row, transaction);
      });
    },

    /** Replaces the record if it is still at the revision the writer saw. */
    async update(id: string, expectedRevision: number, input: unknown): Promise<Machine> {
      const { record, complete } = acceptRecord(input);
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
        const before = JSON.parse(row.record) as CaseRecord;
        await row.update(
          { ...describeRecord(record, complete, lab), revision: row.revision + 1 },
          { transaction },
        );
        await Revision.create(
          { machineId: id, revision: row.revision, record: row.record },
          { transaction },
        );
        await carryToSiblings(row, before, record, lab, transaction);
        return withUnit(db, row, transaction);
      });
    },

    /** Computes anew what the list shows of every machine, after the lab's defaults have changed; records stay as they are. */
    async recompute(): Promise<number> {
      const lab = await labDefaults();
      let done = 0;
      for (let after = ''; ;) {
        const rows = await Machine.findAll({
          where: { complete: true, id: { [Op.gt]: after } },
          order: [['id', 'ASC']],
          limit: RECOMPUTED_AT_ONCE,
        });
        if (!rows.length) return done;
        await db.write(async (transaction) => {
          for (const row of rows) {
            const record = JSON.parse(row.record) as CaseRecord;
            await row.update(answerOf(record, true, lab), { transaction, silent: true });
          }
        });
        done += rows.length;
        after = rows[rows.length - 1]!.id;
      }
    },

    async setAside(id: string, aside: boolean): Promise<Machine> {
      return db.write(async (transaction) => {
        const row = found(await Machine.findByPk(id, { transaction }));
        await row.update({ putAsideAt: aside ? new Date() : null }, { transaction });
        return withUnit(db, row, transaction);
      });
    },
  };
}
