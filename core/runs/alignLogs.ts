import type { Log, LogColumn } from '../logs/readLog';
import { kindOf, knownColumns, type ChannelKind } from './channels';
import { firstAt } from './steadyWindow';

/** Where a log lies on the axis of the first. */
export interface LogPlace {
  /** Added to its own times, s. */
  offsetS: number;
  by: 'first' | 'clock' | 'correlation' | 'load-start' | 'start' | 'person';
}

const DAY_S = 86_400;
/** Values that are compared at each place; places that are tried. */
const POINTS = 600;
/** Least share of the shorter log that must lie over the other. */
const MIN_OVERLAP = 0.3;
/** What a place loses that has nothing in common, of its correlation. */
const LESS_IN_COMMON = 0.3;
/** A place is believed from this correlation on. */
const BELIEVED = 0.6;

/**
 * Where each log of a run lies on the first one's axis: by their clocks; where one has none by what rises and falls in both, or by
 * when the load begins in each; where nothing tells by their beginnings.
 *
 * @param logs at least one
 * @returns one place each; or which log, counted from 0, lies beside the first
 */
export function placeLogs(logs: readonly Log[]): LogPlace[] | { at: number; message: string } {
  const first = logs[0]!;
  const places: LogPlace[] = [{ offsetS: 0, by: 'first' }];
  for (let k = 1; k < logs.length; k++) {
    const log = logs[k]!;
    const place = byClock(first, log) ??
      byCorrelation(first, log) ??
      byLoadStart(first, log) ?? { offsetS: 0, by: 'start' };
    const from = place.offsetS;
    const to = from + lastOf(log.timeS);
    if (from > lastOf(first.timeS) || to < 0) {
      const by =
        from > 0
          ? `${figure(from - lastOf(first.timeS))} after its end`
          : `${figure(-to)} before its beginning`;
      return { at: k, message: `it has no moment in common with the first log: it lies ${by}` };
    }
    places.push(place);
  }
  return places;
}

const figure = (s: number) => (s < 120 ? `${s.toFixed(0)} s` : `${(s / 60).toFixed(0)} min`);
const lastOf = (x: Float64Array) => x[x.length - 1] ?? 0;

function byClock(first: Log, log: Log): LogPlace | null {
  if (first.clockS === null || log.clockS === null) return null;
  const by = log.clockS - first.clockS;
  if (first.dated && log.dated) return { offsetS: by, by: 'clock' };
  // a clock without a date means the nearest day
  const turned = (((by % DAY_S) + 1.5 * DAY_S) % DAY_S) - DAY_S / 2;
  return { offsetS: turned, by: 'clock' };
}

/** Kinds that tell when a load begins and ends, the sharpest first. */
const TELLING: readonly ChannelKind[] = ['power', 'temperature', 'speed', 'level'];

function byCorrelation(first: Log, log: Log): LogPlace | null {
  const a = tellingSeries(first);
  const b = tellingSeries(log);
  if (!a || !b) return null;
  const lastA = lastOf(first.timeS);
  const lastB = lastOf(log.timeS);
  const step = Math.max(lastA, lastB) / POINTS;
  const shorter = Math.min(lastA, lastB);
  if (!(step > 0)) return null;
  const x = sampled(first.timeS, a.values, step);
  const y = sampled(log.timeS, b.values, step);
  let best = { lag: 0, r: -1, score: -Infinity };
  for (let lag = -y.length + 1; lag < x.length; lag++) {
    const from = Math.max(0, lag);
    const to = Math.min(x.length, lag + y.length);
    if ((to - from) * step < MIN_OVERLAP * shorter) continue;
    const r = correlation(x, y, from, to, lag);
    // one step alone is found in many places: of two alike the one with more in common
    const score = r * (1 - LESS_IN_COMMON * (1 - ((to - from) * step) / shorter));
    if (score > best.score) best = { lag, r, score };
  }
  return best.r >= BELIEVED ? { offsetS: best.lag * step, by: 'correlation' } : null;
}

/** A load has begun where a reading has gone this share of its whole range from where it was. */
const BEGUN = 0.15;
/** For so many samples, so that a spike is none. */
const BEGUN_FOR = 3;

function byLoadStart(first: Log, log: Log): LogPlace | null {
  const a = loadStart(first);
  const b = loadStart(log);
  return a === null || b === null ? null : { offsetS: a - b, by: 'load-start' };
}

/** When the load begins, s; null where it has begun before the log, or never does. */
function loadStart(log: Log): number | null {
  const found = tellingSeries(log);
  if (!found) return null;
  const values = found.values.filter((x) => Number.isFinite(x));
  const at = log.timeS.filter((_, i) => Number.isFinite(found.values[i]!));
  let low = Infinity;
  let high = -Infinity;
  for (const x of values) {
    if (x < low) low = x;
    if (x > high) high = x;
  }
  const begun = values[0]! + BEGUN * (high - low);
  for (let i = 1; i + BEGUN_FOR <= values.length; i++) {
    if (values.subarray(i, i + BEGUN_FOR).every((x) => x > begun)) return at[i]!;
  }
  return null;
}

function tellingSeries(log: Log): LogColumn | null {
  for (const kind of TELLING) {
    const found = knownColumns(log).find(
      (c) => kindOf(c.is) === kind && c.is !== 'roomC' && varies(c.values),
    );
    if (found) return found;
  }
  return null;
}

function varies(values: Float64Array): boolean {
  let low = Infinity;
  let high = -Infinity;
  for (const x of values) {
    if (x < low) low = x;
    if (x > high) high = x;
  }
  return high > low;
}

/** Means over steps; a step without a sample repeats the one before. */
function sampled(timeS: Float64Array, values: Float64Array, step: number): Float64Array {
  const n = Math.max(1, Math.floor(lastOf(timeS) / step));
  const sum = new Float64Array(n);
  const count = new Float64Array(n);
  for (let i = 0; i < timeS.length; i++) {
    const k = Math.min(n - 1, Math.floor(timeS[i]! / step));
    if (!Number.isFinite(values[i]!)) continue;
    sum[k]! += values[i]!;
    count[k]!++;
  }
  let before = 0;
  return sum.map((s, k) => (before = count[k]! > 0 ? s / count[k]! : before));
}

function correlation(
  x: Float64Array,
  y: Float64Array,
  from: number,
  to: number,
  lag: number,
): number {
  const n = to - from;
  if (n < 8) return -1;
  let mx = 0;
  let my = 0;
  for (let i = from; i < to; i++) {
    mx += x[i]! / n;
    my += y[i - lag]! / n;
  }
  let xx = 0;
  let yy = 0;
  let xy = 0;
  for (let i = from; i < to; i++) {
    const dx = x[i]! - mx;
    const dy = y[i - lag]! - my;
    xx += dx * dx;
    yy += dy * dy;
    xy += dx * dy;
  }
  return xx > 0 && yy > 0 ? xy / Math.sqrt(xx * yy) : -1;
}

/**
 * One log of several: the columns of the others read at the first one's times, straight between their samples, missing where they
 * have none.
 *
 * @param logs the first rules the axis
 * @param places of each, from {@link placeLogs}
 */
export function joinLogs(logs: readonly Log[], places: readonly LogPlace[]): Log {
  const first = logs[0]!;
  const columns = [...first.columns];
  const problems = [...first.problems];
  for (let k = 1; k < logs.length; k++) {
    const { offsetS } = places[k]!;
    for (const c of logs[k]!.columns) {
      const taken = columns.some((x) => x.is === c.is);
      if (taken && !c.is.startsWith('other.')) {
        const message = `log-${k + 1} holds ${c.is} too: that of the log before is taken`;
        problems.push({ row: 1, column: c.column, message });
      }
      const is = taken ? (`other.${c.column} (log-${k + 1})` as const) : c.is;
      columns.push({ ...c, is, values: readAt(first.timeS, logs[k]!.timeS, c.values, offsetS) });
    }
  }
  return { ...first, columns, problems };
}

/** A reading further from the next than this many usual steps tells nothing between them. */
const FAR_STEPS = 5;

function readAt(
  wanted: Float64Array,
  timeS: Float64Array,
  values: Float64Array,
  offsetS: number,
): Float64Array {
  const n = timeS.length;
  const far = FAR_STEPS * Math.max(lastOf(timeS) / Math.max(1, n - 1), 1e-9);
  let k = firstAt(timeS, wanted[0]! - offsetS);
  return wanted.map((at) => {
    const t = at - offsetS;
    while (k < n && timeS[k]! < t) k++;
    if (k < n && timeS[k] === t) return values[k]!;
    if (k === 0 || k >= n || timeS[k]! - timeS[k - 1]! > far) return NaN;
    const share = (t - timeS[k - 1]!) / (timeS[k]! - timeS[k - 1]!);
    return values[k - 1]! + share * (values[k]! - values[k - 1]!);
  });
}
