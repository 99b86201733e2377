/** A page that draws anew more often than this takes the time from what it waits for, ms. */
const APART_MS = 120;

/**
 * Tells no more often than a page should draw anew: the first at once, then all that came since together.
 *
 * @param tell told of what came, in its order
 * @returns hands one in, and tells what is left
 */
export function sparingly<T>(tell: (all: T[]) => void): {
  add: (one: T) => void;
  rest: () => void;
} {
  let waiting: T[] = [];
  let last = -Infinity;
  const rest = () => {
    if (waiting.length === 0) return;
    const all = waiting;
    waiting = [];
    last = performance.now();
    tell(all);
  };
  return {
    add(one) {
      waiting.push(one);
      if (performance.now() - last >= APART_MS) rest();
    },
    rest,
  };
}
