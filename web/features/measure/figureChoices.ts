import { fieldsOfMark } from '@zugluft/core/photo/figuresOfMark';
import type { MarkKind } from '@zugluft/core/photo/marksFile';
import { isPartList, PART_WORDS } from '@zugluft/core/record/fieldTable';
import type { PartListName } from '@zugluft/core/record/partLists';
import { partsOf, type Draft } from '../../documents/record/draft';

/** A figure that a mark can be of: its path, or the list of a part that is not there yet with its field. */
export interface FigureChoice {
  value: string;
  label: string;
  group: string;
}

/** Begins the value of a choice that makes a new part first. */
const NEW = 'new:';

/**
 * All figures of a record that a mark of a kind can be of: of its parts, the usual fields first, then of parts that would be new.
 */
export function figureChoices(draft: Draft, kind: MarkKind): FigureChoice[] {
  const there: FigureChoice[] = [];
  const fresh: FigureChoice[] = [];
  for (const field of fieldsOfMark(kind)) {
    const [list = '', star, ...rest] = field.at.split('.');
    if (star !== '*') {
      there.push({ value: field.at, label: field.name, group: list });
      continue;
    }
    if (!isPartList(list) || rest.includes('*')) continue;
    const at = rest.join('.');
    for (const { id } of partsOf(draft, list)) {
      there.push({ value: `${list}.${id}.${at}`, label: `${id}, ${field.name}`, group: id });
    }
    fresh.push({
      value: `${NEW}${list}.${at}`,
      label: `a new ${PART_WORDS[list]}, ${field.name}`,
      group: 'new parts',
    });
  }
  return [...there, ...fresh];
}

/** The list and field of a choice that makes a part first; null for a figure that is there. */
export function newPartOf(value: string): { list: PartListName; field: string } | null {
  if (!value.startsWith(NEW)) return null;
  const [list = '', ...rest] = value.slice(NEW.length).split('.');
  return isPartList(list) ? { list, field: rest.join('.') } : null;
}
