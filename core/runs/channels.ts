import type { Log, LogColumn } from '../logs/readLog';
import { usualStep } from '../logs/timeAxis';

/** Die that a power or a temperature is of. */
export type DieName = 'cpu' | 'gpu';

/** Kind of a channel, by what its readings have in common. */
export type ChannelKind = 'power' | 'temperature' | 'speed' | 'level' | 'other';

export function kindOf(channel: string): ChannelKind {
  if (
    channel === 'cpuPowerW' ||
    channel === 'gpuPowerW' ||
    channel === 'wallW' ||
    channel === 'batteryW'
  ) {
    return 'power';
  }
  if (/^(cpuC|gpuC|skinC|roomC|exhaustC\..*|finC\..*|pipeC\..*)$/.test(channel))
    return 'temperature';
  if (channel.startsWith('fanRpm.')) return 'speed';
  return channel === 'levelDbA' ? 'level' : 'other';
}

/** Values of a channel, or undefined where the log has none. */
export const valuesOf = ({ columns }: Pick<Log, 'columns'>, is: string): Float64Array | undefined =>
  columns.find((c) => c.is === is)?.values;

/** Channels that are known for what they are. */
export const knownColumns = ({ columns }: Pick<Log, 'columns'>): LogColumn[] =>
  columns.filter((c) => !c.is.startsWith('other.'));

/** Powers on which a log is cut: those of the dies. */
export const diePowers = (log: Pick<Log, 'columns'>): LogColumn[] =>
  log.columns.filter((c) => c.is === 'cpuPowerW' || c.is === 'gpuPowerW');

export const dieOfPower = (is: string): DieName => (is === 'cpuPowerW' ? 'cpu' : 'gpu');

/**
 * How long each sample stands for, s: half the way to its neighbours, over a gap one usual step.
 *
 * @param timeS rising
 */
export function weightsOf(timeS: Float64Array): Float64Array {
  const n = timeS.length;
  const step = usualStep(timeS) || 1;
  const out = new Float64Array(n).fill(n === 1 ? step : 0);
  for (let i = 1; i < n; i++) {
    const half = 0.5 * Math.min(timeS[i]! - timeS[i - 1]!, 3 * step);
    out[i - 1]! += half;
    out[i]! += half;
  }
  // the first and last stand for a whole step as the others do
  if (n > 1) {
    out[0]! += 0.5 * step;
    out[n - 1]! += 0.5 * step;
  }
  return out;
}

/** A series without holes: what is missing is what was read before, at the beginning what is read first; itself where it has none. */
export function filled(values: Float64Array): Float64Array {
  let whole = true;
  for (let i = 0; i < values.length && whole; i++) whole = values[i] === values[i];
  if (whole) return values;
  const out = Float64Array.from(values);
  let before = values.find((x) => Number.isFinite(x)) ?? 0;
  for (let i = 0; i < out.length; i++) {
    if (Number.isFinite(out[i]!)) before = out[i]!;
    else out[i] = before;
  }
  return out;
}
