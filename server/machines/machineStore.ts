import { randomUUID } from 'node:crypto';
import { sustainedTogether } from '@zugluft/core/estimate';
import { figureValue } from '@zugluft/core/record/figure';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { LabDefaults } from '@zugluft/core/record/resolver';
import { col, fn, Op, where as sqlWhere, type Order, type WhereOptions } from 'sequelize';
import type { Database } from '../database/openDatabase';
import type { MachineRow } from '../database/models';
import { Problem } from '../security/problem';

export interface Machine {
  id: string;
  revision: number;
  record: CaseRecord;
  complete: boolean;
  createdAt: string;
  updatedAt: string;
  putAsideAt: string | null;
}

/** A machine as a row of the library. */
export interface MachineSummary {
  id: string;
  revision: number;
  maker: string;
  model: string;
  variant: string;
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

/** What the list shows of the answer. */
function answerOf(record: CaseRecord, complete: boolean, lab: LabDefaults) {
  const [at36, full] = complete ? sustainedTogether(record, [36, 'full'], lab) : [];
  return { togetherAt36W: at36 ?? null, togetherFullW: full ?? null };
}

function describe(record: CaseRecord, complete: boolean, lab: LabDefaults) {
  const identity = record.identity ?? {};
  const words = [identity.maker, identity.model, identity.modelCode, identity.variant];
  return {
    record: JSON.stringify(record),
    complete,
    maker: identity.maker ?? '',
    model: identity.model ?? '',
    variant: identity.variant ?? '',
    searchText: words.filter(Boolean).join(' ').toLowerCase(),
    fans: record.fans?.length ?? 0,
    pipes: (record.heatPipes ?? []).reduce((sum, p) => sum + (figureValue(p.count) ?? 1), 0),
    stacks: record.finStacks?.length ?? 0,
    thicknessMm: figureValue(record.shell?.thicknessMm) ?? null,
    massKg: figureValue(record.shell?.massKg) ?? null,
    ...answerOf(record, complete, lab),
  };
}

function acceptRecord(input: unknown): { record: CaseRecord; complete: boolean } {
  const { record, issues, keepable, complete } = parseRecord(input);
  if (!record || !keepable) {
    throw new Problem(422, 'Record refused', 'the record holds figures that cannot be', {
      errors: issues
        .filter((i) => i.kind === 'impossible')
        .slice(0, 100)
        .map(({ path, message }) => ({ path: path ? `record.${path}` : 'record', message })),
    });
  }
  return { record, complete };
}

function toMachine(row: MachineRow): Machine {
  return {
    id: row.id,
    revision: row.revision,
    record: JSON.parse(row.record) as CaseRecord,
    complete: row.complete,
    createdAt: row.createdAt.toISOString(),
    updatedAt: row.updatedAt.toISOString(),
    putAsideAt: row.putAsideAt?.toISOString() ?? null,
  };
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
  const { Machine, Revision } = db.models;

  const found = (row: MachineRow | null): MachineRow => {
    if (!row) throw new Problem(404, 'Not found', 'there is no such machine');
    return row;
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
      return toMachine(found(await Machine.findByPk(id)));
    },

    async create(input: unknown): Promise<Machine> {
      const { record, complete } = acceptRecord(input);
      const lab = await labDefaults();
      return db.write(async (transaction) => {
        const row = await Machine.create(
          { id: randomUUID(), revision: 1, putAsideAt: null, ...describe(record, complete, lab) },
          { transaction },
        );
        await Revision.create(
          { machineId: row.id, revision: 1, record: row.record },
          { transaction },
        );
        return toMachine(row);
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
            { current: toMachine(row) },
          );
        }
        await row.update(
          { ...describe(record, complete, lab), revision: row.revision + 1 },
          { transaction },
        );
        await Revision.create(
          { machineId: id, revision: row.revision, record: row.record },
          { transaction },
        );
        return toMachine(row);
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
        return toMachine(row);
      });
    },
  };
}
