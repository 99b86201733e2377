import Papa from 'papaparse';
import { LOOKED_AT, logTable } from './logTable';

export const SEPARATORS = [';', '\t', ',', '|'] as const;

/** How lines end, by the first that does. */
export function newlineOf(text: string): '\r\n' | '\n' | '\r' {
  if (text.includes('\r\n')) return '\r\n';
  return text.includes('\n') || !text.includes('\r') ? '\n' : '\r';
}

/**
 * What stands between the cells of a log: that by which the most columns with figures below them are found.
 *
 * @param text the beginning of the file
 * @returns null where none gives a table
 */
export function separatorOf(text: string): string | null {
  let best: { separator: string; columns: number } | null = null;
  for (const separator of SEPARATORS) {
    const { data } = Papa.parse<string[]>(text, {
      delimiter: separator,
      newline: newlineOf(text),
      preview: LOOKED_AT,
    });
    const table = logTable(data);
    const columns = table ? data[table.header]!.length : 0;
    if (columns > (best?.columns ?? 1)) best = { separator, columns };
  }
  return best?.separator ?? null;
}
