import type { FieldMeta } from '../record/field';
import { fieldsOfMachine, fieldsOfPart } from '../record/fieldTable';
import { PART_LISTS, type PartListName } from '../record/partLists';
import type { CellKind } from './cells';

export interface CsvColumn {
  /** Path inside the record or part, such as `shell.widthMm` or `interface.kind`. */
  path: string;
  kind: CellKind;
  /** Unit of a figure as the reader of figures names it. */
  unit?: string;
}

const CELL: Readonly<Record<FieldMeta['holds'], CellKind>> = {
  figure: 'figure',
  text: 'text',
  choice: 'text',
  switch: 'switch',
  names: 'ids',
  along: 'along',
};

/** Names as keys of an object stand in no cell. */
const fits = (f: FieldMeta) => f.refersTo?.as !== 'keys';

const unitOf = ({ unit }: FieldMeta) =>
  unit === '' ? {} : { unit: unit === '0–1' ? 'share' : unit };

/** One row per machine: what stands once in a record. */
export const MACHINE_COLUMNS: readonly CsvColumn[] = fieldsOfMachine()
  .filter(fits)
  .map((f) => ({ path: f.at, kind: CELL[f.holds], ...unitOf(f) }));

/** One row per part: every field that any kind of part has; a kind leaves the others' empty. */
export const PART_COLUMNS: readonly (CsvColumn & { lists: readonly PartListName[] })[] = (() => {
  const columns = new Map<string, CsvColumn & { lists: PartListName[] }>();
  for (const list of PART_LISTS) {
    // what stands in lists of its own within a part fits no row
    for (const f of fieldsOfPart(list).filter((x) => !x.at.includes('*'))) {
      const there = columns.get(f.at);
      if (there) there.lists.push(list);
      else columns.set(f.at, { path: f.at, kind: CELL[f.holds], ...unitOf(f), lists: [list] });
    }
  }
  return [...columns.values()];
})();
