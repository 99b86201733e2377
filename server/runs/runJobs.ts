import { createReadStream } from 'node:fs';
import { open, readFile, rename, stat } from 'node:fs/promises';
import { calibrate } from '@zugluft/core/calibration/calibrate';
import type { SteadyRun } from '@zugluft/core/calibration/steadyRun';
import { openCase, type CaseRequest } from '@zugluft/core/case/openCase';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { KeptRun, Series, TakenLog } from '@zugluft/core/library/runAnswers';
import type { Log, LogFault } from '@zugluft/core/logs/readLog';
import type { LogMap } from '@zugluft/core/logs/logLayout';
import { readLogBytes } from '@zugluft/core/logs/readLogBytes';
import { usualStep } from '@zugluft/core/logs/timeAxis';
import { holdAgainst, limitsOf } from '@zugluft/core/runs/against';
import { joinLogs, placeLogs, type LogPlace } from '@zugluft/core/runs/alignLogs';
import { analyseLog } from '@zugluft/core/runs/analyseLog';
import { analysisDocument, soundDocument } from '@zugluft/core/runs/analysisDocument';
import { foretoldResult, type ForetoldResult } from '@zugluft/core/runs/foretoldResult';
import { foretell, type RunForetold } from '@zugluft/core/runs/foretell';
import { partIdsOf, withPartIds } from '@zugluft/core/runs/partIds';
import { pixelSeries } from '@zugluft/core/runs/pixelSeries';
import type { RunDocument } from '@zugluft/core/runs/runDocument';
import { steadyRunOf } from '@zugluft/core/runs/steadyRunOf';
import { readSamples, writeSamples } from './sampleFile';

/** A log of a run: where its samples lie, and where a person put it. */
export interface RunLog {
  samples: string;
  /** Null: where the clocks or the load say. */
  offsetS: number | null;
}

/** What the thread of runs does. */
export type RunJob =
  /** `bytes`: as far as lines are whole, of a file that grows. */
  | { do: 'read'; file: string; samples: string; map: LogMap; bytes?: number }
  | {
      do: 'analyse';
      /** It still grows: it is not held against the record yet, which takes long. */
      growing: boolean;
      /** What was foretold before the run. */
      prediction: KeptRun['prediction'];
      logs: RunLog[];
      backgroundDbA: number | null;
      window: { fromS: number; toS: number } | null;
      request: CaseRequest | null;
    }
  | {
      do: 'steady';
      run: Pick<RunDocument, 'id' | 'room' | 'microphone' | 'instruments'>;
      logs: RunLog[];
      backgroundDbA: number | null;
      window: { fromS: number; toS: number } | null;
      request: CaseRequest;
    }
  | {
      do: 'calibrate';
      request: CaseRequest;
      fit: SteadyRun[];
      heldOut: SteadyRun[];
      caps: Cap[];
    }
  | { do: 'foretell'; request: CaseRequest; on: RunForetold['on']; cap: Cap }
  | {
      do: 'series';
      logs: RunLog[];
      fromS: number | null;
      toS: number | null;
      pixels: number;
      request: CaseRequest | null;
    };

/** An analysis as far as the server looks into it. */
type AnalysisAnswer = { log: { problems: { row: number; column: string; message: string }[] } };

export type RunJobAnswer =
  | { taken: Omit<TakenLog, 'sha256' | 'bytes' | 'file' | 'kind'> }
  | { fault: LogFault }
  | { apart: { at: number; message: string } }
  | { analysis: AnalysisAnswer; places: LogPlace[]; foretold: ForetoldResult | null }
  | { steady: SteadyRun[]; lacks: string | null }
  | ReturnType<typeof calibrate>
  | { prediction: RunForetold | null }
  | { series: Series };

/** Bytes that are read at a time. */
const PIECE = 1 << 20;
/** Logs that are kept at hand. */
const AT_HAND = 6;
const atHand = new Map<string, Log>();

async function logOf(samples: string): Promise<Log> {
  const known = atHand.get(samples);
  if (known) {
    atHand.delete(samples);
    atHand.set(samples, known);
    return known;
  }
  const log = readSamples(await readFile(samples));
  atHand.set(samples, log);
  for (const oldest of atHand.keys()) {
    if (atHand.size <= AT_HAND) break;
    atHand.delete(oldest);
  }
  return log;
}

/** Does a job; what a person sent and cannot be taken is an answer, not a failure. */
export async function doRunJob(job: RunJob): Promise<RunJobAnswer> {
  if (job.do === 'read') return read(job);
  if (job.do === 'calibrate') return calibrate(job.request, job.fit, job.heldOut, job.caps);
  if (job.do === 'foretell') return { prediction: foretell(job.request, job.on, job.cap) };
  const joined = await join(job.logs, job.request);
  if ('apart' in joined) return joined;
  if (job.do === 'steady') return steady(joined.log, job);
  return job.do === 'analyse' ? analyse(joined, job) : { series: drawn(joined.log, job) };
}

async function read({ file, samples, map, bytes }: RunJob & { do: 'read' }): Promise<RunJobAnswer> {
  const size = bytes ?? (await stat(file)).size;
  const options = { highWaterMark: PIECE, end: Math.max(0, size - 1) };
  const found = await readLogBytes(size > 0 ? createReadStream(file, options) : [], {
    map,
    bytes: size,
  });
  if ('fault' in found) return found;
  const { log } = found;
  // written under another name first: what is there under its own is whole
  const draft = `${samples}.draft`;
  const handle = await open(draft, 'w');
  try {
    await handle.writeFile(writeSamples(log));
    await handle.sync();
  } finally {
    await handle.close();
  }
  await rename(draft, samples);
  return {
    taken: {
      rows: log.timeS.length,
      durationS: log.timeS[log.timeS.length - 1] ?? 0,
      stepS: usualStep(log.timeS),
      channels: log.columns.map(({ column, is, unit }) => ({ column, is, unit })),
      problems: log.problems,
      sample: log.columns.map((c) => {
        const first = c.values.find((x) => Number.isFinite(x));
        return first === undefined ? '' : String(first);
      }),
    },
  };
}

async function join(
  logs: readonly RunLog[],
  request: CaseRequest | null,
): Promise<{ log: Log; places: LogPlace[] } | { apart: { at: number; message: string } }> {
  const read: Log[] = [];
  for (const l of logs) read.push(await logOf(l.samples));
  const found = placeLogs(read);
  if (!Array.isArray(found)) return { apart: found };
  const places = found.map((p, k): LogPlace => {
    const told = logs[k]!.offsetS;
    return told === null || k === 0 ? p : { offsetS: told, by: 'person' };
  });
  const log = joinLogs(read, places);
  if (!request) return { log, places };
  return {
    log: { ...log, columns: withPartIds(log.columns, partIdsOf(openCase(request))) },
    places,
  };
}

function analyse(
  { log, places }: { log: Log; places: LogPlace[] },
  { backgroundDbA, window, request, prediction, growing }: RunJob & { do: 'analyse' },
): RunJobAnswer {
  const analysis = analyseLog(log, {
    limits: request ? limitsOf(openCase(request)) : null,
    backgroundDbA,
    window,
  });
  const last = analysis.steady[analysis.steady.length - 1];
  const sound = soundDocument(null, log, backgroundDbA);
  const against = request && last && !growing ? holdAgainst(request, last) : null;
  const open = request && openCase(request);
  const dies = Object.fromEntries((open?.data.dies ?? []).map((d) => [d.role, d.id]));
  const foretold =
    prediction && last
      ? foretoldResult(prediction, last, log, dies, -60 * new Date().getTimezoneOffset())
      : null;
  return {
    analysis: analysisDocument(log, analysis, sound, against, places) as AnalysisAnswer,
    places,
    foretold,
  };
}

/** Steady states of a run as a fit takes them. */
function steady(
  log: Log,
  { run, backgroundDbA, window, request }: RunJob & { do: 'steady' },
): { steady: SteadyRun[]; lacks: string | null } {
  const open = openCase(request);
  const found = analyseLog(log, { limits: limitsOf(open), backgroundDbA, window });
  const states = found.steady.map((state) => steadyRunOf(run, state, open));
  const lacks = states.find((s) => 'message' in s);
  const usable = states.filter((s): s is SteadyRun => !('message' in s));
  const why = found.steady.length === 0 ? `it never settled: ${found.whyNot ?? 'no load'}` : null;
  return { steady: usable, lacks: usable.length > 0 ? null : (lacks?.message ?? why) };
}

function drawn(log: Log, { fromS, toS, pixels }: RunJob & { do: 'series' }): Series {
  const lastS = log.timeS[log.timeS.length - 1] ?? 0;
  return { ...pixelSeries(log, fromS ?? 0, toS ?? Math.max(lastS, 1), pixels), lastS };
}
