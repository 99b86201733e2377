import { useMemo } from 'react';
import type { Lever } from '@zugluft/core/levers/lever';
import type { LeverGain } from '@zugluft/core/levers/leverGains';
import { planWay } from '@zugluft/core/levers/planWay';
import type { OpenUpLog } from '@zugluft/core/service/openUpLog';
import { Kbd } from '../../kit/Kbd';
import { bandWords, signed } from './leverWords';

/** The chosen levers computed together, what their sum would have been, the one opening they take. */
export function ChosenTogether({
  levers,
  gain,
  rough,
  sum,
  log,
  make,
  full,
}: {
  levers: readonly Lever[];
  gain: LeverGain | null;
  rough: boolean;
  sum: number;
  log: OpenUpLog | null;
  make: (() => void) | null;
  /** No more plans can be kept. */
  full: boolean;
}) {
  const key = levers.map((l) => l.id).join();
  const way = useMemo(
    () => planWay(levers, log),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [key, log],
  );
  if (levers.length === 0) {
    return (
      <p className="text-small text-quiet mt-3">
        Choose levers to have them computed together: what several bring is not the sum of each.
        Into the list with <Kbd>a</Kbd>.
      </p>
    );
  }
  const opening = levers.some((l) => l.goal !== null);
  return (
    <section
      aria-label="chosen levers"
      className="grid sm:grid-cols-[1fr_auto_auto] gap-x-8 gap-y-2 items-end mt-3"
    >
      <div data-testid="chosen-gain">
        <p className="text-small text-quiet">
          {levers.length === 1
            ? 'The one chosen'
            : `The ${levers.length} chosen, computed together`}
        </p>
        {gain ? (
          <p className={rough ? 'opacity-60' : ''}>
            <span className="figure text-xl">{signed(gain.wattsGained.p50)}</span>{' '}
            <span className="unit">W</span>{' '}
            <span className="text-quiet">
              {bandWords(gain.wattsGained)}
              {levers.length > 1 && `; their sum would be ${signed(sum)}`}
            </span>
            {gain.tooSmallToFeel && <strong className="block">Too small to feel.</strong>}
          </p>
        ) : (
          <p className="text-quiet">computing</p>
        )}
      </div>
      <div>
        <p className="text-small text-quiet">{opening ? 'In one opening' : 'Nothing to open'}</p>
        <p className="figure">
          {!opening
            ? '–'
            : way
              ? `${way.seconds === null ? '' : `${Math.round((2 * way.seconds) / 60)} min `}${way.screws.length} screws`
              : 'not logged yet'}
        </p>
      </div>
      <div>
        <button
          type="button"
          className="btn btn-primary"
          disabled={!make || !gain || rough}
          onClick={make ?? undefined}
        >
          Make it a plan <Kbd>n</Kbd>
        </button>
        {full && <p className="text-heat text-small">No more plans fit: remove one.</p>}
      </div>
    </section>
  );
}
