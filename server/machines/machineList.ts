import { col, fn, literal, Op, where as sqlWhere, type Order, type WhereOptions } from 'sequelize';
import { z } from 'zod';
import type { MachineRow } from '../database/models';
import type { Database } from '../database/openDatabase';

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
  chamber: boolean;
  finAreaCm2: number | null;
  thicknessMm: number | null;
  massKg: number | null;
  togetherAt28W: number | null;
  togetherAt32W: number | null;
  togetherAt36W: number | null;
  togetherAt40W: number | null;
  togetherAt45W: number | null;
  togetherFullW: number | null;
  tags: string[];
  updatedAt: string;
  putAsideAt: string | null;
}

const COLUMNS = [
  'id',
  'revision',
  'maker',
  'model',
  'variant',
  'stateName',
  'complete',
  'fans',
  'pipes',
  'stacks',
  'chamber',
  'finAreaCm2',
  'thicknessMm',
  'massKg',
  'togetherAt28W',
  'togetherAt32W',
  'togetherAt36W',
  'togetherAt40W',
  'togetherAt45W',
  'togetherFullW',
  'updatedAt',
  'putAsideAt',
] as const;

export const SORTABLE = [
  'maker',
  'variant',
  'fans',
  'pipes',
  'finAreaCm2',
  'thicknessMm',
  'massKg',
  'togetherAt28W',
  'togetherAt32W',
  'togetherAt36W',
  'togetherAt40W',
  'togetherAt45W',
  'togetherFullW',
  'updatedAt',
] as const;

const CAPS = {
  '28': 'At28W',
  '32': 'At32W',
  '36': 'At36W',
  '40': 'At40W',
  '45': 'At45W',
  full: 'FullW',
};

const bound = z.coerce.number('must be a number').min(0).max(1e6).optional();
export const tagName = z
  .string('needs a name')
  .trim()
  .min(1, 'needs a name')
  .max(40, 'must be at most 40 characters');

/** How the library is asked: words, filters, order, page. */
export const listQuery = z.strictObject({
  q: z.string().max(200).default(''),
  page: z.coerce.number().int().min(1).max(100_000).default(1),
  pageSize: z.coerce.number().int().min(1).max(200).default(50),
  sort: z
    .string()
    .regex(new RegExp(`^-?(${SORTABLE.join('|')})$`), `must be one of ${SORTABLE.join(', ')}`)
    .default('maker'),
  putAside: z.enum(['0', '1']).default('0'),
  tag: tagName.optional(),
  chamber: z.enum(['0', '1']).optional(),
  fansMin: bound,
  fansMax: bound,
  pipesMin: bound,
  pipesMax: bound,
  massMin: bound,
  massMax: bound,
  thicknessMin: bound,
  thicknessMax: bound,
  finAreaMin: bound,
  finAreaMax: bound,
  cap: z.enum(['28', '32', '36', '40', '45', 'full']).default('36'),
  wattsMin: bound,
  wattsMax: bound,
});
export type ListQuery = z.infer<typeof listQuery>;

/** What was typed as a full-text query: every word must begin a word of the machine; nothing typed is syntax. */
export function matchOf(typed: string): string {
  return typed
    .split(/\s+/)
    .map((word) => word.replace(/"/g, ''))
    .filter((word) => /[\p{L}\p{N}]/u.test(word))
    .slice(0, 10)
    .map((word) => `"${word}"*`)
    .join(' ');
}

function whereOf(db: Database, query: ListQuery): WhereOptions {
  const and: unknown[] = [];
  const range = (column: string, min: number | undefined, max: number | undefined) => {
    if (min !== undefined) and.push({ [column]: { [Op.gte]: min } });
    if (max !== undefined) and.push({ [column]: { [Op.lte]: max } });
  };
  range('fans', query.fansMin, query.fansMax);
  range('pipes', query.pipesMin, query.pipesMax);
  range('massKg', query.massMin, query.massMax);
  range('thicknessMm', query.thicknessMin, query.thicknessMax);
  range('finAreaCm2', query.finAreaMin, query.finAreaMax);
  range(`together${CAPS[query.cap]}`, query.wattsMin, query.wattsMax);
  if (query.chamber !== undefined) and.push({ chamber: query.chamber === '1' });
  const escaped = (text: string) => db.sequelize.escape(text);
  if (query.tag !== undefined) {
    and.push(
      literal(
        `id IN (SELECT machineId FROM machine_tags WHERE tag = ${escaped(query.tag.toLowerCase())})`,
      ),
    );
  }
  const typed = query.q.trim();
  const match = matchOf(typed);
  if (match) {
    and.push(
      literal(
        `id IN (SELECT k.machineId FROM machine_words w JOIN search_keys k ON k.key = w.rowid WHERE machine_words MATCH ${escaped(match)})`,
      ),
    );
  } else if (typed) {
    // signs alone are no words: nothing is called that
    and.push(sqlWhere(fn('instr', col('searchText'), typed.toLowerCase()), { [Op.gt]: 0 }));
  }
  return {
    putAsideAt: query.putAside === '1' ? { [Op.ne]: null } : null,
    [Op.and]: and,
  } as WhereOptions;
}

/** One page of the library. */
export async function listMachines(
  db: Database,
  query: ListQuery,
): Promise<{ items: MachineSummary[]; total: number }> {
  const { Machine, MachineTag } = db.models;
  const direction = query.sort.startsWith('-') ? 'DESC' : 'ASC';
  const column = query.sort.replace('-', '');
  const order: Order =
    column === 'maker'
      ? [
          ['maker', direction],
          ['model', direction],
          ['variant', direction],
          ['id', 'ASC'],
        ]
      : [
          [column, direction],
          ['maker', 'ASC'],
          ['model', 'ASC'],
          ['id', 'ASC'],
        ];
  const where = whereOf(db, query);
  // raw rows: a page of model instances takes longer to make than to read
  const [rows, total] = await Promise.all([
    Machine.findAll({
      where,
      order,
      limit: query.pageSize,
      offset: (query.page - 1) * query.pageSize,
      attributes: [...COLUMNS],
      raw: true,
    }),
    Machine.count({ where }),
  ]);
  const tags = rows.length
    ? await MachineTag.findAll({ where: { machineId: rows.map((r) => r.id) }, raw: true })
    : [];
  const byId = new Map<string, string[]>();
  for (const { machineId, tag } of tags) byId.set(machineId, [...(byId.get(machineId) ?? []), tag]);
  const iso = (x: unknown) =>
    x === null || x === undefined ? null : new Date(x as string).toISOString();
  const items = rows.map((r) => {
    const summary = Object.fromEntries(COLUMNS.map((c) => [c, r[c]])) as unknown as MachineSummary;
    return {
      ...summary,
      complete: Boolean(r.complete),
      chamber: Boolean(r.chamber),
      tags: (byId.get(r.id) ?? []).sort(),
      updatedAt: iso(r.updatedAt)!,
      putAsideAt: iso(r.putAsideAt),
    };
  });
  return { items, total };
}

/** What a machine is called. */
export interface Identity {
  maker?: string | undefined;
  model?: string | undefined;
  variant?: string | undefined;
}

/** The only machine in use that is called so; null where there is none, or several, or a part of the name is missing. */
export async function onlyOneNamed(
  db: Database,
  { maker, model, variant }: Identity,
): Promise<MachineRow | null> {
  if (!maker || !model || !variant) return null;
  const same = (column: string, value: string) =>
    sqlWhere(fn('lower', col(column)), value.toLowerCase());
  const rows = await db.models.Machine.findAll({
    where: {
      putAsideAt: null,
      [Op.and]: [same('maker', maker), same('model', model), same('variant', variant)],
    } as never,
    limit: 2,
  });
  return rows.length === 1 ? rows[0]! : null;
}
