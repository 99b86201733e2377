import Papa from 'papaparse';
import { countOfRow, isCountHeader } from '@zugluft/core/count/countRow';
import { plainCell } from '@zugluft/core/exchange/cells';
import { applyMachineRow, editParts, fileKind, type Row } from '@zugluft/core/exchange/csvRows';
import { stateName as stateNameSchema } from '@zugluft/core/family/unitFacts';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { Identity } from '../machines/machineList';
import { Problem } from '../security/problem';
import { attempt, countCandidate, type LazyCandidate } from './candidate';
import { textOf } from './textOf';

const MAX_ROWS = 50_000;

/** How rows find the machines of this library that they change. */
export interface Finder {
  byId(id: string): Promise<CaseRecord | null>;
  /** The only machine of that maker, model and variant. */
  byName(identity: Identity): Promise<{ id: string; record: CaseRecord } | null>;
}

/** Cells as they were before a spreadsheet was kept from running them, under names without spaces around. */
function plain(row: Row): Row {
  return Object.fromEntries(
    Object.entries(row).map(([name, cell]) => [name.trim(), plainCell(String(cell ?? ''))]),
  );
}

/** A state's name within bounds. */
function checkedName(name: string): string {
  const read = stateNameSchema.safeParse(name);
  if (!read.success) throw new Error(`the state ${read.error.issues[0]!.message}`);
  return read.data;
}

/**
 * Rows of a CSV: a machine each, parts of machines, or counts.
 *
 * @throws Problem 422 where the file as a whole cannot be read; it names the line
 */
export function readCsv(bytes: Uint8Array, name: string, finder: Finder): LazyCandidate[] {
  let text: string;
  try {
    text = textOf(bytes).replace(/^\ufeff/, '');
  } catch (cause) {
    throw new Problem(422, 'Not read', `${name} ${(cause as Error).message}`);
  }
  const csv = parsedCsv(text);
  const isCounts = isCountHeader(csv.header);
  const kind = fileKind(csv.header);
  if (!kind && !isCounts) {
    throw new Problem(
      422,
      'Unknown columns',
      'the first line names none of the columns that an export has',
    );
  }
  const rows = placedRows(csv, text, name);
  if (isCounts) {
    return rows.map(({ row, line }) => {
      const label = `${name}, line ${line}`;
      return attempt(label, () => countCandidate(label, countOfRow(plain(row))));
    });
  }
  return kind === 'machines'
    ? rows.map((r) => machineOfRow(r, name, finder))
    : machinesOfParts(rows, name, finder);
}

function parsedCsv(text: string) {
  const { data, errors, meta } = Papa.parse<Row>(text, { header: true, preview: MAX_ROWS + 1 });
  if (data.length > MAX_ROWS) throw new Problem(422, 'Too much', `more than ${MAX_ROWS} rows`);
  return { data, errors, header: meta.fields ?? [] };
}

/** A row of a file, and the line on which it begins. */
interface PlacedRow {
  row: Row;
  line: number;
}

/**
 * The rows of a CSV with their lines.
 *
 * @throws Problem 422 that names the line where any of it cannot be read: a quote that is left open swallows all rows after it, so
 * that nothing of such a file is what it seems
 */
function placedRows(
  { data, errors, header }: ReturnType<typeof parsedCsv>,
  text: string,
  name: string,
): PlacedRow[] {
  const newlines = (cell: unknown) => String(cell ?? '').split(/\r\n|\r|\n/).length - 1;
  let line = 2 + header.reduce((sum, f) => sum + newlines(f), 0);
  const isEmpty = (row: Row) => Object.values(row).every((c) => String(c ?? '').trim() === '');
  const all = data.map((row): PlacedRow => {
    const placed = { row, line };
    line += 1 + Object.values(row).reduce((sum, cell) => sum + newlines(cell), 0);
    return placed;
  });
  // a file without any delimiter has one column, and an empty line is no row with too few of them
  const [broken] = errors.filter(
    (e) =>
      e.type === 'Quotes' ||
      (e.type === 'FieldMismatch' &&
        e.row !== undefined &&
        all[e.row] &&
        !isEmpty(all[e.row]!.row)),
  );
  if (broken) {
    const at =
      broken.index === undefined
        ? (all[broken.row ?? 0]?.line ?? 1)
        : text.slice(0, broken.index).split(/\r\n|\r|\n/).length;
    throw new Problem(
      422,
      'Not read',
      `${name}, line ${at}: ${CSV_WORDS[broken.code] ?? broken.message.toLowerCase()}. Nothing of the file was taken`,
    );
  }
  return all.filter(({ row }) => !isEmpty(row));
}

const CSV_WORDS: Record<string, string> = {
  MissingQuotes: 'a quote is opened and never closed',
  InvalidQuotes: 'something follows a quote that was closed',
  TooFewFields: 'the row has fewer columns than the first line',
  TooManyFields: 'the row has more columns than the first line',
};

function machineOfRow({ row, line }: PlacedRow, name: string, finder: Finder): LazyCandidate {
  const label = `${name}, line ${line}`;
  return attempt(label, async () => {
    const id = row['id']?.trim() ?? '';
    const known = id ? await finder.byId(id) : null;
    const before = known
      ? { id, record: known }
      : await finder.byName({
          maker: plainCell(row['identity.maker'] ?? '').trim(),
          model: plainCell(row['identity.model'] ?? '').trim(),
          variant: plainCell(row['identity.variant'] ?? '').trim(),
        });
    const start: CaseRecord = before?.record ?? { format: 'zugluft-record', formatVersion: 1 };
    const record = applyMachineRow(start, row);
    const stateName = plainCell(row['state'] ?? '').trim();
    return {
      label,
      ...(before ? { id: before.id } : {}),
      ...(stateName ? { stateName: checkedName(stateName) } : {}),
      record,
    };
  });
}

/** Rows of parts by their machines: a row that cannot be taken refuses its whole machine, by its line. */
function machinesOfParts(
  rows: readonly PlacedRow[],
  name: string,
  finder: Finder,
): LazyCandidate[] {
  const byId = new Map<string, PlacedRow[]>();
  for (const placed of rows) {
    const id = placed.row['id']?.trim() ?? '';
    const own = byId.get(id);
    if (own) own.push(placed);
    else byId.set(id, [placed]);
  }
  return [...byId].map(([id, own]) => {
    const label = `${name}, line ${own[0]!.line}`;
    return attempt(label, async () => {
      const before = id ? await finder.byId(id) : null;
      if (!before) throw new Error('the row’s machine is not in this library');
      const edits = editParts(before);
      const reasons: { path: string; message: string }[] = [];
      for (const { row, line } of own) {
        try {
          edits.apply(row);
        } catch (cause) {
          reasons.push({ path: `line ${line}`, message: (cause as Error).message });
        }
      }
      if (reasons.length) return { label, record: before, refused: reasons[0]!.message, reasons };
      return { label, id, record: edits.record() };
    });
  });
}
