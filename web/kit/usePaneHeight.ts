import { useState } from 'react';

/**
 * A height that its user chose, kept in this browser.
 *
 * @param key under which it is kept
 * @param usual, min, max px
 */
export function usePaneHeight(
  key: string,
  { usual, min, max }: { usual: number; min: number; max: number },
): [height: number, set: (px: number) => void] {
  const hold = (px: number) => Math.round(Math.min(max, Math.max(min, px)));
  const [height, setHeight] = useState(() => {
    try {
      const kept = Number(localStorage.getItem(key));
      return kept > 0 ? hold(kept) : usual;
    } catch {
      return usual;
    }
  });
  return [
    height,
    (px) => {
      setHeight(hold(px));
      try {
        localStorage.setItem(key, String(hold(px)));
      } catch {
        // shown as chosen until the page is left
      }
    },
  ];
}
