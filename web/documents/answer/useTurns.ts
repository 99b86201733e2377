import { useCallback, useEffect, useRef } from 'react';

/**
 * Draws some plots by turns, each in a task of its own and always by what is known by then: whoever zooms on waits for no
 * drawing, and none of them waits until the hand rests.
 */
export function useTurns(count: number, draw: (k: number) => void): { drawSoon: () => void } {
  const latest = useRef(draw);
  latest.current = draw;
  const turn = useRef({ next: 0, left: 0, timer: 0 });
  useEffect(() => {
    const own = turn.current;
    return () => {
      clearTimeout(own.timer);
      Object.assign(own, { left: 0, timer: 0 });
    };
  }, []);
  const drawSoon = useCallback(() => {
    const own = turn.current;
    const step = () => {
      own.timer = 0;
      const k = own.next;
      own.next = (k + 1) % count;
      own.left--;
      if (own.left > 0) own.timer = globalThis.setTimeout(step, 0) as unknown as number;
      latest.current(k);
    };
    own.left = count;
    if (!own.timer) own.timer = globalThis.setTimeout(step, 0) as unknown as number;
  }, [count]);
  return { drawSoon };
}
