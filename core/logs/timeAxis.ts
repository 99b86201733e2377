/** A stretch for which a log holds nothing, s from its first sample. */
export interface LogGap {
  fromS: number;
  toS: number;
}

/** The clock was set while the log ran; the axis goes on by one usual step. */
export interface ClockJump {
  atS: number;
  byS: number;
}

export interface TimeAxis {
  timeS: Float64Array;
  gaps: LogGap[];
  clockJumps: ClockJump[];
  /** Samples that have the time of the one before: the first of them, and how many. */
  repeated: { at: number; count: number } | null;
}

const HOUR_S = 3600;
/** A step longer than so many usual ones is a gap. */
const GAP_STEPS = 3;
/** What temperatures may change in one usual step and go on, K: beyond it time has passed (common practice, no source). */
const GO_ON_K = 3;

/** Steps that tell the usual one. */
const LOOKED_AT = 20_000;

/** Median of the steps that go forward. */
export function usualStep(seconds: Float64Array): number {
  const steps: number[] = [];
  const every = Math.max(1, Math.floor(seconds.length / LOOKED_AT));
  for (let i = 1; i < seconds.length; i += every) {
    const d = seconds[i]! - seconds[i - 1]!;
    if (d > 0) steps.push(d);
  }
  steps.sort((a, b) => a - b);
  return steps[Math.floor(steps.length / 2)] ?? 0;
}

/** Spreads samples of one stamp evenly until the next, since clocks are often coarser than samples. */
function spread(seconds: Float64Array): { times: Float64Array; repeated: TimeAxis['repeated'] } {
  const n = seconds.length;
  let first = -1;
  let count = 0;
  for (let i = 1; i < n; i++) {
    if (seconds[i] !== seconds[i - 1]) continue;
    if (first < 0) first = i;
    count++;
  }
  if (count === 0) return { times: seconds, repeated: null };
  const times = Float64Array.from(seconds);
  const step = usualStep(seconds);
  for (let i = 0; i < n;) {
    let end = i + 1;
    while (end < n && seconds[end] === seconds[i]) end++;
    const next = end < n ? seconds[end]! - seconds[i]! : step;
    // over a gap or a jump they stand as close as elsewhere
    const room = next > 0 && next <= GAP_STEPS * step ? next : step;
    for (let k = i + 1; k < end; k++) times[k] = seconds[i]! + ((k - i) * room) / (end - i);
    i = end;
  }
  return { times, repeated: { at: first, count } };
}

/** Two lines that stand in the wrong order: time falls by a few steps and is at once further than before. */
function isSwapped(seconds: Float64Array, i: number, step: number): boolean {
  const fall = seconds[i - 1]! - seconds[i]!;
  return fall <= GAP_STEPS * step && i + 1 < seconds.length && seconds[i + 1]! > seconds[i - 1]!;
}

/**
 * The axis of a log's times: from 0, rising. A clock that was set back, or forward by whole hours while temperatures went on, is
 * no time that passed; any other long step is a gap and stays.
 *
 * @param written as they stand in the log
 * @param ofClock they are of a clock, which may be set; figures that only count may not fall
 * @param temperatures columns of °C, by which it is told whether time has passed
 * @returns the axis; or the first sample whose time falls where that cannot be
 */
export function timeAxis(
  written: Float64Array,
  ofClock: boolean,
  temperatures: readonly Float64Array[],
): TimeAxis | { at: number; message: string } {
  const { times: seconds, repeated } = spread(written);
  const step = usualStep(seconds);
  const timeS = new Float64Array(seconds.length);
  const gaps: LogGap[] = [];
  const clockJumps: ClockJump[] = [];
  const goOn = (i: number) => {
    const known = temperatures.filter((t) => Number.isFinite(t[i]! - t[i - 1]!));
    return known.length > 0 && known.every((t) => Math.abs(t[i]! - t[i - 1]!) <= GO_ON_K);
  };
  for (let i = 1; i < seconds.length; i++) {
    const d = seconds[i]! - seconds[i - 1]!;
    const at = timeS[i - 1]!;
    const hours = Math.round((d - step) / HOUR_S);
    const wholeHours = hours > 0 && Math.abs(d - step - hours * HOUR_S) <= GAP_STEPS * step;
    if (d < 0 && (!ofClock || isSwapped(seconds, i, step))) {
      return { at: i, message: 'its time lies before the one above it' };
    }
    if (d < 0 || (ofClock && wholeHours && goOn(i))) {
      timeS[i] = at + step;
      clockJumps.push({ atS: timeS[i]!, byS: d - step });
      continue;
    }
    timeS[i] = at + d;
    if (step > 0 && d > GAP_STEPS * step) gaps.push({ fromS: at, toS: timeS[i]! });
  }
  return { timeS, gaps, clockJumps, repeated };
}
