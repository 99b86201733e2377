import { withoutUnit } from './channelNames';
import { growing, type Growing } from './growing';
import { isMissing, logNumber, type Decimal } from './logNumber';

/** Why the cells of a column cannot be of one column, or cannot be read one way. */
export interface ColumnFault {
  /** Sample, counted from 0. */
  at: number;
  message: string;
}

/** Reads the cells of one column, one after the other, while its decimal mark may still be open. */
export interface ColumnReader {
  /** @returns the fault that ends the reading; `true` where the cell is no number */
  add: (cell: string) => ColumnFault | true | null;
  /** Takes a plain number, or NaN for an empty cell, that stands as it is. */
  addNumber: (value: number) => void;
  /** What the cells said of the mark; null while they allow both or have none. */
  decimal: () => Decimal | null;
  /** @param other the mark of the file's other columns, for one that allows both */
  end: (other: Decimal | null) => { values: Float64Array } | { fault: ColumnFault };
}

/** Thousands do not begin with a lone zero. */
const LONE_ZERO = /^[+-]?0[.,]\d/;

/**
 * @param told the mark where somebody said it
 * @param factor what makes the channel's unit of the column's
 * @param expected about how many cells are to come
 */
export function columnReader(
  told: Decimal | undefined,
  factor: number,
  expected = 0,
): ColumnReader {
  const values: Growing = growing(expected);
  let decimal: Decimal | null = told ?? null;
  let decidedBy = '';
  /** Cells that are numbers either way: which samples, what they are by a comma, the first of them. */
  let openAt: number[] = [];
  let byComma: number[] = [];
  let firstOpen = '';
  const decide = (found: Decimal, by: string) => {
    decimal = found;
    decidedBy = by;
    if (found === ',') openAt.forEach((at, k) => values.set(at, byComma[k]!));
    openAt = [];
    byComma = [];
  };
  const undecided = (text: string): true | null => {
    const asPoint = logNumber(text, '.');
    const asComma = logNumber(text, ',');
    const point = typeof asPoint === 'number';
    const comma = typeof asComma === 'number';
    if (!point && !comma) {
      values.push(NaN);
      return true;
    }
    const either = point && comma;
    if (either && LONE_ZERO.test(text)) {
      decide(text.includes('.') ? '.' : ',', text);
    } else if (either && /[.,]/.test(text)) {
      firstOpen ||= text;
      openAt.push(values.length);
      byComma.push(factor * asComma);
    } else if (!either) decide(point ? '.' : ',', text);
    values.push(factor * (decimal === ',' ? asComma! : asPoint!));
    return null;
  };
  return {
    decimal: () => decimal,
    addNumber: (value) => values.push(factor * value),
    add: (cell) => {
      const text = withoutUnit(cell.trim());
      if (isMissing(text)) {
        values.push(NaN);
        return null;
      }
      if (decimal === null) return undecided(text);
      const value = logNumber(text, decimal);
      if (typeof value === 'number') {
        values.push(factor * value);
        return null;
      }
      const at = values.length;
      values.push(NaN);
      if (typeof logNumber(text, decimal === '.' ? ',' : '.') !== 'number') return true;
      const beside = decidedBy === '' ? `a decimal “${decimal}”` : `“${decidedBy}”`;
      return { at, message: `“${text}” stands in one column with ${beside}` };
    },
    end: (other) => {
      if (decimal === null && openAt.length > 0) {
        if (other === null) {
          const message = `“${firstOpen}” may be a decimal or thousands`;
          return { fault: { at: openAt[0]!, message } };
        }
        decide(other, firstOpen);
      }
      return { values: values.take() };
    },
  };
}
