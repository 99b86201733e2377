import { PART_LISTS } from '../record/partLists';
import { getAt, setAt, type Json } from '../record/plainJson';
import type { CaseRecord } from '../record/recordSchema';
import { cellOf, fieldOf, safeCell } from './cells';
import { MACHINE_COLUMNS, PART_COLUMNS } from './csvColumns';

/** A row of a file, by column. */
export type Row = Record<string, string>;

const at = (path: string) => path.split('.');

/** The row of a machine; `id` is the library's, so that the file finds its way back; `state` names which state of its unit it is. */
export function machineRow(id: string, record: CaseRecord, state = ''): Row {
  const row: Row = { id, state: safeCell(state) };
  for (const { path } of MACHINE_COLUMNS) row[path] = safeCell(cellOf(getAt(record, at(path))));
  return row;
}

/** The rows of a machine's parts. */
export function partRows(id: string, record: CaseRecord): Row[] {
  const name = [record.identity?.maker, record.identity?.model, record.identity?.variant]
    .filter(Boolean)
    .join(' ');
  return PART_LISTS.flatMap((list) =>
    (record[list] ?? []).map((part) => {
      const row: Row = { id, machine: safeCell(name), list, part: safeCell(part.id) };
      for (const { path, lists } of PART_COLUMNS) {
        row[path] = lists.includes(list) ? safeCell(cellOf(getAt(part, at(path)))) : '';
      }
      return row;
    }),
  );
}

/** Columns of the two files, in order. */
export const MACHINE_HEADER = ['id', 'state', ...MACHINE_COLUMNS.map((c) => c.path)];
export const PART_HEADER = ['id', 'machine', 'list', 'part', ...PART_COLUMNS.map((c) => c.path)];

/** Which of the two files a header belongs to; null where it is neither. */
export function fileKind(header: readonly string[]): 'machines' | 'parts' | null {
  if (header.includes('list') && header.includes('part')) return 'parts';
  return header.some((h) => MACHINE_COLUMNS.some((c) => c.path === h)) ? 'machines' : null;
}

/** A record with what a row of the machines' file says; columns that the file does not have stay as they are. */
export function applyMachineRow(record: CaseRecord, row: Row): unknown {
  let next = record as Json;
  for (const { path, kind, unit } of MACHINE_COLUMNS) {
    if (row[path] === undefined) continue;
    const before = getAt(next, at(path));
    const value = fieldOf(row[path], kind, before, unit);
    if (value !== before) next = setAt(next, at(path), value);
  }
  return next;
}

/**
 * A record with what a row of the parts' file says; a part it does not have yet is added.
 *
 * @throws Error where the row names no list or no part
 */
export function applyPartRow(record: CaseRecord, row: Row): unknown {
  const list = PART_LISTS.find((l) => l === row['list']);
  if (!list) throw new Error(`“${(row['list'] ?? '').slice(0, 30)}” is no kind of part`);
  const id = fieldOf(row['part'] ?? '', 'text');
  if (typeof id !== 'string') throw new Error('the row names no part');
  const parts: Json[] = (record[list] ?? []) as Json[];
  const place = parts.findIndex((p) => p['id'] === id);
  let part: Json = place < 0 ? { id } : parts[place]!;
  for (const { path, kind, lists, unit } of PART_COLUMNS) {
    if (row[path] === undefined || !lists.includes(list)) continue;
    const before = getAt(part, at(path));
    const value = fieldOf(row[path], kind, before, unit);
    if (value !== before) part = setAt(part, at(path), value);
  }
  return {
    ...record,
    [list]: place < 0 ? [...parts, part] : parts.map((p, i) => (i === place ? part : p)),
  };
}
