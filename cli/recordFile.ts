import { readFileSync } from 'node:fs';
import { countOfRow, isCountHeader } from '@zugluft/core/count/countRow';
import { isCount } from '@zugluft/core/count/countSchema';
import { parseCount } from '@zugluft/core/count/parseCount';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import Papa from 'papaparse';
import { BadInput } from './badInput';

const LARGEST_FILE = 5_000_000;
export const MAX_ROWS = 50_000;

/** What a file holds: JSON, or the rows of a table of counts. */
type Input = { json: unknown } | { rows: unknown[] };

/**
 * A complete record: as it stands in the file, or made from what was counted.
 *
 * @param file its path
 * @param row which machine of a table of counts, from 1
 * @throws BadInput where it is none
 */
export function recordOfFile(file: string, row?: number): CaseRecord {
  const input = readInput(file);
  let json: unknown;
  if ('rows' in input) {
    if (row === undefined && input.rows.length !== 1) {
      throw new BadInput('--row', `the table has ${input.rows.length} machines: say which one`);
    }
    json = input.rows[(row ?? 1) - 1];
    if (json === undefined) throw new BadInput('--row', `the table has no row ${row}`);
  } else json = input.json;
  if (isCount(json)) {
    const { record, issues } = parseCount(json);
    if (!record) throw new BadInput(issues[0]!.path, issues[0]!.message);
    // through text, as a file of its own would come
    json = JSON.parse(JSON.stringify(record));
  }
  const { record, issues, complete } = parseRecord(json);
  const first = issues[0];
  if (!record || !complete) throw new BadInput(first?.path ?? '', first?.message ?? 'not a record');
  return record;
}

/** Text of a small file. */
export function textOfFile(file: string, path = ''): string {
  let text: string;
  try {
    text = readFileSync(file, 'utf8');
  } catch (cause) {
    const code = (cause as NodeJS.ErrnoException).code ?? 'failed';
    throw new BadInput(path, `cannot read ${file}: ${code}`);
  }
  if (text.length > LARGEST_FILE) throw new BadInput(path, 'the file is larger than 5 MB');
  return text.replace(/^\ufeff/, '');
}

function readInput(file: string): Input {
  const text = textOfFile(file);
  if (!/^\s*[{["]/.test(text)) {
    const { data, meta } = Papa.parse<Record<string, string>>(text, {
      header: true,
      skipEmptyLines: 'greedy',
      preview: MAX_ROWS,
      transformHeader: (h) => h.trim(),
    });
    if (isCountHeader(meta.fields ?? [])) return { rows: data.map(countOfRow) };
  }
  try {
    return { json: JSON.parse(text) as unknown };
  } catch (cause) {
    throw new BadInput('', `not JSON: ${(cause as Error).message}`);
  }
}
