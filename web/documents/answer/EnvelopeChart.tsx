import { LineChart, ScatterChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent } from 'echarts/components';
import { use as register } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';
import type { CapEstimate } from '@zugluft/core/case/answer';
import type { RunMark } from './runMarks';
import { themeColours } from './themeColours';
import { useChart } from './useChart';
import { capWord, wattsText } from '@zugluft/core/case/answerWords';
import { DASH, lineStyle, placeAlong, stretches, type Point } from './envelopeLines';

register([LineChart, ScatterChart, GridComponent, MarkLineComponent, CanvasRenderer]);

const NO_RUNS: readonly RunMark[] = [];

/** An outline of its own name. */
export interface Outline {
  name: string;
  envelope: CapEstimate['envelope'];
}

export interface RuledLimits {
  cpuW: number | null;
  gpuW: number | null;
  /** Two ends of the adapter's line, or null. */
  adapter: [Point, Point] | null;
}

/**
 * The envelope: CPU watts across, GPU watts up, one line per cap like isobars on a weather map. The line's style names what
 * binds; firmware limits and the adapter are thin dotted rules.
 */
export default function EnvelopeChart({
  caps,
  ruled,
  marked,
  large,
  theme,
  onPoint,
  runs = NO_RUNS,
  over = null,
}: {
  caps: readonly CapEstimate[];
  ruled: RuledLimits;
  marked: Point | null;
  large: boolean;
  theme: string;
  /** Another outline over them, with what it is. */
  over?: Outline | null;
  onPoint?: ((point: Point) => void) | undefined;
  /** What runs sustained, each with its own error. */
  runs?: readonly RunMark[];
}) {
  const pointed = useRef(onPoint);
  useEffect(() => {
    pointed.current = onPoint;
  });

  const { holder, chart } = useChart((made) => {
    made.getZr().on('mousemove', (e) => {
      const at = [e.offsetX, e.offsetY];
      if (!made.containPixel('grid', at)) return;
      const [cpu, gpu] = made.convertFromPixel('grid', at) as [number, number];
      pointed.current?.({ cpu, gpu });
    });
  });

  // in a task of its own: whoever types waits for no drawing
  useEffect(() => {
    const timer = setTimeout(() => {
      const element = holder.current;
      if (!element || !chart.current) return;
      const about = { caps, ruled, marked, large, runs, over };
      const option = envelopeOption(themeColours(element), about);
      chart.current.setOption(option, { notMerge: true });
    }, 0);
    return () => clearTimeout(timer);
  }, [chart, holder, caps, ruled, marked, large, runs, over, theme]);

  const lines = caps.map((x) => (typeof x.cap === 'number' ? `${x.cap} dB(A)` : capWord(x.cap)));
  return (
    <div
      ref={holder}
      role="img"
      aria-label={`envelope: sustained GPU watts over CPU watts, a line for each of ${lines.join(', ')}${
        marked ? `; marked ${wattsText(marked.cpu)} W CPU and ${wattsText(marked.gpu)} W GPU` : ''
      }${over ? `; over it: ${over.name}` : ''}${runs.map((r) => `; measured ${wattsText(r.cpuW)} W CPU and ${wattsText(r.gpuW)} W GPU: ${r.name}`).join('')}`}
      className="w-full h-full"
      data-testid="envelope-chart"
    />
  );
}

/** What the chart is told: a line for each stretch that one limit holds, rules, and the marked point. */
function envelopeOption(
  c: ReturnType<typeof themeColours>,
  {
    caps,
    ruled,
    marked,
    large,
    runs,
    over,
  }: {
    caps: readonly CapEstimate[];
    ruled: RuledLimits;
    marked: Point | null;
    large: boolean;
    runs: readonly RunMark[];
    over: Outline | null;
  },
) {
  const font = 'Hanken Grotesk Variable, sans-serif';
  const mono = 'Spline Sans Mono Variable, monospace';
  const most = Math.max(
    20,
    ...caps.flatMap((x) => x.envelope.flatMap((p) => [p.cpuWatts, p.gpuWatts])),
    ...runs.flatMap((r) => [r.cpuW, r.gpuW]),
    ...(over?.envelope.flatMap((p) => [p.cpuWatts, p.gpuWatts]) ?? []),
  );
  const max = Math.ceil((most * 1.04) / 20) * 20;
  const axis = (name: string) => ({
    type: 'value' as const,
    min: 0,
    max,
    interval: large ? 20 : 40,
    name: large ? name : '',
    nameLocation: 'middle' as const,
    nameGap: large ? 32 : 0,
    nameTextStyle: { color: c.ink, fontFamily: font, fontSize: 13 },
    axisLine: { show: false },
    axisTick: { show: false },
    axisLabel: { color: c.ink, fontFamily: mono, fontSize: 12 },
    splitLine: { lineStyle: { color: c.rule } },
  });
  const lines = stretches(caps).map((s) => {
    const rank = caps.findIndex((x) => x.cap === s.cap);
    return {
      type: 'line' as const,
      symbol: 'none',
      silent: true,
      animation: false,
      data: s.points.map((p) => [p.cpu, p.gpu]),
      lineStyle: {
        color: c.ink,
        width: 1 + (0.9 * rank) / Math.max(1, caps.length - 1),
        type: DASH[lineStyle(s.binding)].length ? DASH[lineStyle(s.binding)] : ('solid' as const),
      },
    };
  });
  const rule = (
    a: Point,
    b: Point,
    name: string,
    position: 'end' | 'insideEndTop' | 'insideStartTop',
  ) => ({
    name,
    coords: [a, b],
    position,
  });
  const rules = [
    ruled.cpuW !== null &&
      rule(
        { cpu: ruled.cpuW, gpu: 0 },
        { cpu: ruled.cpuW, gpu: max },
        `firmware, CPU ${ruled.cpuW} W`,
        'end',
      ),
    ruled.gpuW !== null &&
      rule(
        { cpu: 0, gpu: ruled.gpuW },
        { cpu: max, gpu: ruled.gpuW },
        `firmware, GPU ${ruled.gpuW} W`,
        'insideEndTop',
      ),
    ruled.adapter && rule(ruled.adapter[0], ruled.adapter[1], 'adapter', 'insideStartTop'),
  ].filter((x) => x !== false && x !== null);
  const series = [
    ...lines,
    {
      type: 'scatter' as const,
      silent: true,
      animation: false,
      symbolSize: 0,
      z: 5,
      label: {
        show: true,
        position: 'inside' as const,
        color: c.ink,
        backgroundColor: c.ground,
        padding: [1, 4] as [number, number],
        fontFamily: mono,
        fontSize: large ? 13 : 12,
      },
      data: caps.map((x, rank) => {
        // staggered along the lines, so that neighbours' labels do not touch
        const [from, spread] = large ? [0.16, 0.24] : [0.05, 0.62];
        const { point } = placeAlong(x, from! + (spread! * rank) / Math.max(1, caps.length - 1));
        return { value: [point.cpu, point.gpu], label: { formatter: String(x.cap) } };
      }),
    },
    {
      type: 'line' as const,
      data: [] as number[][],
      silent: true,
      animation: false,
      markLine: {
        silent: true,
        symbol: 'none',
        animation: false,
        lineStyle: { color: c.ink, type: [1, 3], width: 1 },
        label: { show: large, color: c.ink, fontFamily: font, fontSize: 12 },
        data: rules.map((r) => [
          { coord: [r.coords[0]!.cpu, r.coords[0]!.gpu] },
          {
            coord: [r.coords[1]!.cpu, r.coords[1]!.gpu],
            label: { formatter: r.name, position: r.position },
          },
        ]) as never,
      },
    },
    ...(over
      ? [
          {
            type: 'line' as const,
            symbol: 'none',
            silent: true,
            animation: false,
            data: over.envelope.map((p) => [p.cpuWatts, p.gpuWatts]),
            lineStyle: { color: c.heat, width: 2.2 },
            z: 6,
          },
          {
            type: 'scatter' as const,
            silent: true,
            animation: false,
            symbolSize: 0,
            z: 7,
            label: {
              show: true,
              position: 'top' as const,
              color: c.heat,
              backgroundColor: c.ground,
              padding: [1, 3] as [number, number],
              fontFamily: font,
              fontSize: 12,
            },
            data: middleOf(over).map((p) => ({ value: p, label: { formatter: over.name } })),
          },
        ]
      : []),
    // a cross as wide as the error on either axis under each run
    ...runs.flatMap((r) =>
      [
        [
          [r.cpuW - r.cpuPlusMinus, r.gpuW],
          [r.cpuW + r.cpuPlusMinus, r.gpuW],
        ],
        [
          [r.cpuW, r.gpuW - r.gpuPlusMinus],
          [r.cpuW, r.gpuW + r.gpuPlusMinus],
        ],
      ].map((data) => ({
        type: 'line' as const,
        symbol: 'none',
        silent: true,
        animation: false,
        data,
        lineStyle: { color: c.ink, width: 1 },
        z: 8,
      })),
    ),
    {
      type: 'scatter' as const,
      silent: true,
      animation: false,
      symbol: 'diamond',
      symbolSize: large ? 12 : 8,
      itemStyle: { color: c.ground, borderColor: c.ink, borderWidth: 1.5 },
      label: {
        show: large,
        position: 'right' as const,
        color: c.ink,
        backgroundColor: c.ground,
        padding: [1, 3] as [number, number],
        fontFamily: font,
        fontSize: 12,
      },
      data: runs.map((r) => ({
        value: [r.cpuW, r.gpuW],
        label: {
          // many are called by their level
          formatter:
            r.levelDbA === null || r.name.includes('dB')
              ? r.name
              : `${r.name}, ${r.levelDbA.toFixed(1)} dB(A)`,
        },
      })),
      z: 9,
    },
    {
      type: 'scatter' as const,
      silent: true,
      animation: false,
      symbol: 'circle',
      symbolSize: large ? 12 : 8,
      itemStyle: { color: c.ground, borderColor: c.air, borderWidth: 2.5 },
      data: marked ? [[marked.cpu, marked.gpu]] : [],
      z: 10,
    },
  ];
  return {
    grid: large
      ? { left: 58, right: 18, top: 28, bottom: 46 }
      : { left: 34, right: 10, top: 10, bottom: 24 },
    xAxis: axis('CPU, watts sustained'),
    yAxis: axis('GPU, watts sustained'),
    series,
  };
}

/** Where an outline's name stands: at the corner in its middle. */
function middleOf({ envelope }: Outline): [number, number][] {
  const corner = envelope[Math.floor(envelope.length / 2)];
  return corner ? [[corner.cpuWatts, corner.gpuWatts]] : [];
}
