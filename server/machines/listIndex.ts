import type { Cap } from '@zugluft/core/envelope/fanStates';
import { wattsColumn, type MachineSummary } from '@zugluft/core/library/answers';
import { quietColumn, valueInColumn, wattsOfQuietColumn } from '@zugluft/core/library/quietFor';
import type { ListQuery, SORTABLE } from './listQuery';

const MAX_ORDERS = 40;
/** Louder than any machine: only those that never reach the watts are left out. */
const MAX_LEVEL_DBA = 200;
const MAX_FOUND = 100;
const MAX_ANSWERS = 400;

/** Longest number in a name that is sorted by its value. */
const DIGITS = 12;
const sortKeys = new Map<string, string>();
const MAX_KEYS = 100_000;

/** What a text is sorted by: without case and accents, numbers by their value. Made once for each text. */
export function sortKey(text: string): string {
  const known = sortKeys.get(text);
  if (known !== undefined) return known;
  const key = text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/\d+/g, (digits) => digits.padStart(DIGITS, '0'));
  if (sortKeys.size >= MAX_KEYS) sortKeys.clear();
  sortKeys.set(text, key);
  return key;
}

/** What a row is sorted by in a column: a number, a text that sorts, or null where there is none. */
type SortValue = number | string | null;

function sortValue(row: MachineSummary, column: string): SortValue {
  const value = valueInColumn(row, column);
  if (value === null || typeof value === 'number') return value;
  return sortKey(String(value));
}

type Key = keyof MachineSummary;
const NAME: readonly Key[] = ['maker', 'model', 'variant'];

/** The columns an order goes by, those that break ties last. */
function keysOf(sort: string): Key[] {
  const column = sort.replace('-', '') as (typeof SORTABLE)[number];
  return column === 'maker' ? [...NAME] : [column as Key, 'maker', 'model'];
}

/** A row as it is sorted: its value in each column the order goes by, and what tells it from all others. */
interface Sorted {
  values: readonly SortValue[];
  id: string;
}
const sortedOf = (row: MachineSummary, keys: readonly Key[]): Sorted => ({
  values: keys.map((key) => sortValue(row, key)),
  id: row.id,
});

/** By a column, machines without a value last, then by name. */
function comparator(sort: string): (a: Sorted, b: Sorted) => number {
  const sign = sort.startsWith('-') ? -1 : 1;
  const keys = keysOf(sort).length;
  const own = sort.replace('-', '') === 'maker' ? keys : 1;
  return (a, b) => {
    for (let k = 0; k < keys; k++) {
      const x = a.values[k]!;
      const y = b.values[k]!;
      if (x === y) continue;
      if (x === null || y === null) return x === null ? 1 : -1;
      return (k < own ? sign : 1) * (x < y ? -1 : 1);
    }
    return a.id < b.id ? -1 : a.id > b.id ? 1 : 0;
  };
}

/** What is filtered by, as a number of a row; NaN where there is none, which lies in no range. */
const NUMBERS: Record<string, (m: MachineSummary) => number> = {
  chamber: (m) => Number(m.chamber),
  aside: (m) => Number(m.putAsideAt !== null),
};
const numberOf = (column: string) =>
  NUMBERS[column] ?? ((m: MachineSummary) => (valueInColumn(m, column) as number | null) ?? NaN);

function remember<T>(map: Map<string, T>, key: string, value: T, most: number): T {
  if (map.size >= most) map.delete(map.keys().next().value!);
  map.set(key, value);
  return value;
}

export type ListIndex = ReturnType<typeof createListIndex>;

/**
 * All rows of the library in memory, with the orders, columns and answers that were asked for. A write changes the rows it
 * touched and nothing else.
 */
export function createListIndex() {
  const rows: MachineSummary[] = [];
  const places = new Map<string, number>();
  const columns = new Map<string, Float64Array>();
  const ordered = new Map<string, number[]>();
  const found = new Map<string, Promise<Uint8Array>>();
  const passing = new Map<string, Promise<Uint8Array>>();
  const answers = new Map<string, Buffer>();
  let texts: (Buffer | null)[] = [];

  const column = (name: string): Float64Array => {
    const known = columns.get(name);
    if (known) return known;
    // with room for those to come
    const values = new Float64Array(Math.max(64, 2 * rows.length)).fill(NaN);
    const of = numberOf(name);
    rows.forEach((r, i) => (values[i] = of(r)));
    // one for any watts that somebody types would be too many
    if (wattsOfQuietColumn(name) === null) columns.set(name, values);
    return values;
  };

  const order = (sort: string): readonly number[] => {
    const known = ordered.get(sort);
    if (known) return known;
    const by = comparator(sort);
    const keys = keysOf(sort);
    // each value is made once, not with each comparison: a least level is computed
    const sorted = rows.map((row) => sortedOf(row, keys));
    const list = [...rows.keys()].sort((i, j) => by(sorted[i]!, sorted[j]!));
    return remember(ordered, sort, list, MAX_ORDERS);
  };

  /** Takes a row to its place in an order in which all others stand right. */
  const settle = (list: number[], sort: string, i: number) => {
    const by = comparator(sort);
    const keys = keysOf(sort);
    const own = sortedOf(rows[i]!, keys);
    let lo = 0;
    let hi = list.length;
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if (by(sortedOf(rows[list[mid]!]!, keys), own) < 0) lo = mid + 1;
      else hi = mid;
    }
    list.splice(lo, 0, i);
  };

  const forget = () => {
    passing.clear();
    answers.clear();
  };

  return {
    rows: rows as readonly MachineSummary[],
    placeOf: (id: string) => places.get(id),

    /** Puts a row in, or another one in its place. */
    put(row: MachineSummary, words: boolean): void {
      forget();
      const at = places.get(row.id);
      if (words || at === undefined) found.clear();
      const i = at ?? rows.length;
      const before = rows[i];
      rows[i] = row;
      texts[i] = null;
      places.set(row.id, i);
      for (const [name, values] of columns) {
        if (i >= values.length) columns.delete(name);
        else values[i] = numberOf(name)(row);
      }
      for (const [sort, list] of ordered) {
        if (before && keysOf(sort).every((k) => valueInColumn(before, k) === valueInColumn(row, k)))
          continue;
        if (before) list.splice(list.indexOf(i), 1);
        settle(list, sort, i);
      }
    },

    /** Rows have other columns from now on. */
    reshape(make: (row: MachineSummary) => MachineSummary): void {
      forget();
      columns.clear();
      ordered.clear();
      texts = [];
      rows.forEach((r, i) => (rows[i] = make(r)));
    },

    /** What else an answer holds has changed. */
    forget,

    /**
     * A mark for each row that passes the filters.
     *
     * @param cap whose watts are bounded
     * @param wanted marks of the rows that have the words, or null where none were typed
     */
    marks(query: ListQuery, cap: Cap, wanted: Uint8Array | null): Uint8Array {
      const marks = wanted ? wanted.slice(0, rows.length) : new Uint8Array(rows.length).fill(1);
      // column by column: a plain loop over numbers is what runs fastest
      const range = (name: string, min = -Infinity, max = Infinity) => {
        if (min === -Infinity && max === Infinity) return;
        const values = column(name);
        for (let i = 0; i < marks.length; i++) {
          if (!(values[i]! >= min && values[i]! <= max)) marks[i] = 0;
        }
      };
      const exactly = (name: string, value: number) => range(name, value, value);
      exactly('aside', Number(query.putAside));
      range('fans', query.fansMin, query.fansMax);
      range('pipes', query.pipesMin, query.pipesMax);
      range('massKg', query.massMin, query.massMax);
      range('thicknessMm', query.thicknessMin, query.thicknessMax);
      range('finAreaCm2', query.finAreaMin, query.finAreaMax);
      range(wattsColumn(cap), query.wattsMin, query.wattsMax);
      if (query.needW) range(quietColumn(query.needW), -Infinity, query.levelMax ?? MAX_LEVEL_DBA);
      if (query.chamber !== undefined) exactly('chamber', Number(query.chamber));
      const tag = query.tag?.toLowerCase();
      if (tag !== undefined) {
        for (let i = 0; i < marks.length; i++) if (!rows[i]!.tags.includes(tag)) marks[i] = 0;
      }
      return marks;
    },

    /** One page of the rows that are marked, in order. */
    page(query: ListQuery, marks: Uint8Array): { places: number[]; total: number } {
      const list = order(query.sort);
      const from = (query.page - 1) * query.pageSize;
      const out: number[] = [];
      let total = 0;
      for (let k = 0; k < list.length; k++) {
        const i = list[k]!;
        if (!marks[i]) continue;
        if (total >= from && total < from + query.pageSize) out.push(i);
        total++;
      }
      return { places: out, total };
    },

    /** A row as JSON with the comma after it, made once. */
    text: (i: number): Buffer => (texts[i] ??= Buffer.from(`${JSON.stringify(rows[i])},`)),

    /** Marks of a search, one under way serving all who wait for it; one that failed is not kept. */
    search(typed: string, look: () => Promise<Uint8Array>): Promise<Uint8Array> {
      const known = found.get(typed);
      if (known) return known;
      const looking = look();
      looking.catch(() => found.delete(typed));
      return remember(found, typed, looking, MAX_FOUND);
    },

    /** Marks of all filters together, remembered by them. */
    passing(key: string, make: () => Promise<Uint8Array>): Promise<Uint8Array> {
      const known = passing.get(key);
      if (known) return known;
      const making = make();
      making.catch(() => passing.delete(key));
      return remember(passing, key, making, MAX_FOUND);
    },

    answer: (asked: string) => answers.get(asked),
    keepAnswer: (asked: string, text: Buffer) => remember(answers, asked, text, MAX_ANSWERS),
  };
}
