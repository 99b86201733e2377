import { SOUGHT, type Proposal, type Sought } from '../../api/measuring';
import { Kbd } from '../../kit/Kbd';
import { measureText } from './measureWords';
import { MARK_WORDS } from './marking';

const SOUGHT_WORDS: Record<Sought, string> = { circles: 'fans', fins: 'fins', pipes: 'pipes' };

/** What was found by itself: looked for when asked, one offered after the other, none entered unseen. */
export function Proposals({
  items,
  looking,
  error,
  hasScale,
  look,
  take,
  leave,
}: {
  /** Null before anybody asked. */
  items: readonly Proposal[] | null;
  /** What is looked for just now. */
  looking: Sought | null;
  error: Error | null;
  hasScale: boolean;
  look: () => void;
  take: () => void;
  leave: () => void;
}) {
  const [first] = items ?? [];
  return (
    <div
      className="flex flex-wrap items-center gap-x-3 gap-y-1 text-[0.9rem] min-h-8"
      role="status"
      data-testid="proposals"
    >
      {first && (
        <>
          <span>
            found: {MARK_WORDS[first.kind].name}{' '}
            <span className="figure">{measureText(first.reads)}</span>
            {first.reads.note && <span className="text-quiet"> ({first.reads.note})</span>}
            {items!.length > 1 && <span className="text-quiet">, {items!.length - 1} more</span>}
          </span>
          <button type="button" className="btn btn-sm" onClick={take}>
            Take it <Kbd>y</Kbd>
          </button>
          <button type="button" className="btn btn-sm btn-ghost" onClick={leave}>
            Leave it <Kbd>u</Kbd>
          </button>
        </>
      )}
      {looking ? (
        <>
          <span className="text-quiet">
            looking for {SOUGHT_WORDS[looking]}, {SOUGHT.indexOf(looking) + 1} of {SOUGHT.length}
          </span>
          <button type="button" className="btn btn-sm btn-ghost" onClick={look}>
            Stop <Kbd>q</Kbd>
          </button>
        </>
      ) : first ? null : (
        <button type="button" className="btn btn-sm" disabled={!hasScale} onClick={look}>
          Look for fans, fins and pipes <Kbd>q</Kbd>
        </button>
      )}
      {!looking && (
        <span className={error ? 'text-heat' : 'text-quiet'}>
          {error
            ? `Not all could be looked for: ${error.message}.`
            : !hasScale
              ? 'once something of known size is marked'
              : items && !first
                ? 'nothing more is found for sure'
                : ''}
        </span>
      )}
    </div>
  );
}
