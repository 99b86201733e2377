import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { fitMultipliers } from '@zugluft/core/calibration/fitMultipliers';
import { factorEvidence, type FactorEvidence } from '@zugluft/core/learned/factorEvidence';
import { learnFrom, type Learned, type Teacher } from '@zugluft/core/learned/learnFrom';
import { wearRead, type Renewal, type WearRead } from '@zugluft/core/learned/wearRead';
import { calibrate, unlearned } from '@zugluft/core/calibration/calibrate';
import type { SteadyRun } from '@zugluft/core/calibration/steadyRun';
import { openCase, type CaseRequest, type OpenCase } from '@zugluft/core/case/openCase';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type {
  KeptRun,
  RunResidual,
  RunSteady,
  Series,
  TakenLog,
} from '@zugluft/core/library/runAnswers';
import type { Log, LogFault } from '@zugluft/core/logs/readLog';
import type { LogMap } from '@zugluft/core/logs/logLayout';
import { readLogBytes } from '@zugluft/core/logs/readLogBytes';
import { usualStep } from '@zugluft/core/logs/timeAxis';
import { heldBySetting } from '@zugluft/core/runs/heldBySetting';
import { holdAgainst, limitsOf } from '@zugluft/core/runs/against';
import { fanSweep, type FanSweep, type SweepSource } from '@zugluft/core/runs/fanSweep';
import { firmwareSeen, type FirmwareFigure } from '@zugluft/core/runs/firmwareSeen';
import { wrongMachine } from '@zugluft/core/runs/wrongMachine';
import { whyOutside, type WhyOutside } from '@zugluft/core/runs/whyOutside';
import { withHeardLevel } from '@zugluft/core/runs/withHeardLevel';
import { analyseLog, type LogAnalysis } from '@zugluft/core/runs/analyseLog';
import { analysisDocument, soundDocument } from '@zugluft/core/runs/analysisDocument';
import { foretoldResult, type ForetoldResult } from '@zugluft/core/runs/foretoldResult';
import { foretell, type RunForetold } from '@zugluft/core/runs/foretell';
import { pixelSeries } from '@zugluft/core/runs/pixelSeries';
import type { RunDocument } from '@zugluft/core/runs/runDocument';
import { meterOf, steadyRunOf } from '@zugluft/core/runs/steadyRunOf';
import { joinRun, wholeSound, type Joined, type RunLog } from './joinRun';
import { hear, recordingAnswer, type RecordingAnswer } from './recordings';
import { writeSamples, writeSamplesCsv, writeWhole } from './sampleFile';

/** What the thread of runs does. */
export type RunJob =
  /** `bytes`: as far as lines are whole, of a file that grows. */
  | { do: 'read'; file: string; samples: string; map: LogMap; bytes?: number }
  /** Hears a recording. */
  | { do: 'hear'; file: string; samples: string }
  | {
      do: 'analyse';
      /** It still grows: it is not held against the record yet, which takes long. */
      growing: boolean;
      /** The load takes whatever it gets. */
      isStress: boolean;
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
  /** What runs tell of the factors that machines share. */
  | { do: 'evidence'; request: CaseRequest; fit: SteadyRun[] }
  /** What a renewal tells of how fast the machine had worn. */
  | { do: 'wear'; renewal: Renewal }
  /** What machines teach about the next one. */
  | { do: 'learn'; teachers: Teacher[]; caps: Cap[] }
  /** What would bring a run that lies outside its band back into it. */
  | { do: 'why-outside'; request: CaseRequest; run: SteadyRun }
  /** Means of each steady state, for lists and marks. */
  | {
      do: 'means';
      logs: RunLog[];
      backgroundDbA: number | null;
      window: { fromS: number; toS: number } | null;
      request: CaseRequest | null;
    }
  /** The last steady state against what the record foretells. */
  | {
      do: 'against';
      logs: RunLog[];
      backgroundDbA: number | null;
      window: { fromS: number; toS: number } | null;
      request: CaseRequest;
    }
  | {
      do: 'sweep';
      request: CaseRequest;
      runs: {
        run: Pick<RunDocument, 'id' | 'microphone' | 'instruments'>;
        backgroundDbA: number | null;
        logs: RunLog[];
      }[];
    }
  /** Writes the joined samples as CSV. */
  | { do: 'samples'; logs: RunLog[]; request: CaseRequest | null; file: string }
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
type AnalysisAnswer = {
  log: { problems: { row: number; column: string; message: string }[] };
  recordings?: RecordingAnswer[];
  firmware?: FirmwareFigure[];
};

/** What reading a log tells of it. */
export type ReadLog = Omit<TakenLog, 'sha256' | 'bytes' | 'file' | 'kind' | 'layout'>;

export type RunJobAnswer =
  | { taken: ReadLog }
  | { fault: LogFault }
  | { apart: { at: number; message: string } }
  | { analysis: AnalysisAnswer; foretold: ForetoldResult | null }
  | { means: RunSteady[]; whyNot: string | null }
  | { sweep: FanSweep }
  | Pick<RunResidual, 'against' | 'lacks'>
  | { rows: number }
  | { why: WhyOutside }
  | { steady: SteadyRun[]; lacks: string | null }
  | ReturnType<typeof calibrate>
  | { evidence: FactorEvidence }
  | { learned: Learned }
  | { wear: WearRead | { why: string } }
  | { prediction: RunForetold | null }
  | { series: Series };

/** Bytes that are read at a time. */
const PIECE = 1 << 20;
/** Does a job; what a person sent and cannot be taken is an answer, not a failure. */
export async function doRunJob(job: RunJob): Promise<RunJobAnswer> {
  if (job.do === 'read') return read(job);
  if (job.do === 'hear') return hear(job);
  if (job.do === 'calibrate') return calibrate(job.request, job.fit, job.heldOut, job.caps);
  if (job.do === 'evidence') {
    const fit = fitMultipliers(openCase(unlearned(job.request)), job.fit, { suspicions: false });
    return { evidence: factorEvidence(fit) };
  }
  if (job.do === 'wear') return { wear: wearRead(job.renewal) };
  if (job.do === 'learn') return { learned: learnFrom(job.teachers, job.caps) };
  if (job.do === 'foretell') return { prediction: foretell(job.request, job.on, job.cap) };
  if (job.do === 'why-outside') return { why: whyOutside(job.request, job.run) };
  if (job.do === 'sweep') return sweep(job);
  const joined = await joinRun(job.logs, job.request);
  if ('apart' in joined) return joined;
  if (job.do === 'steady') return steady(joined, job);
  if (job.do === 'means') return means(joined, job);
  if (job.do === 'against') return against(joined, job);
  if (job.do === 'samples') return { rows: await writeSamplesCsv(joined.log, job.file) };
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
  await writeWhole(samples, writeSamples(log));
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

/** What the logs and recordings of a run say together. */
function analysed(
  { log, recordings }: Pick<Joined, 'log' | 'recordings'>,
  open: OpenCase | null,
  { backgroundDbA, window }: Pick<RunJob & { do: 'means' }, 'backgroundDbA' | 'window'>,
): LogAnalysis {
  const limits = open && limitsOf(open);
  const found = analyseLog(log, { limits, backgroundDbA, window });
  return withHeardLevel(found, wholeSound(recordings)?.leqDbA ?? null, backgroundDbA);
}

function analyse(
  { log, places, recordings }: Joined,
  { backgroundDbA, window, request, prediction, growing, isStress }: RunJob & { do: 'analyse' },
): RunJobAnswer {
  const open = request && openCase(request);
  const limits = open && limitsOf(open);
  if (log.timeS.length === 0) {
    const none = {
      rows: 0,
      durationS: 0,
      stepS: 0,
      gaps: [],
      clockJumps: [],
      channels: [],
      problems: [],
    };
    return {
      analysis: {
        ...analysisDocument(null, null, null, null, []),
        log: none,
        recordings: recordings.map(recordingAnswer),
        firmware: [],
      },
      foretold: null,
    };
  }
  const analysis = analysed({ log, recordings }, open, { backgroundDbA, window });
  const last = analysis.steady[analysis.steady.length - 1];
  const sound = soundDocument(wholeSound(recordings), log, backgroundDbA);
  const against = request && last && !growing ? holdAgainst(request, last) : null;
  const dies = Object.fromEntries((open?.data.dies ?? []).map((d) => [d.role, d.id]));
  const foretold =
    prediction && last
      ? foretoldResult(prediction, last, log, dies, -60 * new Date().getTimezoneOffset())
      : null;
  const asked = open ? wrongMachine(log, open) : [];
  const questioned = { ...log, problems: [...asked, ...log.problems] };
  return {
    analysis: {
      ...(analysisDocument(questioned, analysis, sound, against, places) as AnalysisAnswer),
      recordings: recordings.map(recordingAnswer),
      firmware: limits && !growing ? firmwareSeen(log, analysis, limits, isStress) : [],
    },
    foretold,
  };
}

/** Steady states of a run as a fit takes them. */
function steady(
  { log, recordings }: Joined,
  { run, backgroundDbA, window, request }: RunJob & { do: 'steady' },
): { steady: SteadyRun[]; lacks: string | null } {
  if (log.timeS.length === 0) return { steady: [], lacks: 'there is no log' };
  const open = openCase(request);
  const found = analysed({ log, recordings }, open, { backgroundDbA, window });
  const states = found.steady.map((state) => steadyRunOf(run, state, open));
  const lacks = states.find((s) => 'message' in s);
  const usable = states.filter((s): s is SteadyRun => !('message' in s));
  const why = found.steady.length === 0 ? `it never settled: ${found.whyNot ?? 'no load'}` : null;
  return { steady: usable, lacks: usable.length > 0 ? null : (lacks?.message ?? why) };
}

/** Means of each steady state. */
function means(
  { log, recordings }: Joined,
  { backgroundDbA, window, request }: RunJob & { do: 'means' },
): { means: RunSteady[]; whyNot: string | null } {
  if (log.timeS.length === 0) return { means: [], whyNot: 'there is no log' };
  const open = request && openCase(request);
  const found = analysed({ log, recordings }, open, { backgroundDbA, window });
  return {
    means: found.steady.map(({ fromS, toS, chosenBy, kind, means }) => ({
      fromS,
      toS,
      chosenBy,
      kind,
      means,
    })),
    whyNot: found.whyNot,
  };
}

function against(
  { log, recordings }: Joined,
  { backgroundDbA, window, request }: RunJob & { do: 'against' },
): Pick<RunResidual, 'against' | 'lacks'> {
  if (log.timeS.length === 0) return { against: null, lacks: 'there is no log' };
  const found = analysed({ log, recordings }, openCase(request), { backgroundDbA, window });
  const last = found.steady[found.steady.length - 1];
  if (!last) return { against: null, lacks: `never settled: ${found.whyNot ?? ''}` };
  const told = holdAgainst(request, last);
  if (!told) return { against: null, lacks: 'no log holds the power of a die' };
  const { cap, measuredW, p05, p50, p95, inBand } = told;
  const held = heldBySetting(found.events);
  // what the setting held says that the cooling carries at least so much
  const inside = held ? measuredW <= p95 : inBand;
  return { against: { cap, measuredW, p05, p50, p95, inBand: inside, held }, lacks: null };
}

async function sweep({ request, runs }: RunJob & { do: 'sweep' }): Promise<RunJobAnswer> {
  const open = openCase(request);
  const sources: SweepSource[] = [];
  for (const { run, backgroundDbA, logs } of runs) {
    const joined = await joinRun(logs, request);
    if ('apart' in joined) continue;
    sources.push({ run: run.id, log: joined.log, backgroundDbA, ...meterOf(run, open) });
  }
  return {
    sweep: fanSweep(
      sources,
      open.data.fans.map((f) => f.id),
    ),
  };
}

function drawn(log: Log, { fromS, toS, pixels }: RunJob & { do: 'series' }): Series {
  const lastS = log.timeS[log.timeS.length - 1] ?? 0;
  return { ...pixelSeries(log, fromS ?? 0, toS ?? Math.max(lastS, 1), pixels), lastS };
}
