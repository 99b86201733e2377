import type { Log } from '../logs/readLog';
import { energyMeanDb } from '../logs/seriesStats';
import { correctForBackground } from '../sound/background';
import type { SoundAnalysis } from '../sound/soundMeter';
import type { Against } from './against';
import type { LogPlace } from './alignLogs';
import type { LogAnalysis, SteadyState } from './analyseLog';
import { valuesOf, weightsOf } from './channels';

/** What was heard: of a recording, or the energy mean of a log's levels. */
export interface SoundDocument {
  /** With the background taken off. */
  leqDbA: number;
  upperBound: boolean;
  thirdOctavesDb: { hz: number; db: number }[];
  tones: { hz: number; toneToNoiseDb: number; prominenceDb: number; prominent: boolean }[];
  /** Samples at full scale, where a recording was heard. */
  clipped: number;
}

/**
 * @param heard a recording
 * @param log whose levels are taken where there is no recording
 * @param backgroundDbA level with the machine off
 */
export function soundDocument(
  heard: SoundAnalysis | null,
  log: Log | null,
  backgroundDbA: number | null,
): SoundDocument | null {
  const reading = heard?.leqDbA ?? levelOfLog(log);
  if (reading === null) return null;
  const own =
    backgroundDbA === null
      ? { levelDbA: reading, upperBound: false }
      : correctForBackground(reading, backgroundDbA);
  return {
    leqDbA: own.levelDbA,
    upperBound: own.upperBound,
    thirdOctavesDb: heard?.thirdOctavesDb ?? [],
    tones: heard?.tones ?? [],
    clipped: heard?.clipped ?? 0,
  };
}

function levelOfLog(log: Log | null): number | null {
  const values = log && valuesOf(log, 'levelDbA');
  if (!log || !values) return null;
  const weights = weightsOf(log.timeS);
  const there = [...values.keys()].filter((i) => Number.isFinite(values[i]!));
  if (there.length === 0) return null;
  return energyMeanDb(
    there.map((i) => values[i]!),
    there.map((i) => weights[i]!),
  );
}

/** Figures as far as they mean anything. */
const DIGITS = 7;
const rounded = (x: number): number | null =>
  Number.isFinite(x) ? Number(x.toPrecision(DIGITS)) : null;

function roundedAll<T>(value: T): T {
  if (typeof value === 'number') return rounded(value) as T;
  if (Array.isArray(value)) return value.map((x: unknown) => roundedAll(x)) as T;
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(
    Object.entries(value).map(([k, v]) => [k, roundedAll<unknown>(v)]),
  ) as T;
}

/**
 * The answer of the analyse command.
 *
 * @param log all logs of the run joined, or null where only a recording was heard
 * @param places where each log lies
 */
export function analysisDocument(
  log: Log | null,
  analysis: LogAnalysis | null,
  sound: SoundDocument | null,
  against: Against | null,
  places: readonly LogPlace[],
): object {
  return roundedAll({
    format: 'zugluft-analysis',
    formatVersion: 1,
    log: log && analysis && logPart(log, analysis, places),
    segments: (analysis?.segments ?? []).map(({ fromS, toS, kind, means }) => ({
      fromS,
      toS,
      kind,
      means: Object.fromEntries(
        Object.entries(means).map(([is, { mean, sd }]) => [is, { mean, sd }]),
      ),
    })),
    events: analysis?.events ?? [],
    settled: analysis?.settled ?? false,
    whyNot: analysis ? analysis.whyNot : 'there is no log',
    steady: (analysis?.steady ?? []).map(steadyPart),
    timeConstantsS: analysis?.timeConstantsS ?? {},
    sound,
    against,
  });
}

function logPart(log: Log, analysis: LogAnalysis, places: readonly LogPlace[]) {
  return {
    rows: log.timeS.length,
    durationS: analysis.durationS,
    stepS: analysis.stepS,
    gaps: log.gaps,
    clockJumps: log.clockJumps,
    channels: log.columns.map(({ is, column, unit }) => ({ is, column, unit })),
    problems: log.problems,
    ...(places.length > 1 ? { logs: places.map((p, k) => ({ id: `log-${k + 1}`, ...p })) } : {}),
  };
}

function steadyPart({ fromS, toS, settledShare, chosenBy, kind, means }: SteadyState) {
  return { fromS, toS, settledShare, chosenBy, kind, ...means };
}
