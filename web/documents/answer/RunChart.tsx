import { LineChart } from 'echarts/charts';
import { GridComponent, MarkAreaComponent, MarkLineComponent } from 'echarts/components';
import { use as register } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect, useMemo, useRef } from 'react';
import type { UnitPreference } from '@zugluft/core/record/units';
import type { Series } from '@zugluft/core/library/runAnswers';
import { RunCursor } from './RunCursor';
import { runLines, unitsOfPlots, type UnderRun } from './runLines';
import { PLOT, runPlotOption, type RunMarks } from './runPlotOption';
import { themeColours } from './themeColours';
import { useChart } from './useChart';
import { useTurns } from './useTurns';

register([LineChart, GridComponent, MarkAreaComponent, MarkLineComponent, CanvasRenderer]);

export interface Stretch {
  fromS: number;
  toS: number;
}

/** A turn of the wheel shows so much more or less. */
const ZOOM = 1.25;
/** No less than this is shown, s. */
const LEAST_S = 5;

/** Power, temperature and level of a run on one clock, zoomed by wheel, panned by dragging, with the window of the steady state. */
export default function RunChart({
  series,
  marks,
  under,
  shown,
  show,
  window,
  moveWindow,
  theme,
  units,
}: {
  series: Series;
  marks: RunMarks;
  under: readonly UnderRun[];
  shown: Stretch;
  show: (next: Stretch) => void;
  /** The steady state that is read; null where there is none. */
  window: Stretch | null;
  moveWindow: (next: Stretch) => void;
  theme: string;
  units: UnitPreference;
}) {
  const plots = [useChart(), useChart(), useChart()];
  const charts = useRef(plots);
  const lines = useMemo(() => runLines(series, under, units), [series, under, units]);
  const inUnits = useMemo(() => unitsOfPlots(series, units), [series, units]);
  const { drawSoon } = useTurns(plots.length, (k) => {
    const { holder, chart } = charts.current[k]!;
    if (!holder.current || !chart.current) return;
    if (k >= inUnits.length) return chart.current.clear();
    const colours = themeColours(holder.current);
    chart.current.setOption(runPlotOption(lines, inUnits, k, marks, shown, colours), {
      notMerge: true,
    });
  });
  useEffect(drawSoon, [drawSoon, lines, inUnits, marks, shown, theme]);
  const { surface, atS } = useZoom(shown, series.lastS, show);
  const share = (s: number) => (s - shown.fromS) / (shown.toS - shown.fromS);
  return (
    <div
      ref={surface}
      className="relative w-full h-full select-none touch-pan-y"
      data-testid="run-chart"
    >
      {plots.map(({ holder }, k) => (
        <div key={k} ref={holder} className="absolute inset-0 pointer-events-none" />
      ))}
      <div
        className="absolute inset-y-0 pointer-events-none overflow-hidden"
        style={{ left: PLOT.left, right: PLOT.right }}
      >
        {marks.segments.map((s) => {
          const from = Math.max(0, share(s.fromS));
          const to = Math.min(1, share(s.toS));
          return to - from > 0.02 ? (
            <span
              key={s.fromS}
              className="absolute top-0 h-[18px] bg-rule/60 border-l border-base-100 text-small leading-[18px] px-1 truncate"
              style={{ left: `${100 * from}%`, width: `${100 * (to - from)}%` }}
              title={s.words}
            >
              {s.words}
            </span>
          ) : null;
        })}
      </div>
      <RunCursor surface={surface} lines={lines} shown={shown} />
      {window && (
        <div
          className="absolute inset-y-0 pointer-events-none"
          style={{ left: PLOT.left, right: PLOT.right }}
        >
          {(['fromS', 'toS'] as const).map((end) => (
            <Handle
              key={end}
              end={end}
              window={window}
              lastS={series.lastS}
              share={share(window[end])}
              atS={atS}
              move={moveWindow}
            />
          ))}
        </div>
      )}
    </div>
  );
}

/** One end of the window: dragged, or moved by arrows. */
function Handle({
  end,
  window,
  lastS,
  share,
  atS,
  move,
}: {
  end: 'fromS' | 'toS';
  window: Stretch;
  lastS: number;
  share: number;
  atS: (clientX: number) => number;
  move: (next: Stretch) => void;
}) {
  const to = (s: number) => {
    const next = { ...window, [end]: Math.min(lastS, Math.max(0, s)) };
    if (next.toS - next.fromS >= LEAST_S) move(next);
  };
  if (share < 0 || share > 1) return null;
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={end === 'fromS' ? 'the window begins' : 'the window ends'}
      aria-valuemin={0}
      aria-valuemax={Math.round(lastS)}
      aria-valuenow={Math.round(window[end])}
      aria-valuetext={`${Math.floor(window[end] / 60)} min ${Math.round(window[end] % 60)} s`}
      className="absolute top-[22px] bottom-6 w-6 -ml-3 cursor-ew-resize pointer-events-auto focus-visible:outline-2 focus-visible:outline-air after:absolute after:inset-y-0 after:left-1/2 after:border-l after:border-air"
      style={{ left: `${100 * share}%` }}
      onKeyDown={(e) => {
        const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
        if (!by) return;
        e.preventDefault();
        e.stopPropagation();
        to(window[end] + by * (e.shiftKey ? 60 : 10));
      }}
      onPointerDown={(e) => {
        e.stopPropagation();
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={(e) => {
        if (e.currentTarget.hasPointerCapture(e.pointerId)) to(Math.round(atS(e.clientX)));
      }}
    />
  );
}

/** Wheel and drag over the plots: what is shown of the run. */
function useZoom(shown: Stretch, lastS: number, show: (next: Stretch) => void) {
  const surface = useRef<HTMLDivElement>(null);
  const latest = useRef({ shown, lastS, show });
  latest.current = { shown, lastS, show };
  const shareAt = (clientX: number): number => {
    const box = surface.current?.getBoundingClientRect();
    if (!box) return 0;
    const width = Math.max(1, box.width - PLOT.left - PLOT.right);
    return Math.min(1, Math.max(0, (clientX - box.left - PLOT.left) / width));
  };
  useEffect(() => {
    const element = surface.current;
    if (!element) return;
    const set = (fromS: number, spanS: number) => {
      const { lastS: end, show: tell } = latest.current;
      const span = Math.min(Math.max(LEAST_S, spanS), Math.max(LEAST_S, end));
      const from = Math.min(Math.max(0, fromS), Math.max(0, end - span));
      // the next turn of the wheel may come before this one is shown
      latest.current.shown = { fromS: from, toS: from + span };
      tell(latest.current.shown);
    };
    const wheel = (e: WheelEvent) => {
      // scrolling the page stays scrolling; the wheel zooms with Ctrl, or where it runs sideways
      if (!e.ctrlKey && Math.abs(e.deltaX) <= Math.abs(e.deltaY)) return;
      e.preventDefault();
      const { fromS, toS } = latest.current.shown;
      const span = toS - fromS;
      if (!e.ctrlKey) set(fromS + (span * e.deltaX) / 800, span);
      else {
        const share = shareAt(e.clientX);
        const next = span * (e.deltaY > 0 ? ZOOM : 1 / ZOOM);
        set(fromS + share * (span - next), next);
      }
    };
    let dragged: { x: number; fromS: number; span: number; width: number } | null = null;
    const down = (e: PointerEvent) => {
      if (e.button !== 0 || e.pointerType === 'touch') return;
      const { fromS, toS } = latest.current.shown;
      dragged = {
        x: e.clientX,
        fromS,
        span: toS - fromS,
        width: element.clientWidth - PLOT.left - PLOT.right,
      };
    };
    const move = (e: PointerEvent) => {
      if (!dragged || !(e.buttons & 1)) return;
      set(dragged.fromS - ((e.clientX - dragged.x) / dragged.width) * dragged.span, dragged.span);
    };
    const up = () => (dragged = null);
    const whole = () => set(0, latest.current.lastS);
    element.addEventListener('wheel', wheel, { passive: false });
    element.addEventListener('pointerdown', down);
    element.addEventListener('pointermove', move);
    globalThis.addEventListener('pointerup', up);
    element.addEventListener('dblclick', whole);
    return () => {
      element.removeEventListener('wheel', wheel);
      element.removeEventListener('pointerdown', down);
      element.removeEventListener('pointermove', move);
      globalThis.removeEventListener('pointerup', up);
      element.removeEventListener('dblclick', whole);
    };
  }, []);
  return {
    surface,
    atS: (clientX: number) => shown.fromS + shareAt(clientX) * (shown.toS - shown.fromS),
  };
}
