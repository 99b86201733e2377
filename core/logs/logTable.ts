import { withoutUnit } from './channelNames';
import { isMissing, logNumber } from './logNumber';

/** Rows of a log that are looked at for its header. */
export const LOOKED_AT = 200;
/** Cells of a row of data that hold figures or nothing. */
const MOSTLY = 0.5;

/** Where a log's table begins, rows counted from 0. */
export interface LogTable {
  header: number;
  /** Row of units below the names; null where there is none. */
  units: number | null;
}

const FOOTER =
  /^(avg|average|mean|min(imum)?|max(imum)?|sum|total|count|std\.?( ?dev)?|mittel(wert)?)\b/i;

const isNumber = (cell: string) =>
  typeof logNumber(cell, '.') === 'number' || typeof logNumber(cell, ',') === 'number';
const isFigure = (cell: string) =>
  isNumber(cell) ||
  isNumber(withoutUnit(cell.trim())) ||
  /^\d{1,4}[:./-]\d{1,2}[:./-]\d{1,4}/.test(cell.trim());

function isData(cells: readonly string[], width: number): boolean {
  if (cells.length < 2 || cells.length < width - 1) return false;
  const filled = cells.filter((c) => !isMissing(c));
  return filled.length > 0 && filled.filter(isFigure).length >= MOSTLY * filled.length;
}

/** Lines that only rule a table off. */
const isRule = (cells: readonly string[]) =>
  cells.some((c) => c.trim() !== '') && cells.every((c) => /^[-:=+ ]*$/.test(c));

const isNames = (cells: readonly string[]) =>
  cells.filter((c) => c.trim() !== '').length >= 2 && !cells.some(isFigure);

/**
 * Finds the table in the rows of a log: its header, which need not come first, and a row of units below it.
 *
 * @param rows cells of the first lines of the file
 * @returns null where no header with figures below it is found
 */
export function logTable(rows: readonly (readonly string[])[]): LogTable | null {
  const most = Math.min(rows.length, LOOKED_AT);
  for (let i = 0; i + 1 < most; i++) {
    const names = rows[i]!;
    if (!isNames(names) || isRule(names)) continue;
    const next = afterRules(rows, i + 1);
    if (next < rows.length && isData(rows[next]!, names.length)) return { header: i, units: null };
    const second = afterRules(rows, next + 1);
    if (second < rows.length && isNames(rows[next]!) && isData(rows[second]!, names.length)) {
      return { header: i, units: next };
    }
  }
  return null;
}

function afterRules(rows: readonly (readonly string[])[], from: number): number {
  let i = from;
  while (i < rows.length && isRule(rows[i]!)) i++;
  return i;
}

/** What a row below the header is. */
export type RowKind = 'data' | 'blank' | 'header' | 'footer';

const CODE_A = 65;

/**
 * Tells data from what else may stand below a header: blank lines, the header again, averages at the end.
 *
 * @param rows those of {@link logTable}
 * @param table where the header stands
 */
export function rowKinds(
  rows: readonly (readonly string[])[],
  table: LogTable,
): (cells: readonly string[]) => RowKind {
  const repeated = [rows[table.header]!, ...(table.units === null ? [] : [rows[table.units]!])];
  const same = (a: readonly string[], b: readonly string[]) =>
    a.length === b.length && a.every((c, k) => c === b[k]);
  return (cells) => {
    let blank = true;
    for (let k = 0; k < cells.length; k++) {
      const cell = cells[k]!;
      if (cell === '') continue;
      // only words need a closer look
      if (cell.charCodeAt(0) >= CODE_A || cell.charCodeAt(0) <= 32) {
        const text = cell.trim();
        if (text === '') continue;
        if (FOOTER.test(text)) return 'footer';
      }
      blank = false;
    }
    if (blank || isRule(cells)) return 'blank';
    return repeated.some((r) => cells[0] === r[0] && same(cells, r)) ? 'header' : 'data';
  };
}
