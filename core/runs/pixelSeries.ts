import type { Log } from '../logs/readLog';
import { firstAt } from './steadyWindow';

/** Least and greatest of each channel in equal stretches of time, so that no peak is lost however many samples a pixel holds. */
export interface PixelSeries {
  fromS: number;
  toS: number;
  channels: Record<string, { least: (number | null)[]; most: (number | null)[] }>;
}

/**
 * A log as a chart of some pixels shows it.
 *
 * @param log the log
 * @param fromS, toS what is shown
 * @param pixels stretches, at least one
 * @param channels those that are wanted; all known ones by default
 */
export function pixelSeries(
  log: Pick<Log, 'timeS' | 'columns'>,
  fromS: number,
  toS: number,
  pixels: number,
  channels?: ReadonlySet<string>,
): PixelSeries {
  const { timeS } = log;
  // one sample beyond either end, so that lines go on to the edge
  const first = Math.max(0, firstAt(timeS, fromS) - 1);
  const end = Math.min(timeS.length, firstAt(timeS, toS) + 1);
  const perS = pixels / Math.max(1e-9, toS - fromS);
  const out: PixelSeries = { fromS, toS, channels: {} };
  for (const c of log.columns) {
    if (channels ? !channels.has(c.is) : c.is.startsWith('other.')) continue;
    const least = new Array<number | null>(pixels).fill(null);
    const most = new Array<number | null>(pixels).fill(null);
    for (let i = first; i < end; i++) {
      const x = c.values[i]!;
      if (x !== x) continue;
      const k = Math.min(pixels - 1, Math.max(0, Math.floor((timeS[i]! - fromS) * perS)));
      if (least[k] === null || x < least[k]!) least[k] = x;
      if (most[k] === null || x > most[k]!) most[k] = x;
    }
    out.channels[c.is] = { least, most };
  }
  return out;
}
