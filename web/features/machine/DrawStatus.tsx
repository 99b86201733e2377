import { useCommands } from '../../documents/commands';
import { MANY, type Draws } from '../../documents/record/useDraws';
import { Kbd } from '../../kit/Kbd';

/** How the bands stand: following what is typed, made from so many draws, finer ones being made, or not to be had. */
export function DrawStatus({ draws }: { draws: Draws }) {
  const { progress, summary, error, cancel, make } = draws;
  useCommands({ band: () => (progress ? cancel() : make(MANY)) });
  return (
    <p
      className="text-small text-quiet flex justify-between gap-2 mt-1 min-h-[1.3rem]"
      data-testid="draw-status"
      aria-live="off"
    >
      {error ? (
        <span className="text-heat">No band: {error}</span>
      ) : progress ? (
        <>
          <span>
            band:{' '}
            <span className="figure">
              {progress.made} of {progress.of}
            </span>{' '}
            draws
          </span>
          <button type="button" className="cursor-pointer hover:text-ink" onClick={cancel}>
            cancel <Kbd>b</Kbd>
          </button>
        </>
      ) : (
        <>
          <span>
            {summary ? (
              <>
                5–95 % of <span className="figure">{summary.draws}</span> draws
              </>
            ) : (
              'the band follows'
            )}
          </span>
          <button
            type="button"
            className="cursor-pointer hover:text-ink"
            onClick={() => make(MANY)}
            title={`make ${MANY} draws`}
          >
            finer <Kbd>b</Kbd>
          </button>
        </>
      )}
    </p>
  );
}
