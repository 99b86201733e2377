import Papa from 'papaparse';
import { isCountHeader } from '@zugluft/core/count/countRow';
import { fileKind } from '@zugluft/core/exchange/csvRows';
import { Problem } from '../security/problem';
import { textOf } from './textOf';

const MAX_ROWS = 50_000;
const MAX_COLUMNS = 1000;
/** More is no table that a person made, and takes much more memory than bytes. */
const MAX_CELLS = 8_000_000;
/** Rows of one machine that are taken in one go. */
const CHUNK = 200;

/** A row of a file, and the line on which it begins. */
export interface PlacedRow {
  line: number;
  cells: string[];
}

/** Rows of a CSV by what may become or change one machine. */
export type CsvPieces =
  /** Cells of each row as JSON. */
  | { kind: 'counts' | 'machines'; header: string[]; rows: { line: number; cells: string }[] }
  /** Rows that change parts of one machine, by its id in the library: JSON of lists of PlacedRow. */
  | { kind: 'parts'; header: string[]; machines: { id: string; line: number; chunks: string[] }[] };

const CSV_WORDS = {
  MissingQuotes: 'a quote is opened and never closed',
  InvalidQuotes: 'something follows a quote that was closed',
  TooFewFields: 'the row has fewer columns than the first line',
  TooManyFields: 'the row has more columns than the first line',
} as const;

const SEPARATORS = ',;\t|';
const LINE_END = /\r\n|\r|\n/;
const tooMuch = (what: string) => new Problem(422, 'Too much', `more than ${what}`);
const isEmpty = (cells: readonly string[]) => cells.every((cell) => cell.trim() === '');

/**
 * Takes a CSV apart: a machine a row, parts of machines, or counts.
 *
 * @param name what the file is called, for messages
 * @throws Problem 422 where the file as a whole cannot be read; it names the line
 */
export function csvPieces(bytes: Uint8Array, name: string): CsvPieces {
  let text: string;
  try {
    text = textOf(bytes).replace(/^\ufeff/, '');
  } catch (cause) {
    throw new Problem(422, 'Not read', `${name} ${(cause as Error).message}`);
  }
  if (separators(text) > MAX_CELLS) throw tooMuch(`${MAX_CELLS} cells`);
  const { data, errors } = Papa.parse<string[]>(text, { preview: MAX_ROWS + 2 });
  const [first = [], ...rest] = data;
  if (rest.length > MAX_ROWS) throw tooMuch(`${MAX_ROWS} rows`);
  if (first.length > MAX_COLUMNS) throw tooMuch(`${MAX_COLUMNS} columns`);
  const header = first.map((cell) => cell.trim());
  const kind = isCountHeader(header) ? 'counts' : fileKind(header);
  if (!kind) {
    throw new Problem(
      422,
      'Unknown columns',
      'the first line names none of the columns that an export has',
    );
  }
  // one that is left open swallows all rows after it, so that nothing of such a file is what it seems
  const open = errors.find((e) => e.type === 'Quotes');
  if (open) {
    const before = text.slice(0, open.index ?? 0);
    throw notRead(name, before.split(LINE_END).length, open.code as keyof typeof CSV_WORDS);
  }
  const rows = placed(rest, first, name);
  return kind === 'parts'
    ? { kind, header, machines: byMachine(rows, header.indexOf('id')) }
    : {
        kind,
        header,
        rows: rows.map(({ line, cells }) => ({ line, cells: JSON.stringify(cells) })),
      };
}

/** Signs of a text that may stand between cells. */
function separators(text: string): number {
  let n = 0;
  for (let i = 0; i < text.length; i++) if (SEPARATORS.includes(text[i]!)) n++;
  return n;
}

const notRead = (name: string, line: number, code: keyof typeof CSV_WORDS) =>
  new Problem(422, 'Not read', `${name}, line ${line}: ${CSV_WORDS[code]}`);

/** Rows that say something, with their lines. */
function placed(rows: string[][], first: readonly string[], name: string): PlacedRow[] {
  const lines = (cells: readonly string[]) =>
    1 + cells.reduce((sum, cell) => sum + cell.split(LINE_END).length - 1, 0);
  let line = 1 + lines(first);
  const all: PlacedRow[] = [];
  for (const cells of rows) {
    if (!isEmpty(cells)) {
      if (cells.length < first.length) throw notRead(name, line, 'TooFewFields');
      if (cells.length > first.length) throw notRead(name, line, 'TooManyFields');
      all.push({ line, cells });
    }
    line += lines(cells);
  }
  return all;
}

function byMachine(rows: readonly PlacedRow[], idColumn: number) {
  const byId = new Map<string, PlacedRow[]>();
  for (const row of rows) {
    const id = row.cells[idColumn]?.trim() ?? '';
    const own = byId.get(id);
    if (own) own.push(row);
    else byId.set(id, [row]);
  }
  return [...byId].map(([id, own]) => {
    const chunks: string[] = [];
    for (let at = 0; at < own.length; at += CHUNK) {
      chunks.push(JSON.stringify(own.slice(at, at + CHUNK)));
    }
    return { id, line: own[0]!.line, chunks };
  });
}
