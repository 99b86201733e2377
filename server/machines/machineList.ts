import { wattsColumns, type MachinePage, type MachineSummary } from '@zugluft/core/library/answers';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { MachineRow } from '../database/models';
import type { Database } from '../database/openDatabase';
import type { Touched } from '../database/writeQueue';
import type { WattsKeeper } from '../derived/wattsKeeper';
import { fairTurns } from './fairTurns';
import { createListIndex, type ListIndex } from './listIndex';
import { capOfSort, matchOf, type ListQuery } from './listQuery';
import { nameKey } from './nameKey';

/** Columns that a summary takes as they are. */
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
  'updatedAt',
  'putAsideAt',
] as const;

const ROWS = `SELECT ${[...COLUMNS, 'watts', 'wattsBy', 'calibration'].join(', ')} FROM machines WHERE id IN (SELECT value FROM json_each($ids))`;

const TAGS =
  'SELECT machineId, tag FROM machine_tags WHERE machineId IN (SELECT value FROM json_each($ids))';
const WORD_KEYS =
  'SELECT key, machineId FROM search_keys WHERE machineId IN (SELECT value FROM json_each($ids))';

const START = Buffer.from('{"items":[');

/** Lists that are answered between two looks at what the database has done. */
const LISTS_PER_TURN = 2;
/** A list waits for writes at most so long. */
const MAX_WAIT_MS = 35;
/** Rows that are made into summaries before anybody else has a turn. */
const AT_ONCE = 100;

const iso = (x: unknown) =>
  x === null || x === undefined ? null : new Date(x as string).toISOString();

export type MachineList = ReturnType<typeof createMachineList>;

/**
 * The library as it is listed. Its rows are short, so that all of them stay in memory; a write reads anew only those it
 * touched. Words are searched for in the database.
 *
 * @param db an open library
 * @param watts what is computed for each machine, and whether it still holds
 */
export function createMachineList(db: Database, watts: WattsKeeper) {
  // while somebody writes, what he waits for comes first
  const turn = fairTurns({
    perTurn: LISTS_PER_TURN,
    busy: () => db.queued() > 0,
    maxWaitMs: MAX_WAIT_MS,
  });
  let loading: Promise<ListIndex> | null = null;
  /** Key of each machine's words in the index of words, to the row's place. */
  const wordKeys = new Map<number, string>();

  const summaryOf = (row: MachineRow, tags: string[]): MachineSummary => {
    const now = watts.of(row);
    return {
      ...(Object.fromEntries(COLUMNS.map((c) => [c, row[c]])) as unknown as MachineSummary),
      ...wattsColumns(watts.caps(), now.at),
      complete: Boolean(row.complete),
      chamber: Boolean(row.chamber),
      wattsPending: now.pending,
      tags,
      updatedAt: iso(row.updatedAt)!,
      putAsideAt: iso(row.putAsideAt),
    };
  };

  const readSome = async (index: ListIndex, ids: readonly string[], touched?: Touched) => {
    const list = JSON.stringify(ids);
    // as SQL: model instances take longer to make than to read
    const rows = await db.read<MachineRow>(ROWS, { ids: list });
    const byId = new Map<string, string[]>();
    // only a write that is known to have changed neither tags nor words keeps those that stand here
    const known = ids.every((id) => touched?.get(id) === 'figures');
    if (known) for (const id of ids) byId.set(id, index.rows[index.placeOf(id)!]?.tags ?? []);
    else {
      const tags = await db.read<{ machineId: string; tag: string }>(TAGS, { ids: list });
      for (const { machineId, tag } of tags) {
        byId.set(machineId, [...(byId.get(machineId) ?? []), tag].sort());
      }
    }
    const fresh = rows.filter((r) => index.placeOf(r.id) === undefined);
    if (fresh.length) await readWordKeys(fresh.map((r) => r.id));
    for (const row of rows) {
      watts.note(row);
      index.put(summaryOf(row, byId.get(row.id) ?? []), touched?.get(row.id) === 'words');
    }
  };

  const readInto = async (index: ListIndex, ids: readonly string[], touched?: Touched) => {
    for (let k = 0; k < ids.length; k += AT_ONCE) {
      await readSome(index, ids.slice(k, k + AT_ONCE), touched);
    }
  };

  const readWordKeys = async (ids: readonly string[]) => {
    const keys = await db.read<{ key: number; machineId: string }>(WORD_KEYS, {
      ids: JSON.stringify(ids),
    });
    for (const { key, machineId } of keys) wordKeys.set(key, machineId);
  };

  const load = async (): Promise<ListIndex> => {
    await watts.ready();
    const index = createListIndex();
    const [all] = await db.read<{ ids: string }>(
      'SELECT json_group_array(id) AS ids FROM machines',
    );
    await readInto(index, JSON.parse(all!.ids) as string[]);
    return index;
  };

  const current = (): Promise<ListIndex> => {
    loading ??= load().catch((cause: unknown) => {
      loading = null;
      throw cause;
    });
    return loading;
  };

  db.onTouched(async (touched) => {
    if (!loading) return;
    await readInto(await loading, [...touched.keys()], touched);
  });
  watts.onChange(async (kind) => {
    const index = loading && (await loading);
    if (!index) return;
    if (kind === 'count') index.forget();
    // other caps: rows have other columns
    else {
      index.reshape((row) => {
        const kept = Object.fromEntries(
          Object.entries(row).filter(([key]) => !key.startsWith('together')),
        ) as unknown as MachineSummary;
        const now = watts.ofMachine(row.id);
        return {
          ...kept,
          ...wattsColumns(watts.caps(), now.at),
          wattsPending: now.pending,
        };
      });
    }
  });

  const lookFor = async (typed: string, index: ListIndex): Promise<Uint8Array> => {
    const match = matchOf(typed);
    // all keys in one cell: a row each takes longer to hand over than to find
    const [found] = match
      ? await db.read<{ keys: string | null }>(
          'SELECT group_concat(rowid) AS keys FROM machine_words WHERE machine_words MATCH $match',
          { match },
        )
      : // signs alone are no words; they are looked for as they stand
        await db.read<{ keys: string | null }>(
          'SELECT group_concat(k.key) AS keys FROM search_keys k JOIN machines m ON m.id = k.machineId WHERE instr(m.searchText, $typed) > 0',
          { typed: typed.toLowerCase() },
        );
    const marks = new Uint8Array(index.rows.length);
    for (const key of found?.keys?.split(',') ?? []) {
      // written since: the next one who asks sees it
      const i = index.placeOf(wordKeys.get(Number(key)) ?? '') ?? -1;
      if (i >= 0) marks[i] = 1;
    }
    return marks;
  };

  const page = async (query: ListQuery, index: ListIndex) => {
    const cap = query.cap ?? watts.middle();
    const { page: _, pageSize: __, sort, ...filters } = query;
    // a cap that is no one's yet is computed from now on
    for (const asked of [query.cap, capOfSort(sort)]) {
      if (asked !== undefined && asked !== null) watts.want(asked);
    }
    const typed = query.q.trim();
    const marks = await index.passing(JSON.stringify({ ...filters, cap }), async () => {
      const words = typed === '' ? null : await index.search(typed, () => lookFor(typed, index));
      return index.marks(query, cap, words);
    });
    return index.page(query, marks);
  };

  return {
    /** Reads all rows, as the first who asks would. */
    async load(): Promise<void> {
      await current();
    },

    /** All rows, those put aside too. */
    async rows(): Promise<readonly MachineSummary[]> {
      return (await current()).rows;
    },

    /** One page of the library. */
    async list(query: ListQuery): Promise<{ items: MachineSummary[]; total: number }> {
      const index = await current();
      const { places, total } = await page(query, index);
      return { items: places.map((i) => index.rows[i]!), total };
    },

    /**
     * The same as JSON in UTF-8, made once for all who ask before the next write.
     *
     * @param asked the query as it came, by which the answer is remembered
     * @param read makes the query of it
     */
    async listJson(asked: string, read: () => ListQuery): Promise<Buffer> {
      await turn();
      const index = await current();
      const known = index.answer(asked);
      if (known !== undefined) return known;
      const query = read();
      const { places, total } = await page(query, index);
      const rest: Omit<MachinePage, 'items'> = {
        total,
        page: query.page,
        pageSize: query.pageSize,
        caps: watts.caps() as Cap[],
        pending: watts.pending(),
      };
      // the same as JSON.stringify of the whole page; rows are kept as bytes, so that they are only copied
      const texts = places.map((i) => index.text(i));
      const last = texts.length - 1;
      if (last >= 0) texts[last] = texts[last]!.subarray(0, -1);
      const parts = [START, ...texts, Buffer.from(`],${JSON.stringify(rest).slice(1)}`)];
      return index.keepAnswer(asked, Buffer.concat(parts));
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
  const rows = await db.models.Machine.findAll({
    where: {
      putAsideAt: null,
      makerKey: nameKey(maker),
      modelKey: nameKey(model),
      variantKey: nameKey(variant),
    },
    limit: 2,
  });
  return rows.length === 1 ? rows[0]! : null;
}
