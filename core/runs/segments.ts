import type { Log } from '../logs/readLog';
import { dieOfPower, diePowers, filled, kindOf, knownColumns, type DieName } from './channels';
import { powerStretches, type Stretch } from './powerStretches';

export const SEGMENT_KINDS = ['idle', 'ramp', 'short', 'sustained', 'later', 'cool-down'] as const;
export type SegmentKind = (typeof SEGMENT_KINDS)[number];

/** A stretch of a log that is of one kind. */
export interface Segment extends Stretch {
  fromS: number;
  toS: number;
  kind: SegmentKind;
}

/** A die's power that fell while the load went on. */
export interface PowerDrop {
  part: DieName;
  atS: number;
  /** First sample after it. */
  at: number;
  fromW: number;
  toW: number;
  kind: 'short' | 'later';
}

export interface Segments {
  segments: Segment[];
  drops: PowerDrop[];
}

/** A stretch between two levels that lasts no longer than this is the way from one to the other, s. */
const RAMP_S = 10;
/** A first fall of power within this time of load is the end of the short-term limit, s (28 s is usual; common practice). */
const SHORT_S = 150;
/** A level that was held before a later drop, s. */
const HELD_S = 60;
/** A fall of power by less than this share, or so many watts, is none. */
const FALL = { share: 0.04, watts: 1.5 };
/**
 * Powers below this share of the most, or so many watts as far as these are a small share of it, are no load; up to the last share
 * where that is where the log began. A log that never reaches those watts is idle.
 */
const IDLE = { share: 0.12, watts: 12, wattsShare: 0.3, asBegun: 0.3 };
/** Dies that fall by more than this cool down, K. */
const COOLS_K = 3;

/**
 * Cuts a log into what was done: idle, the ways between levels, short-term power, what was sustained, what came after a later
 * drop, cooling down.
 *
 * @param log with at least one die's power; without any the whole log is one sustained segment
 */
export function segmentsOf(log: Pick<Log, 'timeS' | 'columns'>): Segments {
  const { timeS } = log;
  const n = timeS.length;
  const columns = diePowers(log);
  const powers = columns.map((c) => filled(c.values));
  const stretches = powerStretches(powers, timeS);
  const endS = (s: Stretch) => timeS[Math.min(n - 1, s.to)]!;
  const lasts = (s: Stretch) => endS(s) - timeS[s.from]!;
  const means = stretches.map((s) => powers.map((x) => meanOf(x, s)));
  const totals = means.map((m) => m.reduce((a, b) => a + b, 0));
  const most = Math.max(...totals, 0);
  const isIdle = idleLike(totals, stretches.map(lasts), most);
  const isRamp = stretches.map((s, k) => rampLike(k, lasts(s), means, stretches.map(lasts)));

  const kinds: SegmentKind[] = [];
  const drops: PowerDrop[] = [];
  let wasLoaded = false;
  for (let k = 0; k < stretches.length;) {
    if (powers.length > 0 && isIdle[k] && !isRamp[k]) {
      kinds[k] = wasLoaded && cools(log, stretches[k]!) ? 'cool-down' : 'idle';
      k++;
      continue;
    }
    let end = k;
    while (end < stretches.length && (isRamp[end] || !isIdle[end] || powers.length === 0)) end++;
    const phase = [...Array(end - k).keys()].map((i) => k + i);
    const loaded = phase.filter((i) => !isRamp[i]);
    const own = dropsIn(
      loaded,
      stretches,
      means,
      columns.map((c) => dieOfPower(c.is)),
      timeS,
    );
    drops.push(...own);
    const first =
      own.find((d) => d.kind === 'short' && d.part === 'cpu') ??
      own.find((d) => d.kind === 'short');
    const later = own.find((d) => d.kind === 'later');
    for (const i of phase) {
      const at = stretches[i]!.from;
      if (isRamp[i]) kinds[i] = 'ramp';
      else if (later && at >= later.at) kinds[i] = 'later';
      else kinds[i] = first && at < first.at ? 'short' : 'sustained';
    }
    wasLoaded ||= loaded.length > 0;
    k = end;
  }
  const segments = stretches.map((s, k) => ({
    ...s,
    fromS: timeS[s.from]!,
    toS: endS(s),
    kind: kinds[k]!,
  }));
  return { segments: joinSteps(segments), drops };
}

/** Many short steps one after the other are one way: a ramp where it lasts no longer than one may, else part of what is sustained. */
function joinSteps(segments: readonly Segment[]): Segment[] {
  const out: Segment[] = [];
  let steps = false;
  for (const s of segments) {
    const before = out[out.length - 1];
    const isStep = (s.kind === 'ramp' || s.kind === 'sustained') && s.toS - s.fromS <= RAMP_S;
    if (isStep && steps && before) {
      const kind = s.toS - before.fromS <= RAMP_S ? 'ramp' : 'sustained';
      out[out.length - 1] = { ...before, to: s.to, toS: s.toS, kind };
    } else out.push(s);
    steps = isStep;
  }
  return out;
}

function meanOf(x: Float64Array, { from, to }: Stretch): number {
  let sum = 0;
  for (let i = from; i < to; i++) sum += x[i]!;
  return sum / (to - from);
}

function idleLike(totals: number[], lasts: number[], most: number): boolean[] {
  const few = most <= IDLE.watts ? IDLE.watts : Math.min(IDLE.watts, IDLE.wattsShare * most);
  const low = Math.max(IDLE.share * most, few);
  if (totals.length === 1) return [totals[0]! <= IDLE.watts];
  // the level at which the log began, where that is low and more follows
  const begun = totals[0]! <= IDLE.asBegun * most ? totals[0]! : null;
  return totals.map((t, k) => {
    if (t <= low) return true;
    return begun !== null && t <= Math.max(1.3 * begun, begun + 2) && lasts[k]! > 0;
  });
}

/** A short stretch whose powers all lie between those beside it, or that stands alone at either end. */
function rampLike(k: number, lastS: number, means: number[][], lasts: number[]): boolean {
  const before = means[k - 1];
  const after = means[k + 1];
  if (!before || !after || lastS > RAMP_S) return false;
  // of two short ones beside each other the shorter is on the way
  if (lasts[k - 1]! <= RAMP_S && lasts[k - 1]! < lastS) return false;
  return means[k]!.every((m, p) => {
    const low = Math.min(before[p]!, after[p]!);
    const high = Math.max(before[p]!, after[p]!);
    const room = 0.1 * (high - low) + 0.02 * high;
    return m >= low - room && m <= high + room;
  });
}

/** True where a die's temperature falls over a stretch; without temperatures low power after load is taken for it. */
function cools(log: Pick<Log, 'columns'>, { from, to }: Stretch): boolean {
  const warm = knownColumns(log).filter((c) => kindOf(c.is) === 'temperature' && c.is !== 'roomC');
  if (warm.length === 0) return true;
  return warm.some(({ values }) => {
    const own = values.subarray(from, to).filter((x) => Number.isFinite(x));
    if (own.length < 2) return false;
    const last = own.subarray(Math.floor(0.9 * own.length));
    return own[0]! - last.reduce((a, b) => a + b, 0) / last.length > COOLS_K;
  });
}

function dropsIn(
  loaded: readonly number[],
  stretches: readonly Stretch[],
  means: readonly number[][],
  parts: readonly DieName[],
  timeS: Float64Array,
): PowerDrop[] {
  const out: PowerDrop[] = [];
  const startS = loaded.length ? timeS[stretches[loaded[0]!]!.from]! : 0;
  parts.forEach((part, p) => {
    let fell = false;
    for (let i = 1; i < loaded.length; i++) {
      const before = loaded[i - 1]!;
      const now = loaded[i]!;
      const fromW = means[before]![p]!;
      const toW = means[now]![p]!;
      if (fromW - toW < Math.max(FALL.share * fromW, FALL.watts)) continue;
      // what lies on the way belongs to the fall
      const at = stretches[before]!.to;
      const early = timeS[at]! - startS <= SHORT_S;
      // a fall in many steps is one, and what comes later comes from a level that was held
      const heldS = timeS[at]! - timeS[stretches[before]!.from]!;
      if (early ? fell : heldS < HELD_S) continue;
      out.push({ part, atS: timeS[at]!, at, fromW, toW, kind: early ? 'short' : 'later' });
      fell = true;
    }
  });
  return out.sort((a, b) => a.at - b.at);
}
