import { Redo2, Undo2 } from 'lucide-react';
import { Link } from 'react-router';
import { giveCommand } from '../../documents/commands';
import type { KeepState } from '../../documents/keeper';
import { useUndoWords } from '../../documents/pageUndo';
import { SavedWords } from '../../documents/SavedWords';
import { useMachineFile } from '../../documents/record/MachineFile';

/** Whether what stands on the page is saved, and the two steps through its history. */
export function SaveStatus() {
  const { machine, kept, issues, typing } = useMachineFile();
  const { undo, redo } = useUndoWords({
    undo: kept.undo?.label ?? null,
    redo: kept.redo?.label ?? null,
  });
  // what is half typed is not refused yet
  const state: KeepState =
    kept.state.kind === 'held' && (typing || issues.length === 0) ? { kind: 'saving' } : kept.state;
  const trouble = state.kind !== 'saved' && state.kind !== 'saving';
  return (
    <span className="flex items-center gap-2">
      <button
        type="button"
        className="btn btn-ghost btn-xs px-1"
        disabled={undo === null}
        onClick={() => giveCommand('undo')}
        aria-label="undo"
        title={undo === null ? 'undo, Ctrl+Z' : `undo ${undo}, Ctrl+Z`}
      >
        <Undo2 size={15} aria-hidden />
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-xs px-1"
        disabled={redo === null}
        onClick={() => giveCommand('redo')}
        aria-label="redo"
        title={redo === null ? 'redo, Ctrl+Shift+Z' : `redo ${redo}, Ctrl+Shift+Z`}
      >
        <Redo2 size={15} aria-hidden />
      </button>
      <span data-testid="save-status" aria-live={trouble ? 'polite' : 'off'}>
        <SavedWords view={{ ...kept, state }} />
        {state.kind === 'saved' && state.revision > 0 && (
          <>
            {' · '}
            <Link
              to={`/machines/${machine.id}/history`}
              className="hover:text-ink"
              title="history, key y"
            >
              revision {state.revision}
            </Link>
          </>
        )}
      </span>
      {state.kind === 'failed' && (
        <button type="button" className="btn btn-xs" onClick={kept.keeper.retry}>
          Try again
        </button>
      )}
    </span>
  );
}
