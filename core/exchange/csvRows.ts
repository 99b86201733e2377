import type { Json } from '../family/splitCase';
import type { CaseRecord } from '../record/recordSchema';
import { cellOf, fieldOf, safeCell } from './cells';
import { CSV_LISTS, MACHINE_COLUMNS, PART_COLUMNS, type CsvList } from './csvColumns';

/** A row of a file, by column. */
export type Row = Record<string, string>;

const isObject = (x: unknown): x is Json =>
  typeof x === 'object' && x !== null && !Array.isArray(x);

function get(record: unknown, path: string): unknown {
  let at: unknown = record;
  for (const key of path.split('.')) at = isObject(at) ? at[key] : undefined;
  return at;
}

/** A copy with a field set; undefined takes it away. */
function set(record: Json, path: string, value: unknown): Json {
  const [key, ...rest] = path.split('.') as [string, ...string[]];
  const copy = { ...record };
  if (rest.length) {
    const inside = set(isObject(copy[key]) ? copy[key] : {}, rest.join('.'), value);
    if (Object.keys(inside).length || isObject(copy[key])) copy[key] = inside;
  } else if (value === undefined) delete copy[key];
  else copy[key] = value;
  return copy;
}

/** The row of a machine; `id` is the library's, so that the file finds its way back. */
export function machineRow(id: string, record: CaseRecord): Row {
  const row: Row = { id };
  for (const { path } of MACHINE_COLUMNS) row[path] = safeCell(cellOf(get(record, path)));
  return row;
}

/** The rows of a machine's parts. */
export function partRows(id: string, record: CaseRecord): Row[] {
  const name = [record.identity?.maker, record.identity?.model, record.identity?.variant]
    .filter(Boolean)
    .join(' ');
  return CSV_LISTS.flatMap((list) =>
    (record[list] ?? []).map((part) => {
      const row: Row = { id, machine: safeCell(name), list, part: safeCell(part.id) };
      for (const { path, lists } of PART_COLUMNS) {
        row[path] = lists.includes(list) ? safeCell(cellOf(get(part, path))) : '';
      }
      return row;
    }),
  );
}

/** Columns of the two files, in order. */
export const MACHINE_HEADER = ['id', ...MACHINE_COLUMNS.map((c) => c.path)];
export const PART_HEADER = ['id', 'machine', 'list', 'part', ...PART_COLUMNS.map((c) => c.path)];

/** Which of the two files a header belongs to; null where it is neither. */
export function fileKind(header: readonly string[]): 'machines' | 'parts' | null {
  if (header.includes('list') && header.includes('part')) return 'parts';
  return header.some((h) => MACHINE_COLUMNS.some((c) => c.path === h)) ? 'machines' : null;
}

/** A record with what a row of the machines' file says; columns that the file does not have stay as they are. */
export function applyMachineRow(record: CaseRecord, row: Row): unknown {
  let next = record as Json;
  for (const { path, kind } of MACHINE_COLUMNS) {
    if (row[path] === undefined) continue;
    const before = get(next, path);
    const value = fieldOf(row[path], kind, before);
    if (value !== before) next = set(next, path, value);
  }
  return next;
}

/**
 * A record with what a row of the parts' file says; a part it does not have yet is added.
 *
 * @throws Error where the row names no list or no part
 */
export function applyPartRow(record: CaseRecord, row: Row): unknown {
  const list = CSV_LISTS.find((l) => l === row['list']);
  if (!list) throw new Error(`“${(row['list'] ?? '').slice(0, 30)}” is no kind of part`);
  const id = fieldOf(row['part'] ?? '', 'text');
  if (typeof id !== 'string') throw new Error('the row names no part');
  const parts: Json[] = (record[list] ?? []) as Json[];
  const at = parts.findIndex((p) => p['id'] === id);
  let part: Json = at < 0 ? { id } : parts[at]!;
  for (const { path, kind, lists } of PART_COLUMNS) {
    if (row[path] === undefined || !lists.includes(list as CsvList)) continue;
    const before = get(part, path);
    const value =
      kind === 'along' && cellOf(before) === row[path] ? before : fieldOf(row[path], kind, before);
    if (value !== before) part = set(part, path, value);
  }
  return {
    ...record,
    [list]: at < 0 ? [...parts, part] : parts.map((p, i) => (i === at ? part : p)),
  };
}
