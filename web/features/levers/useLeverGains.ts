import { useEffect, useMemo, useState } from 'react';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { Lever } from '@zugluft/core/levers/lever';
import type { LeverGain, Threshold } from '@zugluft/core/levers/leverGains';
import { SHOWN_DRAWS, SHOWN_SEED } from '@zugluft/core/uncertainty/wattsBand';
import { leverComputer } from '../../documents/answer/workers/leverClient';

/** Something to see at once, then a look in which the greatest stand out, then as many draws as everywhere. */
const PASSES = [16, 60, SHOWN_DRAWS];

/** Gains as far as they are computed, by lever. */
export interface LeverGains {
  at: ReadonlyMap<string, { draws: number; at: readonly LeverGain[] }>;
  /** Levers with all their draws, of how many; null once all are done. */
  progress: { done: number; of: number } | null;
  problem: string | null;
  /** Given up before all had their draws. */
  cancelled: boolean;
}

const NOTHING: LeverGains = { at: new Map(), progress: null, problem: null, cancelled: false };

/**
 * What levers bring at each cap, computed beside the page, one after the other; the newest case takes the place of the one before.
 *
 * @param request the case; null: none yet
 * @param levers whose change can be computed
 * @param caps at which
 * @param threshold of what is noticed
 * @returns the gains, a way to give the rest up, and one to begin again
 */
export function useLeverGains(
  request: CaseRequest | null,
  levers: readonly Pick<Lever, 'id' | 'change' | 'moves'>[],
  caps: readonly Cap[],
  { watts, db, kelvin }: Threshold,
): LeverGains & { cancel: () => void; again: () => void } {
  // a laboratory that arrives with the figures that were taken for it begins nothing anew
  const threshold = useMemo(() => ({ watts, db, kelvin }), [watts, db, kelvin]);
  const computer = useMemo(leverComputer, []);
  const [gains, setGains] = useState<LeverGains>(NOTHING);
  const [count, setCount] = useState(0);
  useEffect(() => computer.end, [computer]);
  useEffect(() => {
    if (!request || levers.length === 0) {
      setGains(NOTHING);
      return;
    }
    setGains({ ...NOTHING, progress: { done: 0, of: levers.length } });
    return computer.start(
      {
        request,
        options: { caps, threshold, seed: SHOWN_SEED },
        passes: PASSES,
        levers,
      },
      {
        gains: (all) =>
          setGains((g) => {
            const next = new Map(g.at);
            for (const { id, draws, at } of all) next.set(id, { draws, at });
            const done = [...next.values()].filter((x) => x.draws >= SHOWN_DRAWS).length;
            return { ...g, at: next, progress: { done, of: levers.length } };
          }),
        done: () => setGains((g) => ({ ...g, progress: null })),
        failed: (problem) => setGains((g) => ({ ...g, progress: null, problem })),
      },
    );
  }, [computer, request, levers, caps, threshold, count]);
  const cancel = () => {
    computer.end();
    setGains((g) => ({ ...g, progress: null, cancelled: g.progress !== null }));
  };
  return { ...gains, cancel, again: () => setCount((n) => n + 1) };
}
