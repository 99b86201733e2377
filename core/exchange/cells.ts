import { ORIGINS, type Origin } from '../record/figure';
import { isObject, type Json } from '../record/plainJson';
import { readFigure } from '../record/readFigure';

/** Signs at which a spreadsheet would take a cell for a formula. */
const FORMULA = /^[=+\-@\t\r]/;
const NUMBER = /^-?\d+(\.\d+)?(e[+-]?\d+)?$/i;

/**
 * A text as a cell that no spreadsheet runs: what would be a formula gets an apostrophe in front, numbers stay.
 *
 * @example safeCell('=1+1') // "'=1+1"
 */
export function safeCell(text: string): string {
  return FORMULA.test(text) && !NUMBER.test(text) ? `'${text}` : text;
}

/** The text of a cell as it was before {@link safeCell}. */
export function plainCell(cell: string): string {
  return cell.startsWith("'") && FORMULA.test(cell.slice(1)) ? cell.slice(1) : cell;
}

/**
 * A field of a record as one cell: figures as “24 ± 0.1 photo”, lists with spaces, places along a pipe as
 * `plate-cpu fins-left[0..70]`. Notes and whatever else a figure holds are left out.
 */
export function cellOf(value: unknown): string {
  if (value === undefined || value === null) return '';
  if (Array.isArray(value)) {
    return value
      .map((x) => (isObject(x) && typeof x['part'] === 'string' ? placeOf(x) : cellOf(x)))
      .join(' ');
  }
  if (isObject(value)) {
    const { value: number, plusMinus, origin } = value;
    if (number === undefined) return JSON.stringify(value);
    return [
      String(number),
      plusMinus === undefined ? '' : `± ${String(plusMinus)}`,
      typeof origin === 'string' ? origin : '',
    ]
      .filter(Boolean)
      .join(' ');
  }
  return String(value);
}

function placeOf(along: Json): string {
  const from = along['fromMm'];
  const to = along['toMm'];
  if (from === undefined && to === undefined) return String(along['part']);
  const number = (x: unknown) =>
    isObject(x) ? String(x['value']) : x === undefined ? '' : String(x);
  return `${String(along['part'])}[${number(from)}..${number(to)}]`;
}

/** What kind of field a cell stands for. */
export type CellKind = 'figure' | 'text' | 'switch' | 'ids' | 'along';

/**
 * A cell as a field of a record. What cannot be read stays as text, so that the record's own check says what is wrong.
 *
 * @param cell as it stands in the file
 * @param kind of the field
 * @param before what the record holds there: its note is kept where the figure stays the same
 */
export function fieldOf(cell: string, kind: CellKind, before?: unknown): unknown {
  const text = plainCell(cell).trim();
  if (text === '') return undefined;
  switch (kind) {
    case 'text':
      return text;
    case 'switch':
      return text === 'true' || text === 'yes'
        ? true
        : text === 'false' || text === 'no'
          ? false
          : text;
    case 'ids':
      return text.split(/\s+/);
    case 'along':
      return text.split(/\s+/).map((item) => {
        const match = /^(.+)\[([\d.]*)\.\.([\d.]*)\]$/.exec(item);
        if (!match) return { part: item };
        return {
          part: match[1],
          ...(match[2] ? { fromMm: Number(match[2]) } : {}),
          ...(match[3] ? { toMm: Number(match[3]) } : {}),
        };
      });
    case 'figure': {
      if (before !== undefined && cellOf(before) === text) return before;
      const read = readFigure(text, undefined);
      if (typeof read !== 'object') return read;
      const { value, plusMinus, origin } = read;
      if (plusMinus === undefined && origin === undefined) return value;
      return {
        value,
        ...(plusMinus === undefined ? {} : { plusMinus }),
        ...(origin && ORIGINS.includes(origin as Origin) ? { origin } : {}),
      };
    }
  }
}
