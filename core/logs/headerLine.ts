import Papa from 'papaparse';
import { decodeText } from './decodeText';
import { LOOKED_AT, logTable } from './logTable';
import { newlineOf, separatorOf } from './separator';

/** A header is no longer than this. */
const LONGEST = 20_000;

/**
 * The header of a log, names and units, as one line: the same for every log that the same logger wrote, whatever stands above it.
 *
 * @param head the first bytes of the file
 * @returns null where no table is found
 * @example headerLine(bytes) // 'Time\tCPU power [W]\tCPU temperature [°C]'
 */
export function headerLine(head: Uint8Array): string | null {
  const text = decodeText(head).replace(/^\ufeff/, '');
  const separator = separatorOf(text);
  if (separator === null) return null;
  const { data } = Papa.parse<string[]>(text, {
    delimiter: separator,
    newline: newlineOf(text),
    preview: LOOKED_AT,
  });
  const table = logTable(data);
  if (!table) return null;
  const rows = [data[table.header]!, ...(table.units === null ? [] : [data[table.units]!])];
  const line = rows.map((cells) => cells.map((c) => c.trim()).join('\t')).join('\n');
  return line.length > LONGEST ? null : line;
}
