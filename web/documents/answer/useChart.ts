import { init, type EChartsType } from 'echarts/core';
import { useEffect, useRef, type RefObject } from 'react';

/**
 * A chart as long as its element stands: made once, as large as the element, disposed with it.
 *
 * @param made told of the chart once, to listen on it; the first one given holds
 */
export function useChart(made?: (chart: EChartsType) => void): {
  holder: RefObject<HTMLDivElement | null>;
  chart: RefObject<EChartsType | null>;
} {
  const holder = useRef<HTMLDivElement>(null);
  const chart = useRef<EChartsType | null>(null);
  const first = useRef(made);
  useEffect(() => {
    const element = holder.current;
    if (!element) return;
    const own = init(element);
    chart.current = own;
    const resize = new ResizeObserver(() => own.resize());
    resize.observe(element);
    first.current?.(own);
    return () => {
      resize.disconnect();
      own.dispose();
      chart.current = null;
    };
  }, []);
  return { holder, chart };
}
