import { useEffect, useState, type RefObject } from 'react';

/**
 * The size at which a plan is drawn now, px: words on it keep theirs however small it is.
 *
 * @param svg the plan
 * @param drawn whether it is there
 */
export function useDrawnSize(svg: RefObject<SVGSVGElement | null>, drawn: boolean) {
  const [size, setSize] = useState({ width: 600, height: 300 });
  useEffect(() => {
    const element = svg.current;
    if (!element) return;
    const seen = new ResizeObserver(() =>
      setSize({ width: element.clientWidth, height: element.clientHeight }),
    );
    seen.observe(element);
    return () => seen.disconnect();
  }, [svg, drawn]);
  return size;
}
