import { canBe, splitName, unitOfChannel, type Channel } from './channelNames';
import { growing } from './growing';
import type { Decimal } from './logNumber';
import { layoutOf, timeCell, type Layout, type LogMap, type NamedColumn } from './logLayout';
import { LOOKED_AT, logTable, rowKinds } from './logTable';
import { noTime } from './logTime';
import { cellOf, cellsOf, roomForLine, scanLine, type ScannedLine } from './scanLine';
import { timeAxis, type ClockJump, type LogGap } from './timeAxis';

/** One column of a log as numbers in its channel's unit; NaN where nothing was written. */
export interface LogColumn {
  column: string;
  is: Channel;
  unit: string;
  values: Float64Array;
}

/** Something of a log that could not be taken, while the rest is kept. */
export interface LogProblem {
  row: number;
  column: string;
  message: string;
}

export interface Log {
  /** From the first sample on, rising. */
  timeS: Float64Array;
  /** The first sample by its clock, s; since 1970 where it has a date, null where times only count. */
  clockS: number | null;
  /** The clock has a date. */
  dated: boolean;
  /** Line of the file of each sample, the first is 1. */
  lines: Float64Array;
  columns: LogColumn[];
  gaps: LogGap[];
  clockJumps: ClockJump[];
  problems: LogProblem[];
}

/** Why a log cannot be read; line and column count from 1. */
export interface LogFault {
  row: number;
  column: number;
  message: string;
  /** Where a person may say how it is meant: the columns there are. */
  asks?: string[];
}

/** Rows that are looked at before anything is decided: what times are, where the header stands. */
const LOOKED_AHEAD = 5000;
/** Columns of a log that are taken. */
const MOST_COLUMNS = 2000;
const MARK: Readonly<Record<Decimal, number>> = { '.': 46, ',': 44 };
const DIGIT_0 = 48;
const DIGIT_9 = 57;
/** Problems that are listed; more are counted. */
const MAX_PROBLEMS = 200;

/** Takes the rows of a log one after the other, and gives the log at the end. */
export interface LogReader {
  /** @returns the fault for which nothing more need be read */
  add: (cells: readonly string[]) => LogFault | null;
  /** Takes whole lines in UTF-8 that hold no quotes. @returns how many bytes, or the fault */
  addBytes: (bytes: Uint8Array, separator: string) => number | LogFault;
  /** Data rows so far. */
  samples: () => number;
  end: () => { log: Log } | { fault: LogFault };
}

/**
 * Reads a log row by row in bounded memory: a few thousand rows are held back until header, columns and times are understood,
 * then each cell becomes a number as it comes.
 *
 * @param map what a person said of it
 * @param separatedByComma cells are separated by commas, so that 1,234 without quotes is no cell
 * @param expected about how many rows are to come
 */
export function logReader(map: LogMap = {}, separatedByComma = false, expected = 0): LogReader {
  let held: (readonly string[])[] | null = [];
  let layout: Layout | null = null;
  let scanned = roomForLine(MOST_COLUMNS);
  let line = 0;
  let ended = false;
  let stopped: LogFault | null = null;
  const seconds = growing(expected);
  const lines = growing(expected);
  const problems: LogProblem[] = [];
  let more = 0;
  const problem = (row: number, column: string, message: string) => {
    if (problems.length < MAX_PROBLEMS) problems.push({ row, column, message });
    else more++;
  };
  /** Last sample whose line was cut: it may hold half a number. */
  let cut: { line: number; cells: readonly string[] } | null = null;

  const take = (l: Layout, cells: readonly string[], at: number): LogFault | null => {
    if (ended) return null;
    const kind = l.kindOf(cells);
    if (kind === 'footer') ended = true;
    if (kind !== 'data') return null;
    if (cut) {
      const told = `the line is cut: ${cut.cells.length} of ${l.width} cells; its last is left out`;
      problem(cut.line, '', told);
      const before = cut;
      cut = null;
      const fault = keep(l, before.cells.slice(0, -1), before.line);
      if (fault) return fault;
    }
    if (
      cells.length < l.width &&
      cells.length <= Math.max(l.timeAt, ...l.columns.map((c) => c.at))
    ) {
      cut = { line: at, cells: [...cells] };
      return null;
    }
    return keep(l, cells, at);
  };
  const keep = (l: Layout, cells: readonly string[], at: number): LogFault | null => {
    const cell = timeCell(cells, l.timeAt, l.dateAt);
    const time = l.times.read(cell);
    if (time === undefined) {
      return fault(at - 1, l.timeAt, noTime(cell, l.times.format));
    }
    if (!Number.isFinite(time)) {
      problem(at, nameAt(l.timeAt), 'has no time and is left out');
      return null;
    }
    seconds.push(time);
    lines.push(at);
    for (const c of l.columns) {
      const text = cells[c.at] ?? '';
      const said = c.reader.add(text);
      if (said === null) continue;
      if (said !== true) return fault(at - 1, c.at, said.message);
      problem(at, c.column, `“${text.trim()}” is no number`);
    }
    return null;
  };
  let names: NamedColumn[] = [];
  const nameAt = (k: number) => names[k]?.column ?? '';
  const columnNames = () => names.map((n) => n.column).filter(Boolean);

  /** Understands what is held, and reads it. */
  const understand = (): LogFault | null => {
    const rows = held!;
    held = null;
    const table = logTable(rows);
    if (!table) return fault(0, 0, 'there is no header with figures below it');
    const header = rows[table.header]!;
    names = header.map((cell, k) => {
      const own = splitName(cell);
      const below = table.units === null ? '' : (rows[table.units]![k] ?? '').trim();
      return { column: cell.trim(), ...own, unit: own.unit || below };
    });
    const kindOf = rowKinds(rows, table);
    const first = (table.units ?? table.header) + 1;
    const found = layoutOf(rows.slice(first), names, kindOf, map, expected);
    if ('fault' in found) {
      const { row, column, message, asks } = found.fault;
      const said = fault(row < 0 ? table.header : first + row, column, message);
      return asks ? { ...said, asks: columnNames() } : said;
    }
    layout = { ...found.layout, header: table.header, kindOf };
    scanned = roomForLine(Math.min(MOST_COLUMNS, layout.width + 1));
    for (const { column, message } of found.problems) problem(table.header + 1, column, message);
    for (let i = first; i < rows.length; i++) {
      const bad = take(layout, rows[i]!, i + 1);
      if (bad) return bad;
    }
    return null;
  };

  /** Takes a line whose cells are plain numbers or empty but for its time; false where it needs a closer look. */
  const keepPlain = (
    l: Layout,
    bytes: Uint8Array,
    scanned: ScannedLine,
    mark: Decimal,
  ): boolean => {
    if (scanned.cells !== l.width || cut || ended) return false;
    const { value, from, to, marked } = scanned;
    const { timeAt, times } = l;
    for (const c of l.columns) {
      const plain = value[c.at] === value[c.at];
      if (!plain && from[c.at] !== to[c.at]) return false;
      if (marked[c.at] && c.reader.decimal() !== mark) return false;
    }
    const number = times.plain && times.plain.decimal === mark ? value[timeAt]! : NaN;
    let time = number * (times.plain?.factor ?? 1);
    if (time !== time) {
      if (l.dateAt !== null || from[timeAt] === to[timeAt]) return false;
      const first = bytes[from[timeAt]!]!;
      // words may be those of a footer
      if (first < DIGIT_0 || first > DIGIT_9) return false;
      time = times.read(cellOf(bytes, scanned, timeAt)) ?? NaN;
      if (time !== time) return false;
    }
    seconds.push(time);
    lines.push(line + 1);
    for (const c of l.columns) c.reader.addNumber(value[c.at]!);
    return true;
  };
  const add = (cells: readonly string[]): LogFault | null => {
    line++;
    if (stopped) return stopped;
    if (layout) return (stopped = take(layout, cells, line));
    held!.push(cells);
    const lost = held!.length === LOOKED_AT && !logTable(held!);
    return held!.length >= LOOKED_AHEAD || lost ? (stopped = understand()) : null;
  };
  const addBytes = (bytes: Uint8Array, separator: string): number | LogFault => {
    const between = separator.charCodeAt(0);
    let at = 0;
    let mark: Decimal = '.';
    let known = false;
    for (;;) {
      if (layout && !known) {
        const marks = layout.columns.map((c) => c.reader.decimal());
        mark = layout.times.plain?.decimal ?? marks.find((m) => m !== null) ?? '.';
        known = true;
      }
      const next = scanLine(bytes, at, between, MARK[mark], scanned);
      if (next < 0) return at;
      if (layout && keepPlain(layout, bytes, scanned, mark)) line++;
      else {
        const bad = add(cellsOf(bytes, scanned));
        if (bad) return bad;
      }
      at = next;
    }
  };

  return {
    samples: () => lines.length,
    add,
    addBytes,
    end: () => {
      if (!stopped && !layout) stopped = understand();
      if (stopped) return { fault: stopped };
      const l = layout!;
      if (cut) problem(cut.line, '', 'the last line is cut and left out');
      if (lines.length === 0) return { fault: fault(l.header, 0, 'there is no row of figures') };
      const lineOf = lines.take();
      const told = [l.times.told, ...l.columns.map((c) => c.reader.decimal())];
      const marks = new Set(told.filter((d) => d !== null));
      const other = marks.size === 1 ? [...marks][0]! : separatedByComma ? '.' : null;
      const columns: LogColumn[] = [];
      for (const { at, column, is, unit, reader } of l.columns) {
        const read = reader.end(other);
        if ('fault' in read) {
          const said = fault(lineOf[read.fault.at]! - 1, at, read.fault.message);
          return { fault: { ...said, asks: columnNames() } };
        }
        columns.push({ column, is, unit, values: read.values });
        const beyond = leaveOutImpossible(read.values, is);
        if (beyond) problem(lineOf[beyond.at]!, column, beyond.message);
        const lacks = is.startsWith('other.') ? null : emptyWords(read.values);
        if (lacks) problem(l.header + 1, column, lacks);
      }
      const raw = seconds.take();
      if (raw.length > 1 && raw.every((t) => t === raw[0])) {
        return { fault: fault(lineOf[1]! - 1, l.timeAt, 'no time passes in this log') };
      }
      const ofClock = !['seconds', 'milliseconds'].includes(l.times.format);
      const warm = columns.filter((c) => c.unit === '°C').map((c) => c.values);
      const axis = timeAxis(raw, ofClock, warm);
      if ('at' in axis) return { fault: fault(lineOf[axis.at]! - 1, l.timeAt, axis.message) };
      if (axis.repeated) {
        problem(lineOf[axis.repeated.at]!, nameAt(l.timeAt), repeatedWords(axis.repeated.count));
      }
      if (more > 0) problems.push({ row: 0, column: '', message: `and ${more} more of this kind` });
      return {
        log: {
          timeS: axis.timeS,
          clockS: ofClock ? raw[0]! : null,
          dated: ofClock && l.times.format !== 'clock',
          lines: lineOf,
          columns,
          gaps: axis.gaps,
          clockJumps: axis.clockJumps,
          problems,
        },
      };
    },
  };
}

/** Makes what a channel cannot read missing; says where it stands first and how often. */
function leaveOutImpossible(
  values: Float64Array,
  is: Channel,
): { at: number; message: string } | null {
  const { low, high } = canBe(is);
  let at = -1;
  let first = 0;
  let count = 0;
  for (let i = 0; i < values.length; i++) {
    const x = values[i]!;
    if (!(x < low || x > high)) continue;
    if (count++ === 0) {
      at = i;
      first = x;
    }
    values[i] = NaN;
  }
  if (count === 0) return null;
  const more = count > 1 ? `, like ${count - 1} more below it` : '';
  return { at, message: `${first} ${unitOfChannel(is)} cannot be and is left out${more}` };
}

/** What is said of a column that tells nothing; null where it does. */
function emptyWords(values: Float64Array): string | null {
  let zero = true;
  let empty = true;
  for (const x of values) {
    if (x !== x) continue;
    empty = false;
    if (x !== 0) zero = false;
    if (!zero) return null;
  }
  return empty ? 'holds no figure' : 'is zero in every row: its sensor may not be read';
}

const repeatedWords = (count: number) =>
  count === 1
    ? 'has the time of the line above: it is taken as lying between its neighbours'
    : `${count} lines have the time of the line above, this one first: they are taken as evenly spaced`;

/**
 * Reads a log whose lines were taken apart into cells, see {@link logReader}.
 *
 * @param rows cells of every line, blank lines too
 */
export function readLog(
  rows: readonly (readonly string[])[],
  map: LogMap = {},
  separatedByComma = false,
): { log: Log } | { fault: LogFault } {
  const reader = logReader(map, separatedByComma);
  for (const cells of rows) {
    const bad = reader.add(cells);
    if (bad) return { fault: bad };
  }
  return reader.end();
}

const fault = (row: number, column: number, message: string): LogFault => ({
  row: row + 1,
  column: column + 1,
  message,
});
