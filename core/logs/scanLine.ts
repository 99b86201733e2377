const ZERO = 48;
const NINE = 57;
const LINE_FEED = 10;
const RETURN = 13;
const MINUS = 45;
/** Digits up to which a whole number is exact. */
const MOST_DIGITS = 15;
const TENTHS = Float64Array.from({ length: MOST_DIGITS + 1 }, (_, k) => 10 ** k);

/** Cells of one line as they stand in some bytes, with what is a plain number already read. */
export interface ScannedLine {
  /** Cells found; those beyond the room for them are counted only. */
  cells: number;
  from: Int32Array;
  to: Int32Array;
  /** NaN where a cell is no plain number of digits and at most one mark. */
  value: Float64Array;
  /** The cell holds a decimal mark. */
  marked: Uint8Array;
}

/** Room for a line of so many cells. */
export function roomForLine(width: number): ScannedLine {
  return {
    cells: 0,
    from: new Int32Array(width),
    to: new Int32Array(width),
    value: new Float64Array(width),
    marked: new Uint8Array(width),
  };
}

/**
 * Takes one line apart without making anything on the way: nearly all cells of a log are plain numbers, and a string for each
 * would cost more than all else. Lines with quotes are not for it.
 *
 * @param bytes some lines in UTF-8
 * @param at where the line begins
 * @param separator character code of what stands between cells
 * @param mark character code of the decimal mark
 * @param out overwritten
 * @returns where the next line begins; −1 where this one does not end in them
 */
export function scanLine(
  bytes: Uint8Array,
  at: number,
  separator: number,
  mark: number,
  out: ScannedLine,
): number {
  const room = out.from.length;
  const n = bytes.length;
  let cells = 0;
  let from = at;
  let digits = 0;
  let whole = 0;
  let decimals = -1;
  let minus = false;
  let plain = true;
  for (let i = at; i < n; i++) {
    const code = bytes[i]!;
    if (code >= ZERO && code <= NINE) {
      whole = 10 * whole + (code - ZERO);
      digits++;
      if (decimals >= 0) decimals++;
    } else if (code === separator || code === LINE_FEED) {
      if (cells < room) {
        const end = code === LINE_FEED && i > from && bytes[i - 1] === RETURN ? i - 1 : i;
        out.from[cells] = from;
        out.to[cells] = end;
        out.marked[cells] = decimals >= 0 ? 1 : 0;
        // one division of two exact numbers rounds as reading the text does
        const value = decimals > 0 ? whole / TENTHS[decimals]! : whole;
        out.value[cells] =
          plain && digits > 0 && digits <= MOST_DIGITS ? (minus ? -value : value) : NaN;
      }
      cells++;
      if (code === LINE_FEED) {
        out.cells = cells;
        return i + 1;
      }
      from = i + 1;
      digits = 0;
      whole = 0;
      decimals = -1;
      minus = false;
      plain = true;
    } else if (code === mark && decimals < 0 && digits > 0) decimals = 0;
    else if (code === MINUS && i === from) minus = true;
    else if (code !== RETURN) plain = false;
  }
  return -1;
}

const DECODER = new TextDecoder();

/** One cell of a scanned line as a string. */
export function cellOf(bytes: Uint8Array, line: ScannedLine, k: number): string {
  return DECODER.decode(bytes.subarray(line.from[k], line.to[k]));
}

/** The cells of a scanned line as strings. */
export function cellsOf(bytes: Uint8Array, line: ScannedLine): string[] {
  const cells: string[] = [];
  const most = Math.min(line.cells, line.from.length);
  for (let k = 0; k < most; k++) cells.push(cellOf(bytes, line, k));
  return cells;
}
