import type { PartListName } from '@zugluft/core/record/partLists';
import { fieldAt } from '@zugluft/core/record/fieldTable';
import type { ReactNode } from 'react';
import type { Part, PartList } from './draft';

interface ColumnBase {
  header: string;
  /** Field inside the part, such as `depthMm` or `interface.kind`. */
  field: string;
  width: string;
}
export type Column = ColumnBase &
  (
    | { kind: 'figure'; unit: string }
    | { kind: 'choice'; options: readonly string[]; empty?: string }
    | { kind: 'refs'; of: PartListName }
    | { kind: 'switch' }
    | { kind: 'text' }
    /** One id out of several lists. */
    | { kind: 'ref'; of: readonly PartList[]; besides?: readonly string[] }
    | { kind: 'note'; render: (part: Part) => ReactNode }
  );

/**
 * A column for a field of a kind of part, as the table of fields has it.
 *
 * @param list the kind of part
 * @param field its path inside the part
 * @param width class of its width
 * @param empty word for a choice that was not made
 * @throws Error where the record has no such field
 */
function column(list: PartList, field: string, width: string, empty?: string): Column {
  const known = fieldAt(`${list}.0.${field}`);
  if (!known) throw new Error(`no field ${field} of ${list}`);
  const base = { header: known.title, field, width };
  switch (known.holds) {
    case 'figure':
      return { ...base, kind: 'figure', unit: known.unit };
    case 'choice':
      return {
        ...base,
        kind: 'choice',
        options: known.options ?? [],
        ...(empty === undefined ? {} : { empty }),
      };
    case 'names':
      return { ...base, kind: 'refs', of: known.refersTo!.lists[0]! };
    case 'switch':
      return { ...base, kind: 'switch' };
    default:
      return { ...base, kind: 'text' };
  }
}

/** Field, width and, for a choice, its word where nothing was chosen. */
export type ColumnSpec = readonly [field: string, width: string, empty?: string];

/** Several columns of one kind of part; what is no plain field stands as it is. */
export function columnsOf(list: PartList, ...specs: readonly (ColumnSpec | Column)[]): Column[] {
  return specs.map((s) => ('kind' in s ? s : column(list, ...s)));
}
