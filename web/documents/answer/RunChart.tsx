import { LineChart } from 'echarts/charts';
import {
  DataZoomComponent,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
} from 'echarts/components';
import { use as register } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect } from 'react';
import { toShown, type UnitPreference } from '@zugluft/core/record/units';
import type { Series } from '@zugluft/core/library/runAnswers';
import { themeColours } from './themeColours';
import { useChart } from './useChart';

register([
  LineChart,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
  DataZoomComponent,
  CanvasRenderer,
]);

/** What is marked over a run's chart. */
export interface RunMarks {
  steady: { fromS: number; toS: number }[];
  events: { atS: number; words: string }[];
}

type Points = [number, number | null][];

/** Least and greatest of each pixel, one after the other, so that a line through them shows every peak. */
function pointsOf(series: Series, channel: string, turn: (x: number) => number): Points {
  const own = series.channels[channel];
  if (!own) return [];
  const n = own.least.length;
  const step = (series.toS - series.fromS) / n;
  const out: Points = [];
  for (let k = 0; k < n; k++) {
    const low = own.least[k] ?? null;
    const high = own.most[k] ?? null;
    // a pixel without a sample between two that have some is no silence
    if (low === null || high === null) continue;
    const at = (series.fromS + (k + 0.5) * step) / 60;
    out.push([at, turn(low)]);
    if (high !== low) out.push([at, turn(high)]);
  }
  return out;
}

/** Power, temperature and level of a run, one above the other on one clock. */
export default function RunChart({
  series,
  marks,
  theme,
  units,
}: {
  series: Series;
  marks: RunMarks;
  theme: string;
  units: UnitPreference;
}) {
  const { holder, chart } = useChart();
  useEffect(() => {
    const element = holder.current;
    if (!element || !chart.current) return;
    const c = themeColours(element);
    const text = 'Hanken Grotesk Variable, sans-serif';
    const mono = 'Spline Sans Mono Variable, monospace';
    const hasLevel = 'levelDbA' in series.channels;
    const fans = Object.keys(series.channels).filter((x) => x.startsWith('fanRpm.'));
    const last = hasLevel ? 'dB(A)' : fans.length > 0 ? 'rpm' : null;
    const bands = [
      { top: 34, height: last ? '32%' : '42%', name: 'watts' },
      { top: last ? '45%' : '56%', height: last ? '27%' : '36%', name: units.temperature },
      ...(last ? [{ top: '81%', height: '11%', name: last }] : []),
    ];
    const plain = (x: number) => x;
    const warm = (x: number) => toShown(x, '°C', units);
    const line = (
      name: string,
      band: number,
      data: Points,
      type: number[] | 'solid',
      color: string,
    ) => ({
      name,
      type: 'line' as const,
      xAxisIndex: band,
      yAxisIndex: band,
      symbol: 'none',
      animation: false,
      data,
      lineStyle: { color, width: 1.4, type },
      itemStyle: { color },
      endLabel: { show: true, formatter: name, color: c.ink, fontFamily: text, fontSize: 12 },
    });
    const of = (
      channel: string,
      name: string,
      band: number,
      type: number[] | 'solid',
      color: string,
      turn = plain,
    ) =>
      channel in series.channels
        ? [line(name, band, pointsOf(series, channel, turn), type, color)]
        : [];
    const lines = [
      ...of('cpuPowerW', 'CPU', 0, 'solid', c.ink),
      ...of('gpuPowerW', 'GPU', 0, [7, 4], c.ink),
      ...of('cpuC', 'CPU', 1, 'solid', c.heat, warm),
      ...of('gpuC', 'GPU', 1, [7, 4], c.heat, warm),
      ...(hasLevel
        ? of('levelDbA', 'level', 2, 'solid', c.air)
        : fans.flatMap((f, i) => of(f, f.slice('fanRpm.'.length), 2, i ? [7, 4] : 'solid', c.air))),
    ];
    const area = marks.steady.map((s) => [{ xAxis: s.fromS / 60 }, { xAxis: s.toS / 60 }]);
    chart.current.setOption(
      {
        grid: bands.map((b) => ({ left: 48, right: 52, top: b.top, height: b.height })),
        xAxis: bands.map((_, i) => ({
          type: 'value' as const,
          gridIndex: i,
          min: series.fromS / 60,
          max: series.toS / 60,
          axisLabel: {
            show: i === bands.length - 1,
            color: c.ink,
            fontFamily: mono,
            fontSize: 12,
            formatter: (m: number) =>
              Math.abs(m - series.toS / 60) < 1e-9 ? 'min' : String(Number(m.toFixed(2))),
          },
          axisLine: { show: false },
          axisTick: { show: false },
          splitLine: { lineStyle: { color: c.rule } },
        })),
        yAxis: bands.map((b, i) => ({
          type: 'value' as const,
          gridIndex: i,
          scale: i > 0,
          splitNumber: i === 2 ? 2 : 4,
          name: b.name,
          nameTextStyle: { color: c.ink, fontFamily: text, fontSize: 12, align: 'left' as const },
          nameGap: 8,
          axisLabel: { color: c.ink, fontFamily: mono, fontSize: 12 },
          splitLine: { lineStyle: { color: c.rule } },
        })),
        tooltip: {
          trigger: 'axis' as const,
          axisPointer: { type: 'line' as const, lineStyle: { color: c.air } },
          backgroundColor: c.ground,
          borderColor: c.rule,
          textStyle: { color: c.ink, fontFamily: text, fontSize: 12 },
          valueFormatter: (x: unknown) => (typeof x === 'number' ? x.toFixed(1) : 'silent'),
        },
        axisPointer: { link: [{ xAxisIndex: 'all' as const }] },
        dataZoom: [{ type: 'inside' as const, xAxisIndex: bands.map((_, i) => i) }],
        series: lines.map((l, i) => ({
          ...l,
          ...(lines.findIndex((x) => x.xAxisIndex === l.xAxisIndex) === i
            ? {
                markArea: {
                  silent: true,
                  itemStyle: { color: c.air, opacity: 0.1 },
                  data: area,
                },
                ...(l.xAxisIndex === 0
                  ? {
                      markLine: {
                        silent: true,
                        symbol: 'none',
                        animation: false,
                        lineStyle: { color: c.heat, width: 1, type: [1, 3] },
                        label: {
                          show: true,
                          formatter: '{b}',
                          color: c.heat,
                          fontFamily: text,
                          fontSize: 12,
                          position: 'insideEndTop' as const,
                        },
                        data: marks.events.map((e) => ({ name: e.words, xAxis: e.atS / 60 })),
                      },
                    }
                  : {}),
              }
            : {}),
        })),
      },
      { notMerge: true },
    );
  }, [chart, holder, series, marks, theme, units]);
  return <div ref={holder} className="w-full h-full" data-testid="run-chart" />;
}
