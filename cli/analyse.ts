import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { openCase, UnknownSettingError } from '@zugluft/core/case/openCase';
import type { LogMap } from '@zugluft/core/logs/logLayout';
import type { Log } from '@zugluft/core/logs/readLog';
import { readLogBytes } from '@zugluft/core/logs/readLogBytes';
import { holdAgainst, limitsOf } from '@zugluft/core/runs/against';
import { joinLogs, placeLogs, type LogPlace } from '@zugluft/core/runs/alignLogs';
import { analyseLog } from '@zugluft/core/runs/analyseLog';
import { analysisDocument, soundDocument } from '@zugluft/core/runs/analysisDocument';
import { partIdsOf, withPartIds } from '@zugluft/core/runs/partIds';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { BadInput } from './badInput';
import { logMapOfFile } from './logMapFile';
import { numberOption } from './options';
import { parsed } from './parsed';
import { recordOfFile } from './recordFile';
import { soundOfFile } from './soundOfFile';

const USAGE =
  'usage: npm run --silent analyse -- LOG… [--map MAP.json] [--record RECORD.json] [--setting ID] [--background DB] [--wav FILE --wav-offset DB] [--wav-channel N] [--from S --to S]';
/** A log larger than this is refused before it is read. */
const LARGEST_LOG = 2_000_000_000;
const MOST_LOGS = 20;
const PIECE = 1 << 20;

const OPTIONS = {
  map: { type: 'string' },
  record: { type: 'string' },
  setting: { type: 'string' },
  background: { type: 'string' },
  wav: { type: 'string' },
  'wav-offset': { type: 'string' },
  'wav-channel': { type: 'string' },
  from: { type: 'string' },
  to: { type: 'string' },
} as const;

async function logOfFile(
  file: string,
  id: string,
  map: LogMap,
  progress: (samples: number) => void,
): Promise<Log> {
  let size: number;
  try {
    const found = await stat(file);
    if (!found.isFile()) throw new BadInput(id, `${file} is no file`);
    size = found.size;
  } catch (cause) {
    if (cause instanceof BadInput) throw cause;
    throw new BadInput(
      id,
      `cannot read ${file}: ${(cause as NodeJS.ErrnoException).code ?? 'failed'}`,
    );
  }
  if (size > LARGEST_LOG) {
    throw new BadInput(id, `${file} has ${(size / 1e9).toFixed(1)} GB: at most 2 GB are read`);
  }
  const read = await readLogBytes(createReadStream(file, { highWaterMark: PIECE }), {
    map,
    progress,
  });
  if ('log' in read) return read.log;
  const { row, column, message } = read.fault;
  throw new BadInput(`${id}:row ${row}:column ${column}`, message);
}

/**
 * The analyse command.
 *
 * @param argv words after the command's name
 * @param tell told of progress while it works
 * @returns the JSON document for stdout, lines for stderr, and the exit code
 */
export async function run(
  argv: readonly string[],
  tell: (line: string) => void = () => undefined,
): Promise<{ stdout: string; stderr: string[]; code: number }> {
  const stderr: string[] = [];
  try {
    return { stdout: JSON.stringify(await analyse(argv, tell, stderr)), stderr, code: 0 };
  } catch (cause) {
    if (cause instanceof BadInput || cause instanceof UnknownSettingError) {
      const path = cause instanceof BadInput ? cause.path : 'settings';
      return {
        stdout: JSON.stringify({ error: { path, message: cause.message } }),
        stderr,
        code: 2,
      };
    }
    throw cause;
  }
}

/** The record it is held against; what is wrong with it is not taken for the log's. */
function recordFor(file: string): CaseRecord {
  try {
    return recordOfFile(file);
  } catch (cause) {
    if (!(cause instanceof BadInput)) throw cause;
    throw new BadInput(['--record', cause.path].filter(Boolean).join('.'), cause.message);
  }
}

async function analyse(
  argv: readonly string[],
  tell: (line: string) => void,
  stderr: string[],
): Promise<object> {
  const { values, positionals: files } = parsed(argv, OPTIONS, USAGE, (line) => stderr.push(line));
  if (files.length === 0 && values.wav === undefined) {
    stderr.push(USAGE);
    throw new BadInput('', 'needs a log or a recording');
  }
  if (files.length > MOST_LOGS) throw new BadInput('', `at most ${MOST_LOGS} logs at once`);
  const backgroundDbA = numberOption('--background', values.background, -20, 140) ?? null;
  const fromS = numberOption('--from', values.from, 0, 1e9);
  const toS = numberOption('--to', values.to, 0, 1e9);
  if (fromS !== undefined && toS !== undefined && toS <= fromS) {
    throw new BadInput('--to', 'must be later than --from');
  }
  const offset = numberOption('--wav-offset', values['wav-offset'], -200, 300);
  const channel = numberOption('--wav-channel', values['wav-channel'], 1, 64) ?? 1;
  if (!Number.isInteger(channel)) throw new BadInput('--wav-channel', 'must be a whole number');
  if (values.wav !== undefined && offset === undefined) {
    stderr.push('without --wav-offset levels are told against a sine of full scale');
  }
  const map = values.map === undefined ? {} : logMapOfFile(values.map);
  const record = values.record === undefined ? null : recordFor(values.record);
  const request = record ? { record, setting: values.setting } : null;
  const open = request ? openCase(request) : null;

  let told = 0;
  const logs: Log[] = [];
  for (const [k, file] of files.entries()) {
    const log = await logOfFile(file, `log-${k + 1}`, map, (samples) => {
      if (samples - told < 100_000) return;
      told = samples;
      tell(`${samples} rows read`);
    });
    logs.push(open ? { ...log, columns: withPartIds(log.columns, partIdsOf(open)) } : log);
  }
  let places: LogPlace[] = [];
  if (logs.length > 0) {
    const found = placeLogs(logs);
    if (!Array.isArray(found))
      throw new BadInput(`log-${found.at + 1}:row 1:column 1`, found.message);
    places = found;
  }
  const log = logs.length > 0 ? joinLogs(logs, places) : null;
  const lasts = log ? log.timeS[log.timeS.length - 1]! : 0;
  if (log && fromS !== undefined && fromS > lasts) {
    throw new BadInput('--from', `the log ends after ${lasts.toFixed(1)} s`);
  }
  let tenth = 0;
  const heard =
    values.wav === undefined
      ? null
      : await soundOfFile(values.wav, offset ?? 0, channel, (share) => {
          if (Math.floor(10 * share) === tenth) return;
          tenth = Math.floor(10 * share);
          tell(`${10 * tenth} % of the recording heard`);
        });
  const sound = soundDocument(heard, log, backgroundDbA);
  const analysis = log
    ? analyseLog(log, {
        limits: open ? limitsOf(open) : null,
        backgroundDbA,
        window: { fromS, toS },
      })
    : null;
  const last = analysis?.steady[analysis.steady.length - 1];
  const level = heard ? (sound?.leqDbA ?? null) : null;
  const against = request && last ? holdAgainst(request, last, level) : null;
  for (const p of log?.problems ?? []) stderr.push(`row ${p.row} ${p.column}: ${p.message}`);
  return analysisDocument(log, analysis, sound, against, places);
}
