import type { SortingState } from '@tanstack/react-table';
import { BESIDE } from './comparedFigures';

const USUAL = '-watts';
const COLUMNS: readonly string[] = ['name', 'watts', 'quiet', ...BESIDE.map(([id]) => id)];

/**
 * How the ranking is sorted, as the address tells it: a column, with a minus before it from the greatest down.
 *
 * @param text null or another: by watts, the most first
 * @param tellsQuiet whether the column of least levels is there
 */
export function sortingIn(text: string | null, tellsQuiet: boolean): SortingState {
  const known = (id: string) => COLUMNS.includes(id) && (id !== 'quiet' || tellsQuiet);
  const wanted = text !== null && known(text.replace(/^-/, '')) ? text : USUAL;
  return [{ id: wanted.replace(/^-/, ''), desc: wanted.startsWith('-') }];
}

/** The same for the address; nothing for what is usual, and where no column is asked for. */
export function sortText([first]: SortingState): string {
  if (!first) return '';
  const text = `${first.desc ? '-' : ''}${first.id}`;
  return text === USUAL ? '' : text;
}
