import { useOpenUp } from './OpenUpLog';

/** Whether the log is kept, in a word. */
export function LogSavingWords() {
  const { saving } = useOpenUp();
  return (
    <span className="text-[0.85rem] text-quiet" role="status" data-testid="log-saving">
      {saving.kind === 'saving' && 'saving'}
      {saving.kind === 'saved' && 'kept'}
      {saving.kind === 'away' && 'kept here; the server is away'}
      {saving.kind === 'held' && 'kept here until mended'}
      {saving.kind === 'refused' && 'kept here, not saved'}
      {saving.kind === 'conflict' && 'two versions'}
    </span>
  );
}

/** What keeps the log from being saved, and the way out. */
export function LogTrouble() {
  const { saving, choose, refused } = useOpenUp();
  if (refused !== null) {
    return (
      <p className="text-heat my-2 px-4" role="alert">
        Not taken: {refused}.
      </p>
    );
  }
  if (saving.kind === 'refused') {
    return (
      <p className="text-heat my-2" role="alert">
        Not saved: {saving.message}. It is kept in this browser.
      </p>
    );
  }
  if (saving.kind !== 'conflict') return null;
  return (
    <div role="alert" className="border-l-2 border-heat pl-2 my-2">
      <p className="mb-1">This log was changed in another window meanwhile.</p>
      <div className="flex gap-2">
        <button type="button" className="btn btn-sm" onClick={() => choose(true)}>
          Keep what stands here
        </button>
        <button type="button" className="btn btn-sm" onClick={() => choose(false)}>
          Take the other version
        </button>
      </div>
    </div>
  );
}
