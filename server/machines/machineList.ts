import { col, fn, Op, QueryTypes, where as sqlWhere } from 'sequelize';
import { LIST_CAPS, WATTS_AT, type MachineSummary, type Page } from '@zugluft/core/library/answers';
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
  /** Number of each row by the key under which its words stand in the index. */
  numbers: Map<number, number>;
  columns: Record<Filtered, Float64Array>;
  /** Numbers of the rows in each order asked for. */
  ordered: Map<string, Uint32Array>;
  /** By the words asked for a mark for each row that has them; a search under way serves all who wait for it. */
  found: Map<string, Promise<Uint8Array>>;
  /** Rows as JSON, each made once. */
  texts: Map<string, string>;
  answers: Map<string, string>;
  /** Rows that pass, by all of a query but its order and page. */
  passing: Map<string, Promise<Uint8Array>>;
}

const MAX_ORDERS = 40;
const MAX_FOUND = 100;
const MAX_ANSWERS = 400;

const collator = new Intl.Collator('en', { numeric: true });

function compare(a: unknown, b: unknown): number {
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  return collator.compare(String(a), String(b));
}

/** By a column, machines without a value last, then by name. */
function inOrder(rows: readonly MachineSummary[], sort: string): Uint32Array {
  const column = sort.replace('-', '') as (typeof SORTABLE)[number];
  const sign = sort.startsWith('-') ? -1 : 1;
  const keys = column === 'maker' ? (['maker', 'model', 'variant'] as const) : [column];
  return Uint32Array.from(rows.keys()).sort((i, j) => {
    const [a, b] = [rows[i]!, rows[j]!];
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

/** What is filtered by, as a number of a row; NaN where there is none, which lies in no range. */
const FILTERED = {
  fans: (m: MachineSummary) => m.fans,
  pipes: (m: MachineSummary) => m.pipes,
  massKg: (m: MachineSummary) => m.massKg ?? NaN,
  thicknessMm: (m: MachineSummary) => m.thicknessMm ?? NaN,
  finAreaCm2: (m: MachineSummary) => m.finAreaCm2 ?? NaN,
  togetherAt28W: (m: MachineSummary) => m.togetherAt28W ?? NaN,
  togetherAt32W: (m: MachineSummary) => m.togetherAt32W ?? NaN,
  togetherAt36W: (m: MachineSummary) => m.togetherAt36W ?? NaN,
  togetherAt40W: (m: MachineSummary) => m.togetherAt40W ?? NaN,
  togetherAt45W: (m: MachineSummary) => m.togetherAt45W ?? NaN,
  togetherFullW: (m: MachineSummary) => m.togetherFullW ?? NaN,
  chamber: (m: MachineSummary) => Number(m.chamber),
  aside: (m: MachineSummary) => Number(m.putAsideAt !== null),
};
type Filtered = keyof typeof FILTERED;

function columnsOf(rows: readonly MachineSummary[]): Record<Filtered, Float64Array> {
  return Object.fromEntries(
    Object.entries(FILTERED).map(([column, of]) => [column, Float64Array.from(rows, of)]),
  ) as Record<Filtered, Float64Array>;
}

/**
 * A mark for each row that passes the filters.
 *
 * @param wanted marks of the rows that have the words, or null where none were typed
 */
function marksOf(
  query: ListQuery,
  { rows, columns }: Loaded,
  wanted: Uint8Array | null,
): Uint8Array {
  const marks = wanted ? wanted.slice() : new Uint8Array(rows.length).fill(1);
  // column by column: a plain loop over numbers is what runs fastest
  const range = (column: Filtered, min = -Infinity, max = Infinity) => {
    if (min === -Infinity && max === Infinity) return;
    const values = columns[column];
    for (let i = 0; i < marks.length; i++)
      if (!(values[i]! >= min && values[i]! <= max)) marks[i] = 0;
  };
  const exactly = (column: Filtered, value: number) => range(column, value, value);
  exactly('aside', Number(query.putAside));
  range('fans', query.fansMin, query.fansMax);
  range('pipes', query.pipesMin, query.pipesMax);
  range('massKg', query.massMin, query.massMax);
  range('thicknessMm', query.thicknessMin, query.thicknessMax);
  range('finAreaCm2', query.finAreaMin, query.finAreaMax);
  range(WATTS_AT[query.cap], query.wattsMin, query.wattsMax);
  if (query.chamber !== undefined) exactly('chamber', Number(query.chamber));
  const tag = query.tag?.toLowerCase();
  if (tag !== undefined) {
    for (let i = 0; i < marks.length; i++) if (!rows[i]!.tags.includes(tag)) marks[i] = 0;
  }
  return marks;
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
    const listed = rows.map((r) => ({
      ...(Object.fromEntries(COLUMNS.map((c) => [c, r[c]])) as unknown as MachineSummary),
      complete: Boolean(r.complete),
      chamber: Boolean(r.chamber),
      tags: byId.get(r.id) ?? [],
      updatedAt: iso(r.updatedAt)!,
      putAsideAt: iso(r.putAsideAt),
    }));
    const numberOf = new Map(listed.map((m, i) => [m.id, i]));
    const keys = await db.sequelize.query<{ key: number; machineId: string }>(
      'SELECT key, machineId FROM search_keys',
      { type: QueryTypes.SELECT },
    );
    loaded = {
      changes,
      rows: listed,
      numbers: new Map(keys.map((k) => [k.key, numberOf.get(k.machineId) ?? -1])),
      columns: columnsOf(listed),
      ordered: new Map(),
      found: new Map(),
      texts: new Map(),
      answers: new Map(),
      passing: new Map(),
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

  /** A mark for each row that has all the words; null where none were typed. */
  const search = (typed: string, within: Loaded): Promise<Uint8Array> | null => {
    if (typed === '') return null;
    const known = within.found.get(typed);
    if (known) return known;
    const looking = lookFor(typed, within);
    // one that failed is not kept
    looking.catch(() => within.found.delete(typed));
    return remember(within.found, typed, looking, MAX_FOUND);
  };

  const lookFor = async (typed: string, { rows: all, numbers }: Loaded): Promise<Uint8Array> => {
    const match = matchOf(typed);
    // all keys in one cell: a row each takes longer to hand over than to find
    const [found] = match
      ? await db.sequelize.query<{ keys: string | null }>(
          'SELECT group_concat(rowid) AS keys FROM machine_words WHERE machine_words MATCH ?',
          { replacements: [match], type: QueryTypes.SELECT },
        )
      : // signs alone are no words; they are looked for as they stand
        await db.sequelize.query<{ keys: string | null }>(
          'SELECT group_concat(k.key) AS keys FROM search_keys k JOIN machines m ON m.id = k.machineId WHERE instr(m.searchText, ?) > 0',
          { replacements: [typed.toLowerCase()], type: QueryTypes.SELECT },
        );
    const marks = new Uint8Array(all.length);
    for (const key of found?.keys?.split(',') ?? []) {
      // written since: the next one who asks sees it
      const i = numbers.get(Number(key)) ?? -1;
      if (i >= 0) marks[i] = 1;
    }
    return marks;
  };

  const passing = async (query: ListQuery, now: Loaded): Promise<Uint8Array> => {
    try {
      return marksOf(query, now, await search(query.q.trim(), now));
    } catch (cause) {
      // one that failed is not kept
      now.passing.clear();
      throw cause;
    }
  };

  const page = async (query: ListQuery, now: Loaded) => {
    const { page: _, pageSize: __, sort: ___, ...filters } = query;
    const key = JSON.stringify(filters);
    const marks = await (now.passing.get(key) ??
      remember(now.passing, key, passing(query, now), MAX_FOUND));
    const ordered =
      now.ordered.get(query.sort) ??
      remember(now.ordered, query.sort, inOrder(now.rows, query.sort), MAX_ORDERS);
    const from = (query.page - 1) * query.pageSize;
    const items: MachineSummary[] = [];
    let total = 0;
    for (let k = 0; k < ordered.length; k++) {
      const i = ordered[k]!;
      if (!marks[i]) continue;
      if (total >= from && total < from + query.pageSize) items.push(now.rows[i]!);
      total++;
    }
    return { items, total };
  };

  return {
    /** One page of the library. */
    async list(query: ListQuery): Promise<{ items: MachineSummary[]; total: number }> {
      return page(query, await current());
    },

    /**
     * The same as JSON, made once for all who ask before the next write.
     *
     * @param asked the query as it came, by which the answer is remembered
     * @param read makes the query of it
     */
    async listJson(asked: string, read: () => ListQuery): Promise<string> {
      const now = await current();
      const known = now.answers.get(asked);
      if (known !== undefined) return known;
      const query = read();
      const { items, total } = await page(query, now);
      const rows = items.map((m) => {
        const text = now.texts.get(m.id) ?? JSON.stringify(m);
        now.texts.set(m.id, text);
        return text;
      });
      const rest: Omit<Page<MachineSummary>, 'items'> = {
        total,
        page: query.page,
        pageSize: query.pageSize,
      };
      // the same as JSON.stringify of the whole page
      const answer = `{"items":[${rows.join(',')}],${JSON.stringify(rest).slice(1)}`;
      return remember(now.answers, asked, answer, MAX_ANSWERS);
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
