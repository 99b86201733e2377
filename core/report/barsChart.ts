import { wattsText } from '../case/answerWords';
import type { Band3 } from '../verdict/bandWords';
import {
  AIR_BAND,
  cutTo,
  HEAT_BAND,
  INK,
  QUIET,
  RULE,
  ticks,
  type Chart,
  type Mark,
} from './chart';

export interface Bar {
  name: string;
  watts: Band3;
  /** Narrowed by runs. */
  isCalibrated?: boolean;
  /** The machine that is looked at. */
  isOwn?: boolean;
}

const ROW = 22;
const TOP = 8;
const BELOW = 26;
const TEXT = 10;
const NAMES_SHARE = 0.4;
const FIGURES = 40;

/** Height of so many bars, in points. */
export const barsHeight = (bars: number): number => TOP + ROW * bars + BELOW;

/**
 * Bands of machines under each other, in the order they come: a bar from 5 to 95 %, a stroke at the median, its figure.
 *
 * @param bars at least one
 * @param width in points; the height follows from the bars
 * @param what they are of, for those who cannot see it
 */
export function barsChart(bars: readonly Bar[], width: number, what: string): Chart {
  const names = width * NAMES_SHARE;
  const right = width - FIGURES;
  const marks: Mark[] = [];
  const scale = ticks(0, Math.max(1, ...bars.map((b) => b.watts.p95)), 4);
  const top = scale[scale.length - 1]!;
  const x = (watts: number) => names + (watts / top) * (right - names);
  const height = barsHeight(bars.length);
  for (const w of scale) {
    marks.push(
      {
        kind: 'line',
        points: [
          [x(w), TOP],
          [x(w), height - BELOW + 4],
        ],
        colour: RULE,
        width: 0.6,
      },
      {
        kind: 'text',
        at: [x(w), height - 10],
        text: String(w),
        size: 9,
        colour: QUIET,
        anchor: 'middle',
      },
    );
  }
  bars.forEach(({ name, watts, isCalibrated, isOwn }, i) => {
    const y = TOP + ROW * (i + 0.5);
    marks.push(
      {
        kind: 'text',
        at: [0, y + 3.5],
        text: cutTo(name, TEXT, names - 8),
        size: TEXT,
        colour: INK,
        anchor: 'start',
        ...(isOwn ? { bold: true } : {}),
      },
      {
        kind: 'line',
        points: [
          [x(watts.p05), y],
          [Math.max(x(watts.p05) + 0.5, x(watts.p95)), y],
        ],
        colour: isCalibrated ? AIR_BAND : HEAT_BAND,
        width: 10,
      },
      {
        kind: 'line',
        points: [
          [x(watts.p50), y - 7],
          [x(watts.p50), y + 7],
        ],
        colour: INK,
        width: 1.8,
      },
      {
        kind: 'text',
        at: [width, y + 3.5],
        text: wattsText(watts.p50),
        size: TEXT,
        colour: INK,
        anchor: 'end',
        ...(isOwn ? { bold: true } : {}),
      },
    );
  });
  const said = bars.map(
    ({ name, watts: w }) =>
      `${name} ${wattsText(w.p50)} W, ${wattsText(w.p05)} to ${wattsText(w.p95)}`,
  );
  return { width, height, alt: `${what}: ${said.join('; ')}.`, marks };
}
