import type { Estimate, Readout } from '../case/answer';
import type { Cap } from '../envelope/fanStates';
import { mapReadouts } from './mapReadouts';
import type { WattsBand } from './wattsBand';

/** Both dies together at a cap, as computed before. */
export type StoredBand = WattsBand & { cap: Cap };

/**
 * An estimate before its first draws, with the bands that were stored of the same record: together as stored; the dies alone and
 * the machine as configured, of which nothing is stored, in the same proportion to their central solution.
 *
 * @param now an estimate without bands
 * @param stored bands of both dies together, of the same record and setting
 * @returns `now` with bands at every cap that is stored; the others stay without
 */
export function storedBands(now: Estimate, stored: readonly StoredBand[]): Estimate {
  const byCap = new Map(stored.map((s) => [s.cap, s]));
  return {
    ...now,
    caps: now.caps.map((c) => {
      const own = byCap.get(c.cap);
      if (!own) return c;
      const central = c.together.watts;
      return mapReadouts(c, <T extends Readout>(readout: T): T => {
        // nothing to be in proportion to: what carries nothing goes on doing so
        const share = central > 0 ? readout.watts / central : readout.watts > 0 ? NaN : 1;
        if (!Number.isFinite(share)) return readout;
        return { ...readout, p05: own.p05 * share, p50: own.p50 * share, p95: own.p95 * share };
      });
    }),
  };
}
