import { ConflictPanel } from '../../documents/ConflictPanel';
import { SavedWords } from '../../documents/SavedWords';
import { useOpenUp } from './OpenUpLog';

/** Whether the log is kept, in a word. */
export function LogSavingWords() {
  const { kept } = useOpenUp();
  return (
    <span className="text-small text-quiet" role="status" data-testid="log-saving">
      {kept.state.kind === 'saved' ? 'kept' : <SavedWords view={kept} />}
    </span>
  );
}

/** What keeps the log from being saved, and the way out. */
export function LogTrouble({ keys = false }: { keys?: boolean }) {
  const { kept, refused } = useOpenUp();
  if (refused !== null) {
    return (
      <p className="text-heat my-2 px-4" role="alert">
        Not taken: {refused}.
      </p>
    );
  }
  if (kept.state.kind === 'failed') {
    return (
      <p className="text-heat my-2" role="alert">
        Not saved: {kept.state.message}.{' '}
        <button type="button" className="btn btn-sm" onClick={kept.keeper.retry}>
          Try again
        </button>
      </p>
    );
  }
  if (kept.state.kind !== 'conflict') return null;
  return (
    <ConflictPanel
      kind="log"
      conflicts={kept.state.conflicts}
      choose={kept.keeper.choose}
      keys={keys}
    />
  );
}
