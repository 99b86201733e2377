import { createWriteStream } from 'node:fs';
import { open, rename } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import Papa from 'papaparse';
import { Float64, makeData, Table, tableFromIPC, tableToIPC, Vector } from 'apache-arrow';
import type { Channel } from '@zugluft/core/logs/channelNames';
import type { Log } from '@zugluft/core/logs/readLog';

/** A log's facts that are not samples, kept as the table's metadata. */
type Facts = Pick<Log, 'clockS' | 'dated' | 'gaps' | 'clockJumps' | 'problems'>;

const TIME = 'timeS';
const LINE = 'line';

const column = (values: Float64Array) =>
  new Vector([makeData({ type: new Float64(), length: values.length, data: values })]);

/**
 * Samples of a log as one columnar file, Apache Arrow IPC: a column for the time, one for the file's line, one for each channel,
 * whose name, unit and first name in the log stand in its metadata.
 */
export function writeSamples(log: Log): Uint8Array {
  const { timeS, lines, columns, ...facts } = log;
  const table = new Table({
    [TIME]: column(timeS),
    [LINE]: column(lines),
    ...Object.fromEntries(columns.map((c, k) => [`${k}:${c.is}`, column(c.values)])),
  });
  const { schema } = table;
  schema.metadata.set('zugluft', JSON.stringify({ ...(facts satisfies Facts) }));
  schema.metadata.set(
    'channels',
    JSON.stringify(columns.map(({ column: name, is, unit }) => ({ column: name, is, unit }))),
  );
  return tableToIPC(table, 'file');
}

/** Reads what {@link writeSamples} wrote. */
export function readSamples(bytes: Uint8Array): Log {
  const table = tableFromIPC(bytes);
  const facts = JSON.parse(table.schema.metadata.get('zugluft') ?? '{}') as Facts;
  const channels = JSON.parse(table.schema.metadata.get('channels') ?? '[]') as {
    column: string;
    is: Channel;
    unit: string;
  }[];
  const values = (name: string): Float64Array => {
    const found = table.getChild(name);
    if (!found) throw new Error(`the samples lack ${name}`);
    return found.toArray() as Float64Array;
  };
  return {
    ...facts,
    timeS: values(TIME),
    lines: values(LINE),
    columns: channels.map((c, k) => ({ ...c, values: values(`${k}:${c.is}`) })),
  };
}

/** Written under another name first: what is there under its own is whole. */
export async function writeWhole(path: string, content: Uint8Array | string): Promise<void> {
  const draft = `${path}.draft`;
  const handle = await open(draft, 'w');
  try {
    await handle.writeFile(content);
    await handle.sync();
  } finally {
    await handle.close();
  }
  await rename(draft, path);
}

/** Lines that are written at a time. */
const LINES = 2000;
/** Figures as far as an instrument tells them. */
const DIGITS = 7;

/**
 * Writes a log as a tidy table: a row for each moment, a column for each channel under its own name, so that the program reads it
 * as any other log.
 *
 * @returns rows
 */
export async function writeSamplesCsv({ timeS, columns }: Log, file: string): Promise<number> {
  const n = timeS.length;
  const cell = (x: number) => (Number.isFinite(x) ? String(Number(x.toPrecision(DIGITS))) : '');
  function* lines() {
    yield `${Papa.unparse([[TIME, ...columns.map((c) => c.is)]])}\n`;
    for (let from = 0; from < n; from += LINES) {
      let text = '';
      for (let i = from; i < Math.min(n, from + LINES); i++) {
        text += cell(timeS[i]!);
        for (const c of columns) text += `,${cell(c.values[i]!)}`;
        text += '\n';
      }
      yield text;
    }
  }
  await pipeline(Readable.from(lines()), createWriteStream(file));
  return n;
}
