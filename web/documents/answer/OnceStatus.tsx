import type { OnceState } from './useOnce';

/** How far a computation is, with its ways out and back. */
export function OnceStatus({
  once: { progress, problem, cancelled, cancel, again },
  what,
}: {
  once: Pick<OnceState<unknown, unknown>, 'progress' | 'problem' | 'cancelled'> & {
    cancel: () => void;
    again: () => void;
  };
  /** What is counted, such as “machines”. */
  what: string;
}) {
  return (
    <>
      {progress && (
        <span role="status" className="text-small text-quiet">
          {progress.of ? `${progress.done} of ${progress.of} ${what}` : 'computing'}{' '}
          <button type="button" className="btn btn-xs ml-1" onClick={cancel}>
            cancel
          </button>
        </span>
      )}
      {cancelled && (
        <button type="button" className="btn btn-xs" onClick={again}>
          compute it
        </button>
      )}
      {problem && (
        <span role="alert" className="text-heat">
          It could not be computed: {problem}.{' '}
          <button type="button" className="btn btn-xs" onClick={again}>
            try again
          </button>
        </span>
      )}
    </>
  );
}
