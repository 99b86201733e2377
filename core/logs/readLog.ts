import { channelOf, splitName, unitMeant, unitOfChannel, type Channel } from './channelNames';
import { decimalOf, isMissing, logNumber, type Decimal } from './logNumber';
import { logTable } from './logTable';
import { logTimes, type TimeFormat } from './logTime';
import { timeAxis, type ClockJump, type LogGap } from './timeAxis';

/** What a person said of a log's layout; what is left out is found. */
export interface LogMap {
  decimal?: Decimal | undefined;
  time?: { column: string; format?: TimeFormat | undefined } | undefined;
  channels?: readonly { column: string; is: Channel; unit?: string | undefined }[] | undefined;
}

/** One column of a log as numbers in its channel's unit; NaN where nothing was written. */
export interface LogColumn {
  column: string;
  is: Channel;
  unit: string;
  values: Float64Array;
}

export interface Log {
  /** From the first sample on, rising. */
  timeS: Float64Array;
  /** Line of the file of each sample, the first is 1. */
  lines: Int32Array;
  columns: LogColumn[];
  gaps: LogGap[];
  clockJumps: ClockJump[];
  problems: { row: number; column: string; message: string }[];
}

/** Why a log cannot be read; line and column count from 1. */
export interface LogFault {
  row: number;
  column: number;
  message: string;
}

/**
 * Reads a log whose lines were taken apart into cells.
 *
 * @param rows cells of every line, blank lines too
 * @param map what a person said of it
 * @param separatedByComma cells are separated by commas
 */
export function readLog(
  rows: readonly (readonly string[])[],
  map: LogMap = {},
  separatedByComma = false,
): { log: Log } | { fault: LogFault } {
  const table = logTable(rows);
  if (!table || table.data.length === 0) {
    return fault(0, 0, 'there is no header with figures below it');
  }
  const header = rows[table.header]!;
  const names = header.map((cell, k) => {
    const own = splitName(cell);
    const below = table.units === null ? '' : (rows[table.units]![k] ?? '').trim();
    return { column: cell.trim(), ...own, unit: own.unit || below };
  });
  const placeOf = (column: string) => names.findIndex((n) => n.column === column.trim());
  for (const { column } of [...(map.time ? [map.time] : []), ...(map.channels ?? [])]) {
    if (placeOf(column) < 0) return fault(table.header, 0, `there is no column “${column}”`);
  }
  const timeAt = map.time
    ? placeOf(map.time.column)
    : names.findIndex((n) => channelOf(n) === 'timeS');
  if (timeAt < 0) return fault(table.header, 0, 'no column is named as one of times');

  const cells = (k: number) => table.data.map((i) => rows[i]![k] ?? '');
  const timeUnit = unitMeant(names[timeAt]!.unit);
  const times = logTimes(
    cells(timeAt),
    map.time?.format,
    timeUnit?.unit === 's' ? timeUnit.factor < 1 : undefined,
  );
  if ('message' in times) return fault(table.data[times.at]!, timeAt, times.message);

  const problems: Log['problems'] = [];
  const columns: LogColumn[] = [];
  const taken = new Set<Channel>();
  for (let k = 0; k < names.length; k++) {
    if (k === timeAt || names[k]!.column === '') continue;
    const { column, unit } = names[k]!;
    const told = map.channels?.find((c) => c.column.trim() === column);
    const likely = told?.is ?? channelOf(names[k]!);
    const free = likely !== null && likely !== 'timeS' && !taken.has(likely);
    if (likely !== null && !free) {
      const message = `another column is taken as ${likely} already`;
      problems.push({ row: table.header + 1, column, message });
    }
    const is: Channel = free ? likely : `other.${column}`;
    taken.add(is);
    const own = cells(k);
    const found = map.decimal ? { decimal: map.decimal } : decimalOf(own, separatedByComma);
    if ('mixed' in found) {
      const at = own.indexOf(found.mixed[1]);
      const message = `“${found.mixed[1].trim()}” stands in one column with “${found.mixed[0]}”`;
      return fault(table.data[Math.max(0, at)]!, k, message);
    }
    if ('either' in found) {
      const at = own.findIndex((c) => c.trim() === found.either);
      const message = `“${found.either}” may be a decimal or thousands`;
      return fault(table.data[Math.max(0, at)]!, k, message);
    }
    const meant = unitMeant(told?.unit ?? unit);
    const wanted = unitOfChannel(is);
    if (wanted !== '' && meant && meant.unit !== wanted) {
      return fault(table.header, k, `${is} is in ${wanted}, not in ${told?.unit ?? unit}`);
    }
    const factor = wanted === '' ? 1 : (meant?.factor ?? 1);
    const values = new Float64Array(own.length).fill(NaN);
    own.forEach((cell, i) => {
      if (isMissing(cell)) return;
      const value = logNumber(cell, found.decimal);
      if (typeof value === 'number') values[i] = factor * value;
      else
        problems.push({
          row: table.data[i]! + 1,
          column,
          message: `“${cell.trim()}” is no number`,
        });
    });
    columns.push({ column, is, unit: wanted || unit, values });
  }

  const kept = [...times.seconds.keys()].filter((i) => Number.isFinite(times.seconds[i]));
  for (const i of times.seconds.keys()) {
    if (Number.isFinite(times.seconds[i])) continue;
    const message = 'has no time and is left out';
    problems.push({ row: table.data[i]! + 1, column: names[timeAt]!.column, message });
  }
  const pick = (values: Float64Array) => Float64Array.from(kept, (i) => values[i]!);
  for (const c of columns) c.values = pick(c.values);
  const axis = timeAxis(
    pick(times.seconds),
    times.format !== 'seconds' && times.format !== 'milliseconds',
    columns.filter((c) => c.unit === '°C').map((c) => c.values),
  );
  if ('at' in axis) return fault(table.data[kept[axis.at]!]!, timeAt, axis.message);
  return {
    log: {
      timeS: axis.timeS,
      lines: Int32Array.from(kept, (i) => table.data[i]! + 1),
      columns,
      gaps: axis.gaps,
      clockJumps: axis.clockJumps,
      problems,
    },
  };
}

const fault = (row: number, column: number, message: string): { fault: LogFault } => ({
  fault: { row: row + 1, column: column + 1, message },
});
