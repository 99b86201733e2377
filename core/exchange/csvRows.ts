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

/** More parts of one kind no machine has, nor could a limit name them. */
export const MAX_PARTS = 1000;

/** A record whose parts are changed by rows of a file, one after the other. */
export interface PartEdits {
  /**
   * Takes what a row says; a part that is not there yet is added.
   *
   * @throws Error where the row names no list or no part, or one part too many
   */
  apply(row: Row): void;
  /** The record with all that was taken; the one that was given stays as it is. */
  record(): CaseRecord;
}

/** Begins to change the parts of a record: each is found by its name without looking through the others. */
export function editParts(record: CaseRecord): PartEdits {
  type List = (typeof PART_LISTS)[number];
  const lists = new Map<List, { parts: Json[]; places: Map<unknown, number> }>();
  const listOf = (list: List) => {
    let own = lists.get(list);
    if (!own) {
      const parts = [...((record[list] ?? []) as Json[])];
      own = { parts, places: new Map(parts.map((p, i) => [p['id'], i] as const).reverse()) };
      lists.set(list, own);
    }
    return own;
  };
  return {
    apply(row) {
      const list = PART_LISTS.find((l) => l === row['list']);
      if (!list) throw new Error(`“${(row['list'] ?? '').slice(0, 30)}” is no kind of part`);
      const id = fieldOf(row['part'] ?? '', 'text');
      if (typeof id !== 'string') throw new Error('the row names no part');
      const { parts, places } = listOf(list);
      const place = places.get(id) ?? parts.length;
      if (place >= MAX_PARTS) throw new Error(`a machine has at most ${MAX_PARTS} ${list}`);
      let part: Json = parts[place] ?? { id };
      for (const { path, kind, lists: of, unit } of PART_COLUMNS) {
        if (row[path] === undefined || !of.includes(list)) continue;
        const before = getAt(part, at(path));
        const value = fieldOf(row[path], kind, before, unit);
        if (value !== before) part = setAt(part, at(path), value);
      }
      parts[place] = part;
      places.set(id, place);
    },
    record: () =>
      ({
        ...record,
        ...Object.fromEntries([...lists].map(([list, { parts }]) => [list, [...parts]])),
      }) as CaseRecord,
  };
}

/** A record with what one row of the parts' file says, as {@link editParts}. */
export function applyPartRow(record: CaseRecord, row: Row): CaseRecord {
  const edits = editParts(record);
  edits.apply(row);
  return edits.record();
}
