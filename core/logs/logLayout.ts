import { channelOf, unitMeant, unitOfChannel, type Channel, type ColumnName } from './channelNames';
import { columnReader, type ColumnReader } from './columnReader';
import type { Decimal } from './logNumber';
import type { RowKind } from './logTable';
import { timeReader, type TimeFormat, type TimeReader } from './logTime';

/** What a person said of a log's layout; what is left out is found. */
export interface LogMap {
  separator?: string | undefined;
  decimal?: Decimal | undefined;
  time?: { column?: string | undefined; format?: TimeFormat | undefined } | undefined;
  channels?: readonly { column: string; is: Channel; unit?: string | undefined }[] | undefined;
}

/** Columns and how each is read, once the header is known. */
export interface Layout {
  header: number;
  width: number;
  kindOf: (cells: readonly string[]) => RowKind;
  timeAt: number;
  /** Column of a date that stands apart from the clock. */
  dateAt: number | null;
  times: TimeReader;
  columns: { at: number; column: string; is: Channel; unit: string; reader: ColumnReader }[];
}

/** The cell that tells a sample's time; a date in a column of its own goes before the clock. */
export const timeCell = (
  cells: readonly string[],
  timeAt: number,
  dateAt: number | null,
): string =>
  dateAt === null
    ? (cells[timeAt] ?? '')
    : `${(cells[dateAt] ?? '').trim()} ${(cells[timeAt] ?? '').trim()}`.trim();

type Found =
  | { layout: Omit<Layout, 'header' | 'kindOf'>; problems: { column: string; message: string }[] }
  /** Rows count from the first below the header; −1 is the header's own. */
  | { fault: { row: number; column: number; message: string; asks?: true } };

const DATE = /^(date|datum)$/i;
const CLOCK = /^(time|zeit|uhrzeit|clock)$/i;

/** A column by what stands in its header: all of it, and name and unit apart. */
export type NamedColumn = ColumnName & { column: string };

/** What each column is, and how times are written. */
export function layoutOf(
  below: readonly (readonly string[])[],
  names: readonly NamedColumn[],
  kindOf: (cells: readonly string[]) => RowKind,
  map: LogMap,
  expected: number,
): Found {
  const placeOf = (column: string) => names.findIndex((n) => n.column === column.trim());
  const told = [map.time?.column, ...(map.channels ?? []).map((c) => c.column)];
  for (const column of told) {
    if (column !== undefined && placeOf(column) < 0) {
      return { fault: { row: -1, column: 0, message: `there is no column “${column}”` } };
    }
  }
  const dates = names.findIndex((n) => DATE.test(n.name));
  const clocks = names.findIndex((n) => CLOCK.test(n.name));
  const apart = map.time?.column === undefined && dates >= 0 && clocks >= 0;
  const timeAt =
    map.time?.column !== undefined
      ? placeOf(map.time.column)
      : apart
        ? clocks
        : names.findIndex((n) => channelOf(n) === 'timeS');
  if (timeAt < 0) {
    const message = 'no column is named as one of times';
    return { fault: { row: -1, column: 0, message, asks: true } };
  }
  const dateAt = apart ? dates : null;
  const unit = unitMeant(names[timeAt]!.unit);
  const rows = [...below.keys()].filter((i) => kindOf(below[i]!) === 'data');
  const times = timeReader(
    rows.map((i) => timeCell(below[i]!, timeAt, dateAt)),
    map.time?.format,
    unit?.unit === 's' ? unit.factor < 1 : undefined,
  );
  if ('message' in times) {
    const { at, ...said } = times;
    return { fault: { row: rows[at] ?? 0, column: timeAt, ...said } };
  }
  const columns: Layout['columns'] = [];
  const problems: { column: string; message: string }[] = [];
  const taken = new Set<Channel>();
  for (let at = 0; at < names.length; at++) {
    const { column } = names[at]!;
    if (at === timeAt || at === dateAt || column === '') continue;
    const said = map.channels?.find((c) => c.column.trim() === column);
    const likely = said?.is ?? channelOf(names[at]!);
    const free = likely !== null && likely !== 'timeS' && !taken.has(likely);
    if (likely !== null && !free) {
      problems.push({ column, message: `another column is taken as ${likely} already` });
    }
    const is: Channel = free ? likely : `other.${column}`;
    taken.add(is);
    const written = said?.unit ?? names[at]!.unit;
    const meant = unitMeant(written);
    const wanted = unitOfChannel(is);
    if (wanted !== '' && meant && meant.unit !== wanted) {
      const message = `${is} is in ${wanted}, not in ${written}`;
      return { fault: { row: -1, column: at, message } };
    }
    const factor = wanted === '' ? 1 : (meant?.factor ?? 1);
    const reader = columnReader(map.decimal, factor, expected);
    columns.push({ at, column, is, unit: wanted || names[at]!.unit, reader });
  }
  return { layout: { width: names.length, timeAt, dateAt, times, columns }, problems };
}
