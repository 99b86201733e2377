import { decimalOf, isMissing, logNumber, type Decimal } from './logNumber';

/** How the times of a log are written. */
export const TIME_FORMATS = [
  'seconds',
  'milliseconds',
  'clock',
  'iso',
  'day-month',
  'month-day',
] as const;
export type TimeFormat = (typeof TIME_FORMATS)[number];

/** Times of a log in seconds, one for each cell; NaN where there is none. */
export interface LogTimes {
  format: TimeFormat;
  seconds: Float64Array;
}

/** Why times cannot be read: which cell, counted from 0, and in words what it may be or lacks. */
export interface TimeFault {
  at: number;
  message: string;
  /** Several readings are possible: a person may say which. */
  asks?: true;
}

const DAY_S = 86_400;
/** A clock that falls by more than this has passed midnight. */
const MIDNIGHT_S = DAY_S / 2;
/** Whole numbers so far apart are thousandths of a second, or a log of a sample in minutes: both are possible. */
const EITHER_STEP = 100;

const CLOCK = String.raw`(\d{1,3}):(\d{2}):(\d{2}(?:[.,]\d+)?)(?:\s*([AaPp])\.?[Mm]\.?)?`;
const SHORT_CLOCK = /^\d{1,3}:\d{2}(?:[.,]\d+)?$/;
const ONLY_CLOCK = new RegExp(`^${CLOCK}$`);
const ISO =
  /^(\d{4})-(\d{2})-(\d{2})[T ](\d{2}):(\d{2})(?::(\d{2}(?:[.,]\d+)?))?(Z|[+-]\d{2}:?\d{2})?$/;
const WITH_DATE = new RegExp(`^(\\d{1,2})([./-])(\\d{1,2})\\2(\\d{2}|\\d{4}),?[ T]+${CLOCK}$`);

const part = (text: string | undefined) => Number((text ?? '0').replace(',', '.'));

function clockS(hours: string, minutes: string, seconds: string, half: string | undefined): number {
  const h = Number(hours);
  const turned = half === undefined ? h : (h % 12) + (half.toLowerCase() === 'p' ? 12 : 0);
  return turned * 3600 + Number(minutes) * 60 + part(seconds);
}

function isoS(cell: string): number {
  const m = ISO.exec(cell);
  if (!m) return NaN;
  const zone = m[7];
  const z = zone && zone !== 'Z' ? /^([+-])(\d{2}):?(\d{2})$/.exec(zone) : null;
  const offset = z ? (z[1] === '-' ? -1 : 1) * (Number(z[2]) * 60 + Number(z[3])) : 0;
  const day = Date.UTC(Number(m[1]), Number(m[2]) - 1, Number(m[3])) / 1000;
  return day + Number(m[4]) * 3600 + (Number(m[5]) - offset) * 60 + part(m[6]);
}

function dateS(cell: string, format: 'day-month' | 'month-day'): number {
  const m = WITH_DATE.exec(cell);
  if (!m) return NaN;
  const [first, second] = [Number(m[1]), Number(m[3])];
  const [day, month] = format === 'day-month' ? [first, second] : [second, first];
  if (month < 1 || month > 12 || day < 1 || day > 31) return NaN;
  const year = m[4]!.length === 2 ? 2000 + Number(m[4]) : Number(m[4]);
  return Date.UTC(year, month - 1, day) / 1000 + clockS(m[5]!, m[6]!, m[7]!, m[8]);
}

function onlyClockS(cell: string): number {
  const m = ONLY_CLOCK.exec(cell);
  return m ? clockS(m[1]!, m[2]!, m[3]!, m[4]) : NaN;
}

/** Reads one cell of times after the other, in the order of the file. */
export interface TimeReader {
  format: TimeFormat;
  /** Seconds as they stand, NaN where the cell is missing; undefined where it is no time of this format. */
  read: (cell: string) => number | undefined;
  /** What makes seconds of a plain number; null where times are no plain numbers by the given mark. */
  plain: { factor: number; decimal: Decimal } | null;
  /** The mark that its cells allow alone; null where they have none or allow both. */
  told: Decimal | null;
}

/**
 * How the times of a log are read: its format, found where only one is possible. Clocks without a date go on over midnight.
 *
 * @param cells beginning of the column of times, in the order of the file
 * @param told the format where somebody said it
 * @param milliseconds true where the column's name or unit says so; false where it says seconds
 * @returns the reader, for the whole column from its first cell on, or the cell that cannot be read and why
 */
export function timeReader(
  cells: readonly string[],
  told?: TimeFormat,
  milliseconds?: boolean,
): TimeReader | TimeFault {
  const texts = cells.map((c) => c.trim());
  const first = texts.findIndex((t) => !isMissing(t));
  if (first < 0) return { at: 0, message: 'the column of times is empty' };
  const format = told ?? formatOf(texts, first, milliseconds);
  if (typeof format !== 'string') return format;
  const readCell = readerOf(format, texts);
  let turned = 0;
  let before = -Infinity;
  const isNumber = format === 'seconds' || format === 'milliseconds';
  return {
    format,
    plain: isNumber
      ? { factor: format === 'milliseconds' ? 1e-3 : 1, decimal: markOf(texts) }
      : null,
    told: isNumber && texts.some((t) => /[.,]/.test(t)) ? markOf(texts) : null,
    read: (cell) => {
      const text = cell.trim();
      const at = readCell(text);
      if (!Number.isFinite(at)) return isMissing(text) ? NaN : undefined;
      if (format === 'clock' && at < before - MIDNIGHT_S) turned += DAY_S;
      before = at;
      return at + turned;
    },
  };
}

/** What is said of a cell that is no time. */
export const noTime = (cell: string, format: TimeFormat): string =>
  `“${cell.trim()}” is no time as ${format}`;

/** Times of a whole column, see {@link timeReader}. */
export function logTimes(
  cells: readonly string[],
  told?: TimeFormat,
  milliseconds?: boolean,
): LogTimes | TimeFault {
  const reader = timeReader(cells, told, milliseconds);
  if ('message' in reader) return reader;
  const seconds = new Float64Array(cells.length);
  for (let i = 0; i < cells.length; i++) {
    const at = reader.read(cells[i]!);
    if (at === undefined) return { at: i, message: noTime(cells[i]!, reader.format) };
    seconds[i] = at;
  }
  return { format: reader.format, seconds };
}

function markOf(texts: readonly string[]): Decimal {
  const found = decimalOf(texts);
  return 'decimal' in found ? found.decimal : '.';
}

function readerOf(format: TimeFormat, texts: readonly string[]): (cell: string) => number {
  if (format === 'iso') return isoS;
  if (format === 'clock') return onlyClockS;
  if (format === 'day-month' || format === 'month-day') return (cell) => dateS(cell, format);
  const decimal = markOf(texts);
  const unit = format === 'milliseconds' ? 1e-3 : 1;
  return (cell) => unit * (logNumber(cell, decimal) ?? NaN);
}

function formatOf(
  texts: readonly string[],
  first: number,
  milliseconds: boolean | undefined,
): TimeFormat | TimeFault {
  const cell = texts[first]!;
  if (ISO.test(cell)) return 'iso';
  if (ONLY_CLOCK.test(cell)) return 'clock';
  if (SHORT_CLOCK.test(cell)) {
    return {
      at: first,
      message: `“${cell}” may be hours and minutes or minutes and seconds`,
      asks: true,
    };
  }
  const dated = WITH_DATE.exec(cell);
  if (dated) return dateOrder(texts, first, dated[2]!);
  return numberFormat(texts, first, milliseconds);
}

/** Day or month first: with points the day; else whatever a number above twelve tells. */
function dateOrder(texts: readonly string[], first: number, mark: string): TimeFormat | TimeFault {
  if (mark === '.') return 'day-month';
  for (const text of texts) {
    const m = WITH_DATE.exec(text);
    if (m && Number(m[1]) > 12) return 'day-month';
    if (m && Number(m[3]) > 12) return 'month-day';
  }
  const date = texts[first]!.split(/[ T]/)[0]!.replace(/,$/, '');
  return { at: first, message: `“${date}” may be day-month or month-day`, asks: true };
}

function numberFormat(
  texts: readonly string[],
  first: number,
  milliseconds: boolean | undefined,
): TimeFormat | TimeFault {
  const found = decimalOf(texts);
  if ('mixed' in found) {
    const at = texts.indexOf(found.mixed[1]);
    return { at, message: `“${found.mixed[1]}” stands in one column with “${found.mixed[0]}”` };
  }
  if ('either' in found) {
    const at = texts.indexOf(found.either);
    return { at, message: `“${found.either}” may be a decimal or thousands`, asks: true };
  }
  const numbers = texts.flatMap((t) => {
    const x = logNumber(t, found.decimal);
    return typeof x === 'number' ? [x] : [];
  });
  if (typeof logNumber(texts[first]!, found.decimal) !== 'number') {
    return { at: first, message: `“${texts[first]!}” is no time` };
  }
  if (milliseconds !== undefined) return milliseconds ? 'milliseconds' : 'seconds';
  const steps = numbers.slice(1).map((x, i) => x - numbers[i]!);
  const usual = steps.sort((a, b) => a - b)[Math.floor(steps.length / 2)] ?? 0;
  if (usual >= EITHER_STEP && numbers.every(Number.isInteger)) {
    return { at: first, message: `steps of ${usual} may be milliseconds or seconds`, asks: true };
  }
  return 'seconds';
}
