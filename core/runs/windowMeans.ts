import { seriesStats } from '../logs/seriesStats';
import { kindOf, type ChannelKind } from './channels';

/** Mean of a channel over a window. */
export interface ChannelMean {
  /** Over time; of levels that of their energy. */
  mean: number;
  sd: number;
  /** Standard error of the mean, samples that hang on each other counted for less. */
  se: number;
  /** Joined with the instrument's own error. */
  plusMinus: number;
  /** Share of the window's samples that hold a value. */
  share: number;
}

/** What an instrument is known to, by kind of channel; `offset` is added to its readings. */
export type InstrumentErrors = Readonly<Partial<Record<ChannelKind, number>>>;

/** Samples beyond which errors are told from means of neighbours: it makes no difference to them. */
const MOST_SAMPLES = 4000;

const DB = Math.LN10 / 10;

/** Error of an instrument for which nothing is said: power 1 %, temperature 1 K, speed 0.5 %, level 0.5 dB. */
export function instrumentError(
  kind: ChannelKind,
  value: number,
  told: InstrumentErrors = {},
): number {
  const own = told[kind];
  if (own !== undefined) return own;
  if (kind === 'power') return 0.01 * Math.abs(value);
  if (kind === 'speed') return 0.005 * Math.abs(value);
  return kind === 'temperature' ? 1 : kind === 'level' ? 0.5 : 0;
}

/**
 * Mean of a channel over a window of its log.
 *
 * @param is the channel
 * @param values of the whole log, NaN where missing
 * @param weights how long each sample stands for
 * @param from, to first sample and the one after the last
 * @param told errors of the instruments
 * @returns null where no sample holds a value
 */
export function channelMean(
  is: string,
  values: Float64Array,
  weights: Float64Array,
  from: number,
  to: number,
  told?: InstrumentErrors,
): ChannelMean | null {
  const kind = kindOf(is);
  const group = Math.max(1, Math.ceil((to - from) / MOST_SAMPLES));
  const isLevel = kind === 'level';
  const grouped: number[] = [];
  // about the first value, so that nothing is lost in small differences of large sums
  let first = NaN;
  let sum = 0;
  let square = 0;
  let energy = 0;
  let total = 0;
  let count = 0;
  let part = 0;
  let inPart = 0;
  let left = group;
  for (let i = from; i < to; i++) {
    const x = values[i]!;
    // NaN is not itself
    if (x === x) {
      if (count === 0) first = x;
      const w = weights[i]!;
      const by = x - first;
      sum += w * by;
      square += w * by * by;
      if (isLevel) energy += w * Math.exp(DB * by);
      total += w;
      count++;
      part += x;
      inPart++;
    }
    if ((--left === 0 || i === to - 1) && inPart > 0) {
      grouped.push(part / inPart);
      part = 0;
      inPart = 0;
    }
    if (left === 0) left = group;
  }
  if (count === 0) return null;
  const mean = isLevel ? first + Math.log(energy / total) / DB : first + sum / total;
  const variance = Math.max(0, square / total - (sum / total) ** 2);
  const sd = count > 1 ? Math.sqrt((variance * count) / (count - 1)) : 0;
  const { se } = seriesStats(grouped);
  const plusMinus = Math.hypot(se, instrumentError(kind, mean, told));
  return { mean, sd, se, plusMinus, share: count / (to - from) };
}
