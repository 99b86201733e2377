import { col, fn, Op, QueryTypes, where as sqlWhere } from 'sequelize';
import {
  LIST_CAPS,
  WATTS_AT,
  type MachineSummary,
  type Page,
  type WattsColumn,
} from '@zugluft/core/library/answers';
import { z } from 'zod';
import type { MachineRow } from '../database/models';
import type { Database } from '../database/openDatabase';

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
  cap: z.enum(LIST_CAPS).default('36'),
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

/** Every row of the library as it is listed, in memory, with the orders in which it was asked for. */
interface Loaded {
  changes: number;
  rows: MachineSummary[];
  ordered: Map<string, MachineSummary[]>;
  found: Map<string, ReadonlySet<string>>;
  answers: Map<string, string>;
}

const MOST_ORDERS = 40;
const MOST_FOUND = 100;
const MOST_ANSWERS = 200;

const collator = new Intl.Collator('en', { numeric: true });

function compare(a: unknown, b: unknown): number {
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  return collator.compare(String(a), String(b));
}

/** By a column, machines without a value last, then by name. */
function inOrder(rows: readonly MachineSummary[], sort: string): MachineSummary[] {
  const column = sort.replace('-', '') as (typeof SORTABLE)[number];
  const sign = sort.startsWith('-') ? -1 : 1;
  const keys = column === 'maker' ? (['maker', 'model', 'variant'] as const) : [column];
  return [...rows].sort((a, b) => {
    for (const key of keys) {
      const [x, y] = [a[key], b[key]];
      if (x === null || y === null) {
        if (x !== y) return x === null ? 1 : -1;
        continue;
      }
      const by = compare(x, y);
      if (by !== 0) return sign * by;
    }
    return (
      compare(a.maker, b.maker) ||
      compare(a.model, b.model) ||
      (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)
    );
  });
}

/** Says of a row whether it passes the filters. */
function filterOf(query: ListQuery): (m: MachineSummary) => boolean {
  const tests: ((m: MachineSummary) => boolean)[] = [];
  const range = (
    column: 'fans' | 'pipes' | 'massKg' | 'thicknessMm' | 'finAreaCm2' | WattsColumn,
    min: number | undefined,
    max: number | undefined,
  ) => {
    if (min === undefined && max === undefined) return;
    tests.push((m) => {
      const value = m[column];
      return value !== null && value >= (min ?? -Infinity) && value <= (max ?? Infinity);
    });
  };
  range('fans', query.fansMin, query.fansMax);
  range('pipes', query.pipesMin, query.pipesMax);
  range('massKg', query.massMin, query.massMax);
  range('thicknessMm', query.thicknessMin, query.thicknessMax);
  range('finAreaCm2', query.finAreaMin, query.finAreaMax);
  range(WATTS_AT[query.cap], query.wattsMin, query.wattsMax);
  const { chamber } = query;
  if (chamber !== undefined) tests.push((m) => m.chamber === (chamber === '1'));
  const tag = query.tag?.toLowerCase();
  if (tag !== undefined) tests.push((m) => m.tags.includes(tag));
  const aside = query.putAside === '1';
  return (m) => (m.putAsideAt !== null) === aside && tests.every((t) => t(m));
}

function remember<T>(map: Map<string, T>, key: string, value: T, most: number): T {
  if (map.size >= most) map.delete(map.keys().next().value!);
  map.set(key, value);
  return value;
}

export type MachineList = ReturnType<typeof createMachineList>;

/**
 * The library as it is listed. Its rows are short, so that all of them stay in memory and are read anew after a write; words
 * are searched for in the database.
 *
 * @param db an open library
 */
export function createMachineList(db: Database) {
  const { Machine, MachineTag } = db.models;
  let loaded: Loaded | null = null;
  let loading: Promise<Loaded> | null = null;

  const load = async (): Promise<Loaded> => {
    const changes = db.changes();
    const iso = (x: unknown) =>
      x === null || x === undefined ? null : new Date(x as string).toISOString();
    // raw rows: model instances take longer to make than to read
    const rows = await Machine.findAll({ attributes: [...COLUMNS], raw: true });
    const tags = await MachineTag.findAll({ raw: true });
    const byId = new Map<string, string[]>();
    for (const { machineId, tag } of tags) {
      byId.set(machineId, [...(byId.get(machineId) ?? []), tag].sort());
    }
    loaded = {
      changes,
      rows: rows.map((r) => ({
        ...(Object.fromEntries(COLUMNS.map((c) => [c, r[c]])) as unknown as MachineSummary),
        complete: Boolean(r.complete),
        chamber: Boolean(r.chamber),
        tags: byId.get(r.id) ?? [],
        updatedAt: iso(r.updatedAt)!,
        putAsideAt: iso(r.putAsideAt),
      })),
      ordered: new Map(),
      found: new Map(),
      answers: new Map(),
    };
    return loaded;
  };

  const current = async (): Promise<Loaded> => {
    if (loaded && loaded.changes === db.changes()) return loaded;
    loading ??= load().finally(() => {
      loading = null;
    });
    const now = await loading;
    return now.changes === db.changes() ? now : load();
  };

  /** Ids of the machines that have all the words; null where none were typed. */
  const search = async (typed: string, within: Loaded): Promise<ReadonlySet<string> | null> => {
    if (typed === '') return null;
    const known = within.found.get(typed);
    if (known) return known;
    const match = matchOf(typed);
    const rows = match
      ? await db.sequelize.query<{ id: string }>(
          'SELECT k.machineId AS id FROM machine_words w JOIN search_keys k ON k.key = w.rowid WHERE machine_words MATCH ?',
          { replacements: [match], type: QueryTypes.SELECT },
        )
      : // signs alone are no words; they are looked for as they stand
        await db.sequelize.query<{ id: string }>(
          'SELECT id FROM machines WHERE instr(searchText, ?) > 0',
          { replacements: [typed.toLowerCase()], type: QueryTypes.SELECT },
        );
    return remember(within.found, typed, new Set(rows.map((r) => r.id)), MOST_FOUND);
  };

  const page = async (query: ListQuery, now: Loaded) => {
    const wanted = await search(query.q.trim(), now);
    const ordered =
      now.ordered.get(query.sort) ??
      remember(now.ordered, query.sort, inOrder(now.rows, query.sort), MOST_ORDERS);
    const passes = filterOf(query);
    const all = ordered.filter((m) => (wanted === null || wanted.has(m.id)) && passes(m));
    const from = (query.page - 1) * query.pageSize;
    return { items: all.slice(from, from + query.pageSize), total: all.length };
  };

  return {
    /** One page of the library. */
    async list(query: ListQuery): Promise<{ items: MachineSummary[]; total: number }> {
      return page(query, await current());
    },

    /** The same as JSON, made once for all who ask before the next write. */
    async listJson(query: ListQuery): Promise<string> {
      const now = await current();
      const key = JSON.stringify(query);
      const known = now.answers.get(key);
      if (known !== undefined) return known;
      const { items, total } = await page(query, now);
      const answer: Page<MachineSummary> = {
        items,
        total,
        page: query.page,
        pageSize: query.pageSize,
      };
      return remember(now.answers, key, JSON.stringify(answer), MOST_ANSWERS);
    },
  };
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
