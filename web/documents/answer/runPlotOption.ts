import { FIGURE_FONT, TEXT_FONT, valueAxis } from './timeChartParts';
import type { Points, RunLine } from './runLines';
import type { themeColours } from './themeColours';

/** What is marked over a run's chart. */
export interface RunMarks {
  steady: { fromS: number; toS: number }[];
  segments: { fromS: number; toS: number; words: string }[];
  events: { atS: number; words: string }[];
}

type LineType = number[] | 'solid';

const DASHED = [7, 4];
const DOTTED = [1, 3];
const TYPES: Record<RunLine['kind'], LineType> = {
  first: 'solid',
  second: DASHED,
  under: DOTTED,
};
/** Left and right of the plots, px. */
export const PLOT = { left: 48, right: 46 };
/** Where each plot lies where there are two of them, and where there are three. */
const PLACES: Record<number, { top: number | string; height: string }[]> = {
  2: [
    { top: 44, height: '38%' },
    { top: '57%', height: '34%' },
  ],
  3: [
    { top: 44, height: '29%' },
    { top: '47%', height: '25%' },
    { top: '81%', height: '11%' },
  ],
};

/**
 * One of the plots of a run that lie one above the other on one clock: power, temperature, level. Each is a chart of its own,
 * so that none of the tasks that draw them is long.
 *
 * @param all lines of the run
 * @param units of the plots, from the top
 * @param plot which of them
 * @param shown the stretch of time that the plots show, s
 */
export function runPlotOption(
  all: readonly RunLine[],
  units: readonly string[],
  plot: number,
  marks: RunMarks,
  shown: { fromS: number; toS: number },
  c: ReturnType<typeof themeColours>,
) {
  const own = all.filter((l) => l.plot === plot);
  const under = own.filter((l) => l.kind === 'under');
  const lines = [...labelsApart(own.filter((l) => l.kind !== 'under')), ...under].map(
    ({ name, points, colour, kind, offset }: ApartLine) => {
      const color = c[colour];
      const labelled = kind !== 'under';
      return {
        name,
        type: 'line' as const,
        // points that are never shown are not kept as elements either
        symbol: 'none',
        showSymbol: false,
        // nobody asks which of thousands of points lies under the hand
        silent: true,
        animation: false,
        dimensions: ['min', name],
        data: points,
        z: labelled ? 3 : 2,
        lineStyle: {
          color,
          width: labelled ? 1.4 : 1.2,
          type: TYPES[kind],
          opacity: labelled ? 1 : 0.75,
        },
        itemStyle: { color },
        endLabel: {
          show: labelled,
          formatter: name,
          color: c.ink,
          fontFamily: TEXT_FONT,
          fontSize: 12,
          ...(offset ? { offset } : {}),
        },
      };
    },
  );
  const area = marks.steady.map((s) => [{ xAxis: s.fromS / 60 }, { xAxis: s.toS / 60 }]);
  const events = {
    silent: true,
    symbol: 'none',
    animation: false,
    lineStyle: { color: c.heat, width: 1, type: DOTTED },
    label: {
      show: true,
      formatter: '{b}',
      rotate: 0,
      align: 'left' as const,
      color: c.heat,
      fontFamily: TEXT_FONT,
      fontSize: 12,
      position: 'end' as const,
      distance: [2, 3],
    },
    // one line of words: those that would lie over each other are told below
    data: spaced(marks.events, shown).map((e) => ({
      name: e.words,
      xAxis: e.atS / 60,
    })),
  };
  const unit = units[plot]!;
  const axis = valueAxis(c, plot === 0 ? 'watts' : unit);
  return {
    // the room beside the plot is given; else it would be laid out twice
    grid: { ...PLOT, ...PLACES[units.length]![plot]!, outerBoundsMode: 'none' as const },
    xAxis: {
      type: 'value' as const,
      min: shown.fromS / 60,
      max: shown.toS / 60,
      axisLabel: {
        show: plot === units.length - 1,
        color: c.ink,
        fontFamily: FIGURE_FONT,
        fontSize: 12,
        showMinLabel: shown.fromS === 0,
        formatter: (m: number) =>
          Math.abs(m - shown.toS / 60) < 1e-9 ? 'min' : String(Number(m.toFixed(2))),
      },
      axisLine: { show: false },
      axisTick: { show: false },
      splitLine: { show: false },
    },
    yAxis: {
      ...axis,
      scale: plot > 0,
      splitNumber: plot === 2 ? 2 : 3,
      ...(plot === 2 ? { minInterval: unit === 'rpm' ? 2000 : 20 } : {}),
      nameTextStyle: { ...axis.nameTextStyle, padding: [0, 0, 0, 4] },
      nameGap: plot === 0 ? 6 : 5,
      axisLabel: { ...axis.axisLabel, hideOverlap: true },
    },
    series: lines.map((l, i) => ({
      ...l,
      ...(i === 0
        ? {
            markArea: { silent: true, itemStyle: { color: c.air, opacity: 0.1 }, data: area },
            ...(plot === 0 ? { markLine: events } : {}),
          }
        : {}),
    })),
  };
}

/** Words need about this share of a plot's width. */
const WORDS_SHARE = 0.24;
/** The plot's own name stands at its left. */
const NAME_SHARE = 0.06;

function spaced(events: RunMarks['events'], shown: { fromS: number; toS: number }) {
  const apart = WORDS_SHARE * (shown.toS - shown.fromS);
  const unnamedS = shown.fromS + NAME_SHARE * (shown.toS - shown.fromS);
  const out: RunMarks['events'] = [];
  for (const e of events) {
    const before = out.filter((x) => x.words !== '').at(-1);
    const covers = e.atS < unnamedS || (before && e.atS - before.atS < apart);
    out.push(covers ? { ...e, words: '' } : e);
  }
  return out;
}

type ApartLine = RunLine & { offset?: [number, number] | undefined };

/** Two lines of a plot that end near each other have their names above and below. */
function labelsApart(lines: readonly RunLine[]): ApartLine[] {
  const endOf = (l: RunLine) => l.points[l.points.length - 1] ?? 0;
  if (lines.length !== 2) return [...lines];
  const most = Math.max(1, ...lines.map((l) => greatest(l.points)));
  return lines.map((l, i) => {
    const other = lines[1 - i]!;
    if (Math.abs(endOf(l) - endOf(other)) > NEAR_ENDS * most) return l;
    const isUpper = endOf(l) > endOf(other) || (endOf(l) === endOf(other) && i === 0);
    return { ...l, offset: [0, isUpper ? -7 : 7] };
  });
}

/** The greatest value of some points. */
function greatest(points: Points): number {
  let most = -Infinity;
  for (let i = 1; i < points.length; i += 2) if (points[i]! > most) most = points[i]!;
  return most;
}

/** Names nearer than this share of a plot's height lie over each other. */
const NEAR_ENDS = 0.14;
