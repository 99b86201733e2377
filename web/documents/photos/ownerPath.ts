import { fieldAt } from '@zugluft/core/record/fieldTable';
import { PART_LISTS } from '@zugluft/core/record/partLists';
import { plainWord } from '../record/figureWords';
import { partsOf, type Draft, type Path, type PartList } from '../record/draft';

const LISTS: readonly string[] = [...PART_LISTS, 'settings'];

/** What a photo of a figure or part belongs to: a path that names parts by their ids, `fans.fan-left.maxRpm`. */
export function ownerPath(draft: Draft, path: Path): string {
  const [list, index, ...rest] = path;
  if (typeof index !== 'number' || !LISTS.includes(String(list))) return path.join('.');
  const id = partsOf(draft, list as PartList)[index]?.id ?? index;
  return [list, id, ...rest].join('.');
}

export interface Owner {
  /** The part, or what else of the machine. */
  part: string;
  /** The figure of it, in words. */
  figure: string;
  /** The record knows no such part now. */
  gone: boolean;
}

/** The name of a field, as far as the record has it. */
const fieldName = (path: string) => fieldAt(path)?.name ?? plainWord(path.split('.').pop()!);

/** What a path means in a record as it stands. */
export function ownerOf(draft: Draft, path: string): Owner {
  const [list = '', id = '', ...rest] = path.split('.');
  if (list === '') return { part: 'the machine', figure: '', gone: false };
  // a step or part of the opening: which there are only its log knows
  if (list === 'log') {
    return {
      part: 'the opening',
      figure: `${id.replace(/s$/, '')} ${rest.join(' ')}`,
      gone: false,
    };
  }
  if (!LISTS.includes(list)) {
    return { part: list, figure: fieldName(path), gone: false };
  }
  const gone = !partsOf(draft, list as PartList).some((p) => p.id === id);
  return { part: id, figure: rest.length ? fieldName(path) : '', gone };
}

/** The same in words. */
export function ownerWords(draft: Draft, path: string): string {
  const { part, figure, gone } = ownerOf(draft, path);
  return `${part}${figure && `, ${figure}`}${gone ? ' (no longer in the record)' : ''}`;
}

/** Everything of a record that a photo can belong to as a whole: the machine and each part. */
export function owners(draft: Draft): string[] {
  return ['', ...PART_LISTS.flatMap((list) => partsOf(draft, list).map((p) => `${list}.${p.id}`))];
}
