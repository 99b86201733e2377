import { readLog, type Log } from '../logs/readLog';

/** A log of a file of commas that is known to be one. */
export function logOfCsv(csv: string): Log {
  const rows = csv
    .trimEnd()
    .split('\n')
    .map((line) => line.split(','));
  const read = readLog(rows, {}, true);
  if ('fault' in read) throw new Error(read.fault.message);
  return read.log;
}
