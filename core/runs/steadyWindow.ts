import { condensed, fitApproach, lineThrough } from './approach';
import { kindOf, type ChannelKind } from './channels';
import type { LogColumn } from '../logs/readLog';
import type { Stretch } from './powerStretches';

/** What may change over a steady window, by kind: a share of the mean, or so much (common practice, no source). */
const MAY_DRIFT: Readonly<Partial<Record<ChannelKind, { share: number; by: number }>>> = {
  temperature: { share: 0, by: 1 },
  power: { share: 0.02, by: 0.5 },
  speed: { share: 0.02, by: 50 },
  level: { share: 0, by: 1 },
};
/** A window is no shorter, s. */
export const SHORTEST_S = 120;
const FEWEST = 10;
/** Samples beyond twice this are joined with their neighbours first. */
const MOST_SAMPLES = 10_000;
/** Parts in which a window is looked at, and places at which it may begin. */
const PARTS = 30;
const STARTS = 120;
/** A line's slope must be told by so many of its errors to count. */
const TOLD_BY = 2;
/**
 * What a channel may still have to go at the end of a window: a die that is held at its limit shows it in its watts (common
 * practice, no source).
 */
const MAY_LEAVE: Readonly<Partial<Record<ChannelKind, { share: number; by: number }>>> = {
  temperature: { share: 0, by: 1 },
  power: { share: 0.01, by: 0.3 },
};
/** Means of parts scatter by this more than what single samples explain, since these hang on each other. */
const NOISE = 1.5;
/** Part of a stretch that is passed over before an approach is sought: what is fast is over by then. */
const TAIL = 0.2;
/** A fit that is better than a level by this factor of deviation tells an approach. */
const CLEARLY = 0.8;

/** What is not steady over a window. */
export interface Drift {
  is: string;
  column: string;
  kind: ChannelKind;
  /** Change over the window, in the channel's unit. */
  by: number;
  /** Over how long, s. */
  overS: number;
  /** Swings about its mean rather than drifts: deviation. */
  swings: number | null;
  /** What it would still have to go at the end, and when that is less than allowed, s after the window's end; null: not told. */
  left: number | null;
  settledInS: number | null;
}

/**
 * Tests a channel over a window: the least-squares line through its means of thirty equal parts must not change by more than is
 * allowed, and these means must not swing about it by more.
 *
 * @returns null where it is steady; a channel that is silent there is
 */
export function driftOf(
  column: Pick<LogColumn, 'is' | 'column' | 'values'>,
  timeS: Float64Array,
  from: number,
  to: number,
): Drift | null {
  const kind = kindOf(column.is);
  const may = MAY_DRIFT[kind];
  if (!may) return null;
  const { t, x, scatter } = condensed(timeS, column.values, from, to, PARTS);
  if (t.length < 4) return null;
  const overS = timeS[to - 1]! - timeS[from]!;
  const line = lineThrough(t, x);
  const mean = x.reduce((a, b) => a + b, 0) / x.length;
  const allowed = Math.max(may.share * Math.abs(mean), may.by);
  const by = line.slope * overS;
  const drifts = Math.abs(by) > allowed && Math.abs(line.slope) > TOLD_BY * line.slopeSe;
  // what the scatter within the parts explains is noise of single samples
  const swing = Math.sqrt(Math.max(0, line.sd ** 2 - NOISE ** 2 * scatter ** 2));
  const swings = swing > allowed ? swing : null;
  const told = { is: column.is, column: column.column, kind, by, overS, swings };
  return drifts || swings !== null ? { ...told, left: null, settledInS: null } : null;
}

/**
 * Whether a temperature or a power has come near its end: an exponential approach is fitted to the last four fifths of a stretch,
 * and at its end no more than 1 K, or 1 % of the watts, may be left of it.
 *
 * @returns null where it has, or where no approach is told
 */
export function approachLeft(
  column: Pick<LogColumn, 'is' | 'column' | 'values'>,
  timeS: Float64Array,
  { from, to }: Stretch,
): Drift | null {
  const kind = kindOf(column.is);
  const may = MAY_LEAVE[kind];
  if (!may) return null;
  const start = firstAt(timeS, timeS[from]! + TAIL * (timeS[to - 1]! - timeS[from]!), from, to);
  const { t, x } = condensed(timeS, column.values, start, to);
  const fit = fitApproach(t, x);
  if (!fit) return null;
  const line = lineThrough(t, x);
  const mean = x.reduce((a, b) => a + b, 0) / x.length;
  const level = Math.sqrt(x.reduce((sum, y) => sum + (y - mean) ** 2, 0) / x.length);
  if (!(fit.sd < CLEARLY * level)) return null;
  const end = t[t.length - 1]!;
  const overS = timeS[to - 1]! - timeS[start]!;
  const left = fit.leftK * Math.exp(-end / fit.timeConstantS);
  const allowed = Math.max(may.share * Math.abs(mean), may.by);
  if (Math.abs(left) <= allowed) return null;
  // of a time constant beyond the window nothing is known but that it goes on
  const known = fit.timeConstantS <= end;
  const by = line.slope * overS;
  if (!known && Math.abs(by) <= allowed) return null;
  const settledInS = fit.timeConstantS * Math.log(Math.abs(left) / allowed);
  return {
    is: column.is,
    column: column.column,
    kind,
    by,
    overS,
    swings: null,
    left: known ? left : null,
    settledInS: known ? settledInS : null,
  };
}

/** A steady window, or why there is none. */
export type Steady =
  { window: Stretch; drifts: [] } | { window: null; drifts: Drift[]; tooShort: boolean };

/**
 * The longest window at the end of a stretch over which every channel is steady; none where a temperature still approaches its end.
 *
 * @param columns powers, temperatures, speeds and level; others are passed over
 * @param timeS of each sample
 * @param stretch within which it lies
 */
export function steadyWindow(
  columns: readonly Pick<LogColumn, 'is' | 'column' | 'values'>[],
  timeS: Float64Array,
  { from, to }: Stretch,
): Steady {
  const group = Math.floor((to - from) / MOST_SAMPLES);
  if (group > 1) {
    const thinned = thin(columns, timeS, from, to, group);
    const found = steadyWindow(thinned.columns, thinned.timeS, {
      from: 0,
      to: thinned.timeS.length,
    });
    if (!found.window) return found;
    return { window: { from: from + group * found.window.from, to }, drifts: [] };
  }
  const looked = columns.filter((c) => MAY_DRIFT[kindOf(c.is)] && c.is !== 'roomC');
  const endS = timeS[to - 1]!;
  const lasts = endS - timeS[from]!;
  if (lasts < 0.99 * SHORTEST_S || to - from < FEWEST)
    return { window: null, drifts: [], tooShort: true };
  const left = looked.flatMap((c) => approachLeft(c, timeS, { from, to }) ?? []);
  if (left.length > 0) return { window: null, drifts: left, tooShort: false };
  const drifts = (start: number) => looked.flatMap((c) => driftOf(c, timeS, start, to) ?? []);
  let last: Drift[] = [];
  for (let k = 0; k < STARTS; k++) {
    const atS = timeS[from]! + (k / STARTS) * Math.max(0, lasts - SHORTEST_S);
    const start = firstAt(timeS, atS, from, to);
    if (to - start < FEWEST) break;
    last = drifts(start);
    if (last.length === 0) return { window: { from: start, to }, drifts: [] };
  }
  return { window: null, drifts: last, tooShort: false };
}

/** Means of so many neighbours in place of single samples. */
function thin(
  columns: readonly Pick<LogColumn, 'is' | 'column' | 'values'>[],
  timeS: Float64Array,
  from: number,
  to: number,
  group: number,
) {
  const mean = (x: Float64Array) => {
    const out = new Float64Array(Math.floor((to - from) / group));
    for (let k = 0; k < out.length; k++) {
      let sum = 0;
      let count = 0;
      for (let i = from + k * group; i < from + (k + 1) * group; i++) {
        if (x[i] !== x[i]) continue;
        sum += x[i]!;
        count++;
      }
      out[k] = sum / count;
    }
    return out;
  };
  return {
    timeS: mean(timeS),
    columns: columns.map((c) => ({ ...c, values: mean(c.values) })),
  };
}

/** First sample at or after a time. */
export function firstAt(timeS: Float64Array, atS: number, from = 0, to = timeS.length): number {
  let low = from;
  let high = to;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (timeS[middle]! < atS) low = middle + 1;
    else high = middle;
  }
  return low;
}
