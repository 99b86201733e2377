import { ORIGINS, type Origin } from '../record/figure';
import { isObject, type Json } from '../record/plainJson';
import { readFigure } from '../record/readFigure';

/**
 * Beginnings at which some spreadsheet would take a cell, or what it cuts off one at a delimiter, for a formula: also in full width,
 * and behind apostrophes, which are doubled so that they come back.
 */
const FORMULA = /^'*(?:[\t\r]|[\s;,|]*[=+\-@\uff1d\uff0b\uff0d\uff20])/u;
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
  const rest = cell.slice(1);
  return cell.startsWith("'") && FORMULA.test(rest) ? rest : cell;
}

/**
 * A field of a record as one cell: figures as “24 ± 0.1 photo”, lists with spaces (words that have spaces of their own in quotes),
 * places along a pipe as `plate-cpu fins-left[0..70]`. Notes and whatever else a figure holds are left out.
 */
export function cellOf(value: unknown): string {
  if (value === undefined || value === null) return '';
  if (Array.isArray(value)) {
    return value
      .map((x) => {
        if (isObject(x)) return typeof x['part'] === 'string' ? placeOf(x) : cellOf(x);
        const word = cellOf(x);
        return /[\s"]/.test(word) || word === '' ? `"${word.replace(/"/g, '""')}"` : word;
      })
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

/** Words of a list, those in quotes whole. */
const wordsOf = (text: string): string[] =>
  [...text.matchAll(/"((?:[^"]|"")*)"|\S+/g)].map((m) =>
    m[1] === undefined ? m[0] : m[1].replace(/""/g, '"'),
  );

/** A number as a spreadsheet may write it back: a comma for the point, noughts at its end gone. */
const plainNumber = (text: string): number | null =>
  /^-?\d+(?:[.,]\d+)?$/.test(text) ? Number(text.replace(',', '.')) : null;

/** Whether a text is the one of before after a spreadsheet took it for a number: firmware 1.10 as 1,1. */
function sameText(text: string, before: string): boolean {
  if (text === before) return true;
  const now = plainNumber(text);
  return now !== null && now === plainNumber(before);
}

/**
 * A cell as a field of a record. What cannot be read stays as text, so that the record's own check says what is wrong.
 *
 * @param cell as it stands in the file
 * @param kind of the field
 * @param before what the record holds there: what says the same stays as it is, with its note and all else it holds
 * @param unit of the field in the record, `share` for shares: other units are understood
 * @example fieldOf('2,5 cm', 'figure', undefined, 'mm') // 25
 */
export function fieldOf(cell: string, kind: CellKind, before?: unknown, unit?: string): unknown {
  // an empty list is no change either
  if (before !== undefined && safeCell(cellOf(before)) === cell) return before;
  const text = plainCell(cell).trim();
  if (text === '') return undefined;
  switch (kind) {
    case 'text':
      return typeof before === 'string' && sameText(text, before) ? before : text;
    case 'switch':
      return text === 'true' || text === 'yes'
        ? true
        : text === 'false' || text === 'no'
          ? false
          : text;
    case 'ids':
      return wordsOf(text);
    case 'along':
      return text.split(/\s+/).map((item) => {
        const match = /^(.+)\[((?:\d+(?:[.,]\d+)?)?)\.\.((?:\d+(?:[.,]\d+)?)?)\]$/.exec(item);
        if (!match) return { part: item };
        return {
          part: match[1],
          ...(match[2] ? { fromMm: Number(match[2].replace(',', '.')) } : {}),
          ...(match[3] ? { toMm: Number(match[3].replace(',', '.')) } : {}),
        };
      });
    case 'figure': {
      const read = readFigure(text, unit);
      if (typeof read !== 'object') return read;
      const { value, plusMinus, origin } = read;
      const was: Json = isObject(before) ? before : { value: before };
      if (value === was['value'] && plusMinus === was['plusMinus'] && origin === was['origin']) {
        return before;
      }
      if (plusMinus === undefined && origin === undefined) return value;
      return {
        value,
        ...(plusMinus === undefined ? {} : { plusMinus }),
        ...(origin && ORIGINS.includes(origin as Origin) ? { origin } : {}),
      };
    }
  }
}
