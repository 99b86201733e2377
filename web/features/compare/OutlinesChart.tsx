import { LineChart, ScatterChart } from 'echarts/charts';
import { GridComponent } from 'echarts/components';
import { use as register } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect } from 'react';
import { plural } from '@zugluft/core/record/plural';
import { wattsText } from '@zugluft/core/case/answerWords';
import { placeAlong } from '../../documents/answer/envelopeLines';
import { themeColours } from '../../documents/answer/themeColours';
import { TEXT_FONT, valueAxis } from '../../documents/answer/timeChartParts';
import { useChart } from '../../documents/answer/useChart';
import { STROKES } from './strokes';
import { shortNames } from './shortNames';
import { textWidthPx } from './textWidth';
import type { NamedOutline } from './useOutlines';
import { useWidth } from './useWidth';

register([LineChart, ScatterChart, GridComponent, CanvasRenderer]);

/** No name is longer than this, nor than a third of the drawing. */
const LABEL_PX = 180;
/** Names stand from here on along their lines, over so much of them. */
const NAMED_FROM = 0.1;
const NAMED_OVER = 0.75;

/** Envelopes over each other: CPU watts across, GPU watts up, the name of each machine on its line. */
export default function OutlinesChart({
  outlines,
  of,
  theme,
}: {
  outlines: readonly NamedOutline[];
  /** How many there will be. */
  of: number;
  theme: string;
}) {
  const { holder, chart } = useChart();
  const widthPx = useWidth(holder);
  useEffect(() => {
    const element = holder.current;
    if (!element || !chart.current || !widthPx) return;
    const c = themeColours(element);
    const short = shortNames(outlines.map((o) => o.name));
    const all = outlines.flatMap((o) => o.corners);
    const most = Math.max(20, ...all.map((p) => p.cpuWatts), ...all.map((p) => p.gpuWatts));
    const interval = most > 100 ? 40 : 20;
    const max = Math.ceil((most * 1.04) / interval) * interval;
    const axis = (name: string) => ({ ...valueAxis(c, name), min: 0, max, interval });
    chart.current.setOption(
      {
        grid: { left: 48, right: 24, top: 30, bottom: 44 },
        xAxis: {
          ...axis('CPU, watts sustained'),
          nameLocation: 'middle',
          nameGap: 26,
          nameTextStyle: { color: c.ink, fontFamily: TEXT_FONT, fontSize: 12 },
        },
        yAxis: axis('GPU, watts sustained'),
        series: outlines.flatMap((o, i) => {
          const share = NAMED_FROM + (NAMED_OVER * i) / Math.max(1, outlines.length - 1);
          const { point } = placeAlong({ envelope: o.corners }, share);
          return [
            {
              type: 'line' as const,
              data: o.corners.map((p) => [p.cpuWatts, p.gpuWatts]),
              silent: true,
              animation: false,
              symbol: 'none',
              lineStyle: { color: c.ink, width: 1.6, type: STROKES[o.place % STROKES.length]! },
            },
            {
              type: 'scatter' as const,
              data: [[point.cpu, point.gpu]],
              silent: true,
              animation: false,
              symbolSize: 5,
              itemStyle: { color: c.ink, opacity: 1 },
              z: 5,
              label: {
                show: true,
                // outside the line, which falls
                position: 'right' as const,
                distance: 4,
                formatter: short[i]!,
                width: Math.min(LABEL_PX, widthPx / 3, textWidthPx(short[i]!)),
                overflow: 'truncate' as const,
                color: c.ink,
                backgroundColor: c.ground,
                padding: [0, 3] as [number, number],
                fontFamily: TEXT_FONT,
                fontSize: 12,
              },
            },
          ];
        }),
      },
      { notMerge: true },
    );
  }, [chart, holder, outlines, theme, widthPx]);
  const reach = outlines.map(({ name, corners }) => {
    const cpu = Math.max(0, ...corners.map((p) => p.cpuWatts));
    const gpu = Math.max(0, ...corners.map((p) => p.gpuWatts));
    const most = [cpu > 0 && `${wattsText(cpu)} W CPU`, gpu > 0 && `${wattsText(gpu)} W GPU`];
    return `; ${name}: up to ${most.filter(Boolean).join(' or ') || '0 W'}`;
  });
  return (
    <div
      ref={holder}
      className="w-full h-72"
      role="img"
      aria-label={`sustained GPU watts over CPU watts, ${outlines.length} of ${plural(of, 'machine')}${reach.join('')}`}
    />
  );
}
