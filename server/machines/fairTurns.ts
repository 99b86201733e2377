export interface FairTurnsOptions {
  /** How many go on with one turn of the event loop. */
  perTurn: number;
  /** Whether something goes on that comes first. */
  busy: () => boolean;
  /** Nobody waits longer than this for it, ms. */
  maxWaitMs: number;
}

/** How often it is looked whether what comes first is done, ms. */
const LOOK_MS = 2;

/**
 * Lets a few of those who wait go on with each turn of the event loop, in the order in which they came: many clients that ask
 * for lists leave room between them for the many small steps of a write, which comes first for a short while.
 *
 * @returns waits for one's turn
 */
export function fairTurns({ perTurn, busy, maxWaitMs }: FairTurnsOptions): () => Promise<void> {
  const waiting: { go: () => void; until: number }[] = [];
  let scheduled = false;
  const release = () => {
    const now = performance.now();
    for (let n = 0; n < perTurn && waiting.length; n++) {
      if (busy() && waiting[0]!.until > now) break;
      waiting.shift()!.go();
    }
    scheduled = waiting.length > 0;
    if (!scheduled) return;
    if (busy() && waiting[0]!.until > now) setTimeout(release, LOOK_MS);
    else setImmediate(release);
  };
  return () =>
    new Promise((resolve) => {
      waiting.push({ go: resolve, until: performance.now() + maxWaitMs });
      if (scheduled) return;
      scheduled = true;
      setImmediate(release);
    });
}
