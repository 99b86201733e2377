import { LineChart, ScatterChart } from 'echarts/charts';
import { GridComponent, TooltipComponent } from 'echarts/components';
import { use as register } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect } from 'react';
import { themeColours } from '../../documents/answer/themeColours';
import { pointTooltip, TEXT_FONT, valueAxis } from '../../documents/answer/timeChartParts';
import { useChart } from '../../documents/answer/useChart';
import type { ScatterPoint } from './comparedFigures';
import { placeLabels } from './placeLabels';
import { shortNames } from './shortNames';
import { textWidthPx } from './textWidth';
import { useWidth } from './useWidth';

/** No name is longer than this. */
const LABEL_PX = 190;
/** Room for the figures of the axis. */
const LEFT_PX = 56;

register([LineChart, ScatterChart, GridComponent, TooltipComponent, CanvasRenderer]);

/** Each machine at two of its figures, with its name and the band of its watts. */
export default function FiguresScatter({
  points,
  x,
  y,
  theme,
}: {
  points: readonly ScatterPoint[];
  /** What stands along and up. */
  x: { words: string; digits: number };
  y: { words: string; digits: number };
  theme: string;
}) {
  const { holder, chart } = useChart();
  const widthPx = useWidth(holder);
  useEffect(() => {
    const element = holder.current;
    if (!element || !chart.current || !widthPx) return;
    const c = themeColours(element);
    const short = shortNames(points.map((p) => p.name));
    const bands = points.flatMap((p) => [
      ...(p.xBand
        ? [
            [p.xBand[0], p.y],
            [p.xBand[1], p.y],
            [null, null],
          ]
        : []),
      ...(p.yBand
        ? [
            [p.x, p.yBand[0]],
            [p.x, p.yBand[1]],
            [null, null],
          ]
        : []),
    ]);
    const axis = (words: string, has: boolean) => ({
      ...valueAxis(c, words),
      scale: !has,
      ...(has ? { min: 0 } : {}),
    });
    chart.current.setOption(
      {
        grid: { left: LEFT_PX, right: 16, top: 30, bottom: 44 },
        xAxis: {
          ...axis(
            x.words,
            points.some((p) => p.xBand),
          ),
          nameLocation: 'middle',
          nameGap: 26,
          nameTextStyle: { color: c.ink, fontFamily: TEXT_FONT, fontSize: 12 },
        },
        yAxis: axis(
          y.words,
          points.some((p) => p.yBand),
        ),
        tooltip: pointTooltip(
          c,
          (name, [at, up]) =>
            `${name}\n${x.words} ${at.toFixed(x.digits)}\n${y.words} ${up.toFixed(y.digits)}`,
        ),
        series: [
          {
            type: 'line',
            data: bands,
            silent: true,
            animation: false,
            symbol: 'none',
            connectNulls: false,
            lineStyle: { color: c.heat, width: 5, opacity: 0.3, type: 'solid' },
          },
          {
            type: 'scatter',
            animation: false,
            symbolSize: 9,
            itemStyle: { color: c.ink, opacity: 1 },
            data: points.map((p) => ({ name: p.name, value: [p.x, p.y] })),
          },
        ],
      },
      { notMerge: true },
    );
    const labels = placeLabels(
      points.map((p, i) => {
        const at = chart.current!.convertToPixel({ gridIndex: 0 }, [p.x, p.y]) as [number, number];
        return { x: at[0], y: at[1], widthPx: Math.min(LABEL_PX, textWidthPx(short[i]!)) };
      }),
      LEFT_PX,
      widthPx,
    );
    chart.current.setOption({
      series: [
        {},
        {
          data: points.map((p, i) => ({
            name: p.name,
            value: [p.x, p.y],
            label: {
              show: labels[i] !== null,
              position: labels[i]?.side,
              offset: [0, labels[i]?.shiftPx ?? 0],
              formatter: short[i]!,
              width: labels[i]?.widthPx,
              overflow: 'truncate',
              color: c.ink,
              fontFamily: TEXT_FONT,
              fontSize: 12,
            },
          })),
        },
      ],
    });
  }, [chart, holder, points, x, y, theme, widthPx]);
  return (
    <div
      ref={holder}
      className="w-full h-72"
      role="img"
      aria-label={`${y.words} over ${x.words}, ${points.length} machines`}
    />
  );
}
