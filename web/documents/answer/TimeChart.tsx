import { LineChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { use as register } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect } from 'react';
import { toShown, type UnitPreference } from '@zugluft/core/record/units';
import type { Simulation } from '@zugluft/core/transient/simulateFirmware';
import { themeColours } from './themeColours';
import { FIGURE_FONT, ONE_CURSOR, TEXT_FONT, timeTooltip, valueAxis } from './timeChartParts';
import { useChart } from './useChart';

register([LineChart, GridComponent, MarkLineComponent, TooltipComponent, CanvasRenderer]);

/** Points drawn per line; a run has thousands of samples. */
const MAX_POINTS = 600;

/** Every so many samples of a line, in minutes; the last one is always there. */
function thinned(values: ArrayLike<number>, stepS: number): [number, number | null][] {
  const every = Math.max(1, Math.ceil(values.length / MAX_POINTS));
  const out: [number, number | null][] = [];
  const add = (k: number) =>
    out.push([(k * stepS) / 60, Number.isNaN(values[k]!) ? null : values[k]!]);
  for (let k = 0; k < values.length; k += every) add(k);
  if ((values.length - 1) % every) add(values.length - 1);
  return out;
}

/** Watts, junctions and level over time, one above the other on one clock. */
export default function TimeChart({
  run,
  theme,
  units,
}: {
  run: Simulation;
  theme: string;
  units: UnitPreference;
}) {
  const { holder, chart } = useChart();
  useEffect(() => {
    const element = holder.current;
    if (!element || !chart.current) return;
    const c = themeColours(element);
    const bands = [
      { top: 34, height: '33%', name: 'watts' },
      { top: '46%', height: '27%', name: `${units.temperature} at the junctions` },
      { top: '82%', height: '11%', name: 'dB(A)' },
    ];
    const line = (
      name: string,
      band: number,
      values: ArrayLike<number>,
      type: number[] | 'solid',
      color: string,
      below = false,
    ) => ({
      name,
      type: 'line' as const,
      xAxisIndex: band,
      yAxisIndex: band,
      symbol: 'none',
      animation: false,
      data: thinned(values, run.stepS),
      lineStyle: { color, width: 1.6, type },
      itemStyle: { color },
      endLabel: {
        show: true,
        formatter: name,
        color: c.ink,
        fontFamily: TEXT_FONT,
        fontSize: 12,
        offset: [0, below ? 13 : 0],
      },
    });
    const last = run.steps - 1;
    const close = (a: number, b: number, span: number) => b <= a && a - b < span;
    const ends = run.junctionC.map((j) => j.temperatureC[last]!);
    const series = [
      ...(run.junctionC.some((j) => j.id !== 'gpu')
        ? [line('CPU', 0, run.cpuW, 'solid', c.ink)]
        : []),
      ...(run.gpuW.some((w) => w > 0)
        ? [line('GPU', 0, run.gpuW, [7, 4], c.ink, close(run.cpuW[last]!, run.gpuW[last]!, 12))]
        : []),
      ...run.junctionC.map((j, i) => ({
        ...line(
          j.id.toUpperCase(),
          1,
          Array.from(j.temperatureC, (t) => toShown(t, '°C', units)),
          i ? [7, 4] : 'solid',
          c.heat,
          i > 0 && ends.slice(0, i).some((x) => close(x + 0.5, ends[i]!, 9)),
        ),
        markLine: {
          silent: true,
          symbol: 'none',
          animation: false,
          lineStyle: { color: c.heat, width: 1, type: [1, 3] },
          label: { show: false },
          data: [{ yAxis: toShown(j.limitC, '°C', units) }],
        },
      })),
      line('level', 2, run.levelDbA, 'solid', c.air),
    ];
    const minutes = (run.steps * run.stepS) / 60;
    chart.current.setOption(
      {
        grid: bands.map((b) => ({ left: 48, right: 52, top: b.top, height: b.height })),
        xAxis: bands.map((_, i) => ({
          type: 'value' as const,
          gridIndex: i,
          min: 0,
          max: minutes,
          interval: minutes / 6,
          axisLabel: {
            show: i === bands.length - 1,
            color: c.ink,
            fontFamily: FIGURE_FONT,
            fontSize: 12,
            formatter: (m: number) => (i === 2 && m === minutes ? `${m} min` : String(m)),
          },
          axisLine: { show: false },
          axisTick: { show: false },
          splitLine: { lineStyle: { color: c.rule } },
        })),
        yAxis: bands.map((b, i) => ({
          ...valueAxis(c, b.name),
          gridIndex: i,
          scale: i > 0,
          splitNumber: i === 2 ? 2 : 4,
          nameGap: 8,
        })),
        tooltip: timeTooltip(c, 'off'),
        axisPointer: ONE_CURSOR,
        series,
      },
      { notMerge: true },
    );
  }, [chart, holder, run, theme, units]);
  return <div ref={holder} className="w-full h-full" data-testid="time-chart" />;
}
