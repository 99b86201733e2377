import type { Estimate, Readout } from '../case/answer';
import { mapReadouts } from './mapReadouts';

/**
 * An estimate whose draws are still being made, with the bands of before: each readout keeps its last known distance to its
 * median and to both ends, as shares, so that nothing jumps while one types.
 *
 * @param now an estimate without bands
 * @param before one with bands, of the same machine a moment ago
 * @returns `now` with bands at every cap that `before` had; the others stay without
 */
export function lastKnownBands(now: Estimate, before: Estimate): Estimate {
  const byCap = new Map(before.caps.map((c) => [c.cap, c]));
  return {
    ...now,
    caps: now.caps.map((c) => {
      const was = byCap.get(c.cap);
      if (!was) return c;
      return mapReadouts(c, (readout, name, as) =>
        moved(readout, as === 'carried' ? was[name] : was.configured[name]),
      );
    }),
    sensitivity: before.sensitivity,
  };
}

function moved<T extends Readout>(now: T, was: Readout | null): T {
  if (!was || was.p05 === null || was.p50 === null || was.p95 === null) return now;
  // nothing to be in proportion to: the band of before moved along
  if (!(was.watts > 0)) return now;
  const share = now.watts / was.watts;
  return {
    ...now,
    p05: was.p05 * share,
    p50: was.p50 * share,
    p95: was.p95 * share,
    held: was.held,
  };
}
