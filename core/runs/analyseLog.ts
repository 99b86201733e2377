import type { Log } from '../logs/readLog';
import { usualStep } from '../logs/timeAxis';
import { correctForBackground } from '../sound/background';
import { diePowers, kindOf, knownColumns, weightsOf } from './channels';
import { driftWords } from './driftWords';
import { eventsOf, type RunEvent, type RunLimits } from './events';
import { segmentsOf, type Segment, type SegmentKind } from './segments';
import { driftOf, firstAt, steadyWindow, type Steady } from './steadyWindow';
import type { Stretch } from './powerStretches';
import { timeConstants } from './timeConstants';
import { channelMean, type ChannelMean, type InstrumentErrors } from './windowMeans';

/** Mean of a channel over a steady window; of the level with the background taken off. */
export interface SteadyMean {
  mean: number;
  se: number;
  plusMinus: number;
  /** The background was less than 6 dB lower: the machine may be quieter. */
  upperBound?: boolean;
}

/** One steady state. */
export interface SteadyState {
  fromS: number;
  toS: number;
  /** Samples it is of. */
  from: number;
  to: number;
  /** Share of the channels that are steady over it: 1 where it was found, less where a person chose it. */
  settledShare: number;
  chosenBy: 'found' | 'person';
  kind: SegmentKind;
  means: Record<string, SteadyMean>;
}

/** What a log says. */
export interface LogAnalysis {
  durationS: number;
  stepS: number;
  segments: (Segment & { means: Record<string, Pick<ChannelMean, 'mean' | 'sd'>> })[];
  events: RunEvent[];
  settled: boolean;
  /** Why it has not settled, in words; null where it has. */
  whyNot: string | null;
  steady: SteadyState[];
  /** Of each die's temperature, rising. */
  timeConstantsS: Record<string, number[]>;
}

export interface AnalyseOptions {
  limits?: RunLimits | null | undefined;
  /** Level with the machine off, dB(A). */
  backgroundDbA?: number | null | undefined;
  /** Window that a person chose, s. */
  window?: { fromS?: number | undefined; toS?: number | undefined } | null | undefined;
  errors?: InstrumentErrors | undefined;
}

/** Samples from which time constants are told. */
const MOST_FOR_TIMES = 20_000;
const LOADED: readonly SegmentKind[] = ['sustained', 'later'];

/**
 * What a log says: what was done when, what the firmware did, what was sustained and how well that is known, whether it settled.
 *
 * @param log as read
 * @param options limits of a record, background, a chosen window
 */
export function analyseLog(log: Log, options: AnalyseOptions = {}): LogAnalysis {
  const { timeS } = log;
  const n = timeS.length;
  const weights = weightsOf(timeS);
  const { segments, drops } = segmentsOf(log);
  const known = knownColumns(log);
  const held = known.filter((c) => kindOf(c.is) !== 'other');
  const meansOf = ({ from, to }: Stretch) => {
    const means: Record<string, ChannelMean> = {};
    for (const c of known) {
      const m = channelMean(c.is, c.values, weights, from, to, options.errors);
      if (m) means[c.is] = m;
    }
    return means;
  };
  const state = (s: Stretch, kind: SegmentKind, chosenBy: SteadyState['chosenBy']): SteadyState => {
    const looked = held.filter((c) => c.is !== 'roomC');
    const drifting =
      chosenBy === 'found' ? 0 : looked.filter((c) => driftOf(c, timeS, s.from, s.to)).length;
    return {
      ...s,
      fromS: timeS[s.from]!,
      toS: timeS[s.to - 1]!,
      settledShare: looked.length === 0 ? 1 : 1 - drifting / looked.length,
      chosenBy,
      kind,
      means: steadyMeans(meansOf(s), options.backgroundDbA ?? null),
    };
  };

  const loaded = segments.filter((s) => LOADED.includes(s.kind));
  const looked = loaded.length > 0 ? loaded : segments.filter((s) => s.kind === 'idle');
  const tried = looked.map((segment) => ({ segment, found: steadyWindow(held, timeS, segment) }));
  const last = tried[tried.length - 1];
  const chosen = chosenWindow(options.window ?? null, timeS);
  const steady = chosen
    ? [state(chosen, segmentAt(segments, chosen), 'person')]
    : tried.flatMap(({ segment, found }) =>
        found.window ? [state(found.window, segment.kind, 'found')] : [],
      );
  const settled = Boolean(last?.found.window);
  return {
    durationS: n > 0 ? timeS[n - 1]! : 0,
    stepS: usualStep(timeS),
    segments: segments.map((s) => ({ ...s, means: meansOf(s) })),
    events: eventsOf(log, segments, drops, options.limits ?? null),
    settled,
    whyNot: settled ? null : whyNot(last?.found ?? null, loaded.length > 0),
    steady,
    timeConstantsS: dieTimes(log, segments),
  };
}

function steadyMeans(
  means: Record<string, ChannelMean>,
  backgroundDbA: number | null,
): Record<string, SteadyMean> {
  const out: Record<string, SteadyMean> = {};
  for (const [is, { mean, se, plusMinus }] of Object.entries(means)) {
    out[is] = { mean, se, plusMinus };
    if (is !== 'levelDbA') continue;
    const own =
      backgroundDbA === null
        ? { levelDbA: mean, upperBound: false }
        : correctForBackground(mean, backgroundDbA);
    out[is] = { mean: own.levelDbA, se, plusMinus, upperBound: own.upperBound };
  }
  return out;
}

function chosenWindow(window: AnalyseOptions['window'], timeS: Float64Array): Stretch | null {
  if (!window || (window.fromS === undefined && window.toS === undefined)) return null;
  const from = firstAt(timeS, window.fromS ?? 0);
  const toS = window.toS ?? Infinity;
  let to = firstAt(timeS, toS);
  if (timeS[to] === toS) to++;
  return to > from ? { from, to } : null;
}

function segmentAt(segments: readonly Segment[], { from, to }: Stretch): SegmentKind {
  const middle = (from + to) >> 1;
  return segments.find((s) => middle >= s.from && middle < s.to)?.kind ?? 'sustained';
}

function whyNot(found: Steady | null, wasLoaded: boolean): string {
  if (!found) return 'the log holds no load that was held';
  if (found.window) return '';
  if (found.tooShort) return `the ${wasLoaded ? 'load' : 'log'} lasts less than two minutes`;
  const words = found.drifts.map(driftWords);
  return words.length > 0 ? words.join('; ') : 'nothing is steady to its end';
}

/** Time constants of each die, from the beginning of the log to the end of its first load, or of what follows it. */
function dieTimes(log: Log, segments: readonly Segment[]): Record<string, number[]> {
  const end = Math.min(MOST_FOR_TIMES, log.timeS.length);
  const powers = diePowers(log).map((c) => c.values.subarray(0, end));
  const out: Record<string, number[]> = {};
  if (powers.length === 0 || segments.length === 0) return out;
  const timeS = log.timeS.subarray(0, end);
  for (const is of ['cpuC', 'gpuC']) {
    const column = log.columns.find((c) => c.is === is);
    if (!column) continue;
    const found = timeConstants(timeS, column.values.subarray(0, end), powers);
    if (found.length > 0) out[is] = found;
  }
  return out;
}
