import { wattsText } from '../case/answerWords';
import type { Band3 } from '../verdict/bandWords';
import { HEAT_BAND, INK, QUIET, RULE, ticks, type Chart, type Mark, type Point } from './chart';

export interface WattsAtLevel {
  levelDbA: number;
  watts: Band3;
}

/** A steady state of a run. */
export interface MeasuredMark {
  levelDbA: number;
  watts: number;
}

const LEFT = 44;
const RIGHT = 14;
const TOP = 14;
const BELOW = 38;
const TEXT = 9;

/**
 * Watts against level: the median as a line, its band behind it, what was measured as marks.
 *
 * @param points at the caps that are levels; fewer than two are shown as marks with their bands
 * @param measured steady states
 * @param size in points
 */
export function wattsChart(
  points: readonly WattsAtLevel[],
  measured: readonly MeasuredMark[],
  size: { width: number; height: number },
): Chart {
  const { width, height } = size;
  const levels = [...points.map((p) => p.levelDbA), ...measured.map((m) => m.levelDbA)];
  const least = Math.min(...levels);
  const most = Math.max(...levels);
  const tops = [...points.map((p) => p.watts.p95), ...measured.map((m) => m.watts), 1];
  const rungs = ticks(0, Math.max(...tops), 4);
  const top = rungs[rungs.length - 1]!;
  const span = most - least || 1;
  const x = (level: number) => LEFT + ((level - least) / span) * (width - LEFT - RIGHT);
  const y = (watts: number) => height - BELOW - (watts / top) * (height - TOP - BELOW);
  const marks: Mark[] = rungs.flatMap((w): Mark[] => [
    {
      kind: 'line',
      points: [
        [LEFT, y(w)],
        [width - RIGHT, y(w)],
      ],
      colour: RULE,
      width: 0.6,
    },
    {
      kind: 'text',
      at: [LEFT - 6, y(w) + 3],
      text: String(w),
      size: TEXT,
      colour: QUIET,
      anchor: 'end',
    },
  ]);
  for (const level of apart(
    levels.sort((a, b) => a - b),
    (24 * span) / (width - LEFT - RIGHT),
  )) {
    marks.push({
      kind: 'text',
      at: [x(level), height - BELOW + 14],
      text: level.toFixed(0),
      size: TEXT,
      colour: QUIET,
      anchor: 'middle',
    });
  }
  marks.push(
    {
      kind: 'text',
      at: [width - RIGHT, height - 8],
      text: 'dB(A)',
      size: TEXT,
      colour: QUIET,
      anchor: 'end',
    },
    {
      kind: 'text',
      at: [LEFT - 6, height - 8],
      text: 'W',
      size: TEXT,
      colour: QUIET,
      anchor: 'end',
    },
  );
  const along = (of: (b: Band3) => number) =>
    points.map((p): Point => [x(p.levelDbA), y(of(p.watts))]);
  if (points.length > 1) {
    marks.push(
      {
        kind: 'area',
        points: [...along((b) => b.p95), ...along((b) => b.p05).reverse()],
        colour: HEAT_BAND,
      },
      { kind: 'line', points: along((b) => b.p50), colour: INK, width: 1.6 },
    );
  } else {
    for (const p of points) {
      const at = x(p.levelDbA);
      marks.push(
        {
          kind: 'line',
          points: [
            [at, y(p.watts.p05)],
            [at, y(p.watts.p95)],
          ],
          colour: HEAT_BAND,
          width: 10,
        },
        {
          kind: 'line',
          points: [
            [at - 8, y(p.watts.p50)],
            [at + 8, y(p.watts.p50)],
          ],
          colour: INK,
          width: 1.6,
        },
      );
    }
  }
  for (const m of measured) {
    marks.push({ kind: 'diamond', at: [x(m.levelDbA), y(m.watts)], size: 4.5, colour: INK });
  }
  const said = points.map(
    (p) =>
      `${wattsText(p.watts.p50)} W at ${p.levelDbA.toFixed(0)} dB(A), ${wattsText(p.watts.p05)} to ${wattsText(p.watts.p95)}`,
  );
  return { width, height, alt: `Watts against noise: ${said.join('; ')}.`, marks };
}

/** Those of a sorted list that lie no nearer to the one before than a distance. */
function apart(sorted: readonly number[], distance: number): number[] {
  const out: number[] = [];
  for (const v of sorted) if (out.length === 0 || v - out[out.length - 1]! >= distance) out.push(v);
  return out;
}
