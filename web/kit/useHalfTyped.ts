import { useCallback, useEffect, useRef, useState } from 'react';

/** How long a hand rests before what it typed is judged. */
export const PAUSE_MS = 1200;

/**
 * Whether what stands in a field is still being typed, so that it is not judged yet: from a key until the hand rests or the field
 * is left.
 *
 * @returns `typed` is called at every change, `left` when the field is left
 */
export function useHalfTyped(): { half: boolean; typed: () => void; left: () => void } {
  const [half, setHalf] = useState(false);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const typed = useCallback(() => {
    setHalf(true);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => setHalf(false), PAUSE_MS);
  }, []);
  const left = useCallback(() => {
    clearTimeout(timer.current);
    setHalf(false);
  }, []);
  useEffect(() => () => clearTimeout(timer.current), []);
  return { half, typed, left };
}
