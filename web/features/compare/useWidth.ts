import { useEffect, useState, type RefObject } from 'react';

/** Width of an element in whole pixels as it changes, 0 before it is known: what is laid out by it is laid out anew. */
export function useWidth(element: RefObject<HTMLElement | null>): number {
  const [widthPx, setWidthPx] = useState(0);
  useEffect(() => {
    const own = element.current;
    if (!own) return;
    const watch = new ResizeObserver(() => setWidthPx(own.clientWidth));
    watch.observe(own);
    return () => watch.disconnect();
  }, [element]);
  return widthPx;
}
