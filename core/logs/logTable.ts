import { isMissing, logNumber } from './logNumber';

/** Rows of a log that are looked at for its header. */
const LOOKED_AT = 200;
/** Cells of a row of data that hold figures or nothing. */
const MOSTLY = 0.5;

/** Where the parts of a log's table stand, rows counted from 0. */
export interface LogTable {
  header: number;
  /** Row of units below the names; null where there is none. */
  units: number | null;
  /** Rows of data in their order; repeated headers, blank lines and what stands below are left out. */
  data: number[];
  /** Rows below the data that hold figures of another kind: averages, least and greatest. */
  footer: number[];
}

const FOOTER =
  /^(avg|average|mean|min(imum)?|max(imum)?|sum|total|count|std\.?( ?dev)?|mittel(wert)?)\b/i;

const isFigure = (cell: string) =>
  typeof logNumber(cell, '.') === 'number' ||
  typeof logNumber(cell, ',') === 'number' ||
  /^\d{1,4}[:./-]\d{1,2}[:./-]\d{1,4}/.test(cell.trim());

function isData(cells: readonly string[], width: number): boolean {
  if (cells.length < 2 || cells.length < width - 1) return false;
  const filled = cells.filter((c) => !isMissing(c));
  return filled.length > 0 && filled.filter(isFigure).length >= MOSTLY * filled.length;
}

const isNames = (cells: readonly string[]) =>
  cells.filter((c) => c.trim() !== '').length >= 2 && !cells.some(isFigure);

/**
 * Finds the table in the rows of a log: its header, which need not come first, a row of units below it, the data, and what
 * stands below.
 *
 * @param rows cells of every line of the file
 * @returns null where no header with figures below it is found
 */
export function logTable(rows: readonly (readonly string[])[]): LogTable | null {
  const most = Math.min(rows.length, LOOKED_AT);
  for (let i = 0; i + 1 < most; i++) {
    const names = rows[i]!;
    if (!isNames(names)) continue;
    const direct = isData(rows[i + 1]!, names.length);
    const below =
      !direct && i + 2 < rows.length && isNames(rows[i + 1]!) && isData(rows[i + 2]!, names.length);
    if (!direct && !below) continue;
    return partsBelow(rows, i, below ? i + 1 : null);
  }
  return null;
}

function partsBelow(
  rows: readonly (readonly string[])[],
  header: number,
  units: number | null,
): LogTable {
  const said = (cells: readonly string[]) => cells.join('\u0000').trim();
  const repeated = new Set([said(rows[header]!), ...(units === null ? [] : [said(rows[units]!)])]);
  const data: number[] = [];
  const footer: number[] = [];
  for (let i = (units ?? header) + 1; i < rows.length; i++) {
    const cells = rows[i]!;
    if (cells.every((c) => c.trim() === '') || repeated.has(said(cells))) continue;
    if (footer.length || cells.some((c) => FOOTER.test(c.trim()))) footer.push(i);
    else data.push(i);
  }
  return { header, units, data, footer };
}
