/** How far an import is, and the way to stop it. */
export function ImportProgress({
  word,
  progress,
  cancel,
}: {
  word: string;
  /** Done, of how many; 0 where that is not known yet. */
  progress: readonly [number, number];
  cancel: () => void;
}) {
  return (
    <p className="flex items-center gap-3 mt-2" role="status">
      <progress
        className="progress w-40"
        aria-label="importing"
        {...(progress[1] ? { value: progress[0], max: progress[1] } : {})}
      />
      <span>
        {word}
        {progress[1] > 0 && (
          <span className="figure">
            {' '}
            {progress[0]} of {progress[1]}
          </span>
        )}
      </span>
      <button type="button" className="underline cursor-pointer" onClick={cancel}>
        cancel
      </button>
    </p>
  );
}
