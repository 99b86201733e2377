import { createHash } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { capsOf } from '@zugluft/core/case/laboratory';
import { openCase, type CaseRequest } from '@zugluft/core/case/openCase';
import { articleSchema, NO_ARTICLE, type Article } from '@zugluft/core/report/article';
import { CARD_SIZES } from '@zugluft/core/report/cardChart';
import { UNIT_SYSTEMS } from '@zugluft/core/report/quantity';
import { reportOf, type MeasuredState } from '@zugluft/core/report/report';
import { readLogFile } from '@zugluft/core/service/logFile';
import type { OpenUpLog } from '@zugluft/core/service/openUpLog';
import { SHOWN_DRAWS, SHOWN_SEED } from '@zugluft/core/uncertainty/wattsBand';
import { verdictOf } from '@zugluft/core/verdict/verdict';
import { PAPERS, REPORT_FORMATS } from '@zugluft/publish/formats';
import { writeReport } from '@zugluft/publish/writeReport';
import program from '../package.json';
import { answered, type Answered } from './answered';
import { BadInput } from './badInput';
import { calibrationOfRuns, type SteadyOfRun } from './calibrationOfRuns';
import { capsOption, drawOptions } from './options';
import { parsedWithRecord } from './parsed';
import { recordOfFile, textOfFile } from './recordFile';

const USAGE =
  'usage: npm run --silent report -- RECORD.json [--runs RUNS.zip] [--log LOG.json] [--words WORDS.md] [--cap 36] [--setting ID] [--units metric|imperial|both] [--paper a4|letter] [--draws 400] [--seed 1] [--size 1200x675] --as html|pdf|md|json|csv|svg|card-svg|card-png --out FILE';
const OPTIONS = {
  runs: { type: 'string' },
  log: { type: 'string' },
  words: { type: 'string' },
  cap: { type: 'string' },
  setting: { type: 'string' },
  units: { type: 'string' },
  paper: { type: 'string' },
  size: { type: 'string' },
  draws: { type: 'string' },
  seed: { type: 'string' },
  as: { type: 'string' },
  out: { type: 'string' },
} as const;

/**
 * The report command: the verdict on one machine as a file for readers.
 *
 * @param argv words after the command's name
 * @param tell told of progress
 * @returns the JSON document for stdout, which names the files that were written, and the exit code
 */
export const run = (
  argv: readonly string[],
  tell: (line: string) => void = () => undefined,
): Promise<Answered> => answered(() => report(argv, tell));

async function report(argv: readonly string[], tell: (line: string) => void): Promise<object> {
  const { values: v, file } = parsedWithRecord(argv, OPTIONS, USAGE, tell);
  const format = wordOption('--as', v.as, REPORT_FORMATS);
  if (v.out === undefined || v.out === '') throw new BadInput('--out', 'needs a file to write');
  const units = v.units === undefined ? 'metric' : wordOption('--units', v.units, UNIT_SYSTEMS);
  const paper = v.paper === undefined ? 'A4' : wordOption('--paper', v.paper.toUpperCase(), PAPERS);
  const size = v.size === undefined ? CARD_SIZES[0] : wordOption('--size', v.size, CARD_SIZES);
  const [cap] = v.cap === undefined ? [] : capsOption('--cap', v.cap, 1);
  const { draws = SHOWN_DRAWS, seed = SHOWN_SEED } = drawOptions(v);
  const record = recordOfFile(file);
  const plain: CaseRequest = { record, setting: v.setting };
  const { lab } = openCase(plain);
  const log = v.log === undefined ? null : logOf(v.log);
  const article = v.words === undefined ? undefined : wordsOf(v.words);
  const runs = v.runs === undefined ? null : await calibrationOfRuns(v.runs, plain, tell);
  const request = { ...plain, calibration: runs?.calibration ?? null };
  const verdict = verdictOf(request, {
    caps: capsOf(lab).filter((c) => typeof c === 'number'),
    cap,
    draws,
    seed,
    log,
    progress: (done, of) => tell(`${done} of ${of} figures`),
  });
  const made = reportOf({
    request,
    verdict,
    measured: (runs?.steady ?? []).map(measuredOf),
    article,
    units,
    trace: { record: tracedBy(record), program: program.version, draws, seed },
  });
  const files = await writeReport(made, format, basename(v.out), { paper, size });
  for (const { name, bytes } of files) write(join(dirname(v.out), name), bytes);
  return {
    format: 'zugluft-written',
    formatVersion: 1,
    headline: verdict.headline,
    files: files.map((f) => ({ file: join(dirname(v.out!), f.name), bytes: f.bytes.length })),
  };
}

function wordOption<T extends string>(
  path: string,
  text: string | undefined,
  known: readonly T[],
): T {
  const word = known.find((k) => k === text);
  if (word === undefined) throw new BadInput(path, `must be one of ${known.join(', ')}`);
  return word;
}

function logOf(file: string): OpenUpLog {
  const text = textOfFile(file, '--log');
  try {
    return readLogFile(text);
  } catch (cause) {
    throw new BadInput('--log', (cause as Error).message);
  }
}

/** An article, or any other text as its lead. */
function wordsOf(file: string): Article {
  const text = textOfFile(file, '--words');
  const read = text.trimStart().startsWith('{') ? jsonOf(text) : { ...NO_ARTICLE, lead: text };
  const taken = articleSchema.safeParse(read);
  if (taken.success) return taken.data;
  const [first] = taken.error.issues;
  throw new BadInput('--words', `${first!.path.join('.')} ${first!.message}`.trim());
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    // a text that only begins like one
    return { ...NO_ARTICLE, lead: text };
  }
}

/** A record without a revision is known by what it holds. */
const tracedBy = (record: object): string =>
  `sha256 ${createHash('sha256').update(JSON.stringify(record)).digest('hex').slice(0, 12)}`;

const measuredOf = ({ id, cpuW, gpuW, levelDbA, ambientC, done }: SteadyOfRun): MeasuredState => ({
  run: id,
  cpuW,
  gpuW,
  levelDbA: levelDbA ?? null,
  roomC: ambientC,
  done,
});

function write(file: string, bytes: Buffer): void {
  try {
    writeFileSync(file, bytes);
  } catch (cause) {
    const code = (cause as NodeJS.ErrnoException).code ?? 'failed';
    throw new BadInput('--out', `cannot write ${file}: ${code}`);
  }
}
