import type { Series } from '@zugluft/core/library/runAnswers';
import { toShown, type UnitPreference } from '@zugluft/core/record/units';
import { cursorWords, type CursorPoint } from './cursorWords';
import type { themeColours } from './themeColours';
import { FIGURE_FONT, cursorTooltip, ONE_CURSOR, TEXT_FONT, valueAxis } from './timeChartParts';

/** What is marked over a run's chart. */
export interface RunMarks {
  steady: { fromS: number; toS: number }[];
  segments: { fromS: number; toS: number; words: string }[];
  events: { atS: number; words: string }[];
}

/** Something drawn under a run, moved so that the loads begin together. */
export interface UnderRun {
  name: string;
  series: Series;
  shiftS: number;
}

/** Times in minutes and values by turns: a list of pairs is copied pair by pair whenever it is drawn. */
type Points = Float64Array;
type LineType = number[] | 'solid';

const DASHED = [7, 4];
const DOTTED = [1, 3];
/** Left and right of the plots, px. */
export const PLOT = { left: 48, right: 46 };

/** Least and greatest of each pixel, one after the other, so that a line through them shows every peak. */
function pointsOf(
  series: Series,
  channel: string,
  turn: (x: number) => number,
  shiftS: number,
): Points {
  const own = series.channels[channel];
  if (!own) return new Float64Array();
  const n = own.least.length;
  const step = (series.toS - series.fromS) / n;
  const out = new Float64Array(4 * n);
  let length = 0;
  for (let k = 0; k < n; k++) {
    const low = own.least[k] ?? null;
    const high = own.most[k] ?? null;
    // a pixel without a sample between two that have some is no silence
    if (low === null || high === null) continue;
    const at = (series.fromS + (k + 0.5) * step + shiftS) / 60;
    out[length++] = at;
    out[length++] = turn(low);
    if (high === low) continue;
    out[length++] = at;
    out[length++] = turn(high);
  }
  return out.slice(0, length);
}

/**
 * Power, temperature and level of a run, one above the other on one clock.
 *
 * @param series least and greatest by pixel
 * @param shown the stretch of time that the plots show, s
 */
export function runChartOption(
  series: Series,
  marks: RunMarks,
  under: readonly UnderRun[],
  shown: { fromS: number; toS: number },
  c: ReturnType<typeof themeColours>,
  units: UnitPreference,
) {
  const hasLevel = 'levelDbA' in series.channels;
  const fans = Object.keys(series.channels).filter((x) => x.startsWith('fanRpm.'));
  const last = hasLevel ? 'dB(A)' : fans.length > 0 ? 'rpm' : null;
  const bands = [
    { top: 44, height: last ? '29%' : '38%', name: 'watts' },
    { top: last ? '47%' : '57%', height: last ? '25%' : '34%', name: units.temperature },
    ...(last ? [{ top: '81%', height: '11%', name: last }] : []),
  ];
  const plain = (x: number) => x;
  const warm = (x: number) => toShown(x, '°C', units);
  const line = (
    name: string,
    band: number,
    data: Points,
    type: LineType,
    color: string,
    labelled = true,
  ) => ({
    name,
    type: 'line' as const,
    xAxisIndex: band,
    yAxisIndex: band,
    // points that are never shown are not kept as elements either
    symbol: 'none',
    showSymbol: false,
    // the cursor goes by the axis; nobody asks which of thousands of points lies under the hand
    silent: true,
    animation: false,
    dimensions: ['min', name],
    data,
    z: labelled ? 3 : 2,
    lineStyle: { color, width: labelled ? 1.4 : 1.2, type, opacity: labelled ? 1 : 0.75 },
    itemStyle: { color },
    endLabel: {
      show: labelled,
      formatter: name,
      color: c.ink,
      fontFamily: TEXT_FONT,
      fontSize: 12,
    },
  });
  const of = (
    channel: string,
    name: string,
    band: number,
    type: LineType,
    color: string,
    turn = plain,
  ) =>
    channel in series.channels
      ? [line(name, band, pointsOf(series, channel, turn, 0), type, color)]
      : [];
  const measured = [
    ...of('cpuPowerW', 'CPU', 0, 'solid', c.ink),
    ...of('gpuPowerW', 'GPU', 0, DASHED, c.ink),
    ...of('cpuC', 'CPU', 1, 'solid', c.heat, warm),
    ...of('gpuC', 'GPU', 1, DASHED, c.heat, warm),
    ...(hasLevel
      ? of('levelDbA', 'level', 2, 'solid', c.air)
      : fans.flatMap((f, i) => of(f, fanWord(f), 2, i ? DASHED : 'solid', c.air))),
  ];
  const rows: [string, number, string, (x: number) => number][] = [
    ['cpuPowerW', 0, c.ink, plain],
    ['gpuPowerW', 0, c.ink, plain],
    ['cpuC', 1, c.heat, warm],
    ['gpuC', 1, c.heat, warm],
    ...(hasLevel ? [['levelDbA', 2, c.air, plain] as [string, number, string, typeof plain]] : []),
  ];
  const below = under.flatMap(({ name, series: other, shiftS }) =>
    rows.flatMap(([channel, band, colour, turn]) => {
      const data = pointsOf(other, channel, turn, shiftS);
      return data.length > 0 ? [line(name, band, data, DOTTED, colour, false)] : [];
    }),
  );
  const lines = [...labelsApart(measured), ...below];
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
  return {
    // the room beside the plots is given; else each would be laid out twice
    grid: bands.map((b) => ({
      ...PLOT,
      top: b.top,
      height: b.height,
      outerBoundsMode: 'none' as const,
    })),
    xAxis: bands.map((_, i) => ({
      type: 'value' as const,
      gridIndex: i,
      min: shown.fromS / 60,
      max: shown.toS / 60,
      axisLabel: {
        show: i === bands.length - 1,
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
    })),
    yAxis: bands.map((b, i) => {
      const axis = valueAxis(c, b.name);
      return {
        ...axis,
        gridIndex: i,
        scale: i > 0,
        splitNumber: i === 2 ? 2 : 3,
        ...(i === 2 ? { minInterval: hasLevel ? 20 : 2000 } : {}),
        nameTextStyle: { ...axis.nameTextStyle, padding: [0, 0, 0, 4] },
        nameGap: i === 0 ? 6 : 5,
        axisLabel: { ...axis.axisLabel, hideOverlap: true },
      };
    }),
    // as text in the drawing: a sheet of the page would be measured at each move of the hand
    tooltip: {
      ...cursorTooltip(c),
      formatter: (points: CursorPoint[]) =>
        cursorWords(points, ['W', units.temperature, last ?? '']),
    },
    axisPointer: ONE_CURSOR,
    series: lines.map((l, i) => ({
      ...l,
      ...(lines.findIndex((x) => x.xAxisIndex === l.xAxisIndex) === i
        ? {
            markArea: { silent: true, itemStyle: { color: c.air, opacity: 0.1 }, data: area },
            ...(l.xAxisIndex === 0 ? { markLine: events } : {}),
          }
        : {}),
    })),
  };
}

/** “left” for `fanRpm.fan-left`: there is little room beside a line. */
const fanWord = (channel: string) => channel.slice('fanRpm.'.length).replace(/^fan-/, '');

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

/** Two lines of a plot that end near each other have their names above and below. */
function labelsApart<T extends { xAxisIndex: number; data: Points; endLabel: object }>(
  lines: readonly T[],
): T[] {
  const endOf = (l: T) => l.data[l.data.length - 1] ?? 0;
  return lines.map((l) => {
    const own = lines.filter((o) => o.xAxisIndex === l.xAxisIndex);
    if (own.length !== 2) return l;
    let most = 1;
    for (const { data } of own)
      for (let i = 1; i < data.length; i += 2) most = Math.max(most, data[i]!);
    const other = own.find((o) => o !== l)!;
    if (Math.abs(endOf(l) - endOf(other)) > NEAR_ENDS * most) return l;
    const isUpper = endOf(l) > endOf(other) || (endOf(l) === endOf(other) && l === own[0]);
    return { ...l, endLabel: { ...l.endLabel, offset: [0, isUpper ? -7 : 7] as [number, number] } };
  });
}

/** Names nearer than this share of a plot's height lie over each other. */
const NEAR_ENDS = 0.14;
