import { turn } from './turn';

/**
 * Work that comes first in a worker, and a rest in which none of it is under way.
 *
 * @returns `run` begins such work, also beside other; `rest` is a turn of the event loop at least
 */
export function comesFirst(): {
  run: (work: () => Promise<void>) => void;
  rest: () => Promise<void>;
} {
  let latest: Promise<void> | null = null;
  return {
    run(work) {
      const own = work().finally(() => {
        if (latest === own) latest = null;
      });
      latest = own;
    },
    async rest() {
      await turn();
      while (latest) await latest;
    },
  };
}
