import { LineChart } from 'echarts/charts';
import { GridComponent, TooltipComponent } from 'echarts/components';
import { use as register } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect } from 'react';
import { wattsText } from '@zugluft/core/case/answerWords';
import { themeColours } from '../../documents/answer/themeColours';
import {
  FIGURE_FONT,
  pointTooltip,
  TEXT_FONT,
  valueAxis,
} from '../../documents/answer/timeChartParts';
import { useChart } from '../../documents/answer/useChart';
import { levelCurve, type Row } from './comparedFigures';
import { spreadLabels } from './placeLabels';
import { shortNames } from './shortNames';
import { STROKES } from './strokes';
import { useWidth } from './useWidth';

register([LineChart, GridComponent, TooltipComponent, CanvasRenderer]);

/** Room for a name at the end of its line; on a phone a third of the width. */
const LABEL_PX = 170;
const TOP_PX = 30;

/** Watts of each machine over the level, its name at the end of its line. */
export default function CurvesChart({ rows, theme }: { rows: readonly Row[]; theme: string }) {
  const { holder, chart } = useChart();
  const widthPx = useWidth(holder);
  useEffect(() => {
    const element = holder.current;
    if (!element || !chart.current || !widthPx) return;
    const c = themeColours(element);
    const labelPx = Math.min(LABEL_PX, widthPx / 3);
    const short = shortNames(rows.map((r) => r.name));
    const curves = rows.map((r) => ({ name: r.name, points: levelCurve(r) }));
    const levels = curves[0]?.points.map(([level]) => level) ?? [];
    chart.current.setOption(
      {
        grid: { left: 48, right: labelPx + 12, top: TOP_PX, bottom: 26 },
        xAxis: {
          type: 'value',
          min: Math.min(...levels),
          max: Math.max(...levels),
          axisLabel: {
            customValues: levels,
            hideOverlap: true,
            color: c.ink,
            fontFamily: FIGURE_FONT,
            fontSize: 12,
            formatter: (level: number) => (level === levels[0] ? `${level} dB(A)` : String(level)),
          },
          axisLine: { lineStyle: { color: c.rule } },
          splitLine: { show: false },
        },
        yAxis: { ...valueAxis(c, 'watts'), min: 0 },
        tooltip: pointTooltip(
          c,
          (name, [level, watts]) => `${name}: ${wattsText(watts)} W at ${level} dB(A)`,
        ),
        series: curves.map(({ name, points }, i) => ({
          name,
          type: 'line' as const,
          data: points,
          animation: false,
          symbol: 'circle',
          symbolSize: 5,
          lineStyle: { color: c.ink, width: 1.6, type: STROKES[i % STROKES.length] },
          itemStyle: { color: c.ink },
          emphasis: { focus: 'series' as const, lineStyle: { color: c.heat, width: 2.4 } },
          blur: { lineStyle: { opacity: 0.25 } },
        })),
      },
      { notMerge: true },
    );
    // names at the ends of the lines, moved apart where they would lie on each other
    const pixelOf = (watts: number) => chart.current!.convertToPixel({ yAxisIndex: 0 }, watts);
    const shifts = spreadLabels(
      curves.map(({ points }) => pixelOf(points[points.length - 1]?.[1] ?? 0)),
      TOP_PX,
      pixelOf(0),
    );
    chart.current.setOption({
      series: curves.map((_, i) => ({
        endLabel: {
          show: shifts[i] !== null,
          formatter: short[i]!,
          width: labelPx,
          overflow: 'truncate' as const,
          offset: [0, shifts[i] ?? 0],
          color: c.ink,
          fontFamily: TEXT_FONT,
          fontSize: 12,
        },
      })),
    });
  }, [chart, holder, rows, theme, widthPx]);
  return (
    <div
      ref={holder}
      className="w-full h-72"
      role="img"
      aria-label={`watts over the level, ${rows.length} machines; their figures stand in the table`}
    />
  );
}
