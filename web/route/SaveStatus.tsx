import { format } from 'date-fns';
import { Redo2, Undo2 } from 'lucide-react';
import { Link } from 'react-router';
import { useMachineFile } from '../machine/MachineFile';

/** Whether what stands on the page is saved, and the two steps through its history. */
export function SaveStatus() {
  const { machine, save, undo, redo, canUndo, canRedo } = useMachineFile();
  return (
    <span className="flex items-center gap-2">
      <button
        type="button"
        className="btn btn-ghost btn-xs px-1"
        disabled={!canUndo}
        onClick={undo}
        aria-label="undo"
        title="undo, Ctrl+Z"
      >
        <Undo2 size={15} aria-hidden />
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-xs px-1"
        disabled={!canRedo}
        onClick={redo}
        aria-label="redo"
        title="redo, Ctrl+Shift+Z"
      >
        <Redo2 size={15} aria-hidden />
      </button>
      <span role="status" data-testid="save-status">
        {words()}
      </span>
    </span>
  );

  function words() {
    switch (save.kind) {
      case 'saved':
        return (
          <>
            saved {format(save.at, 'HH:mm')} ·{' '}
            <Link
              to={`/machines/${machine.id}/history`}
              className="hover:text-ink"
              title="history, key y"
            >
              revision {save.revision}
            </Link>
          </>
        );
      case 'saving':
        return 'saving';
      case 'held':
        return (
          <span className="text-heat">
            kept in this browser until the refused figures are mended
          </span>
        );
      case 'away':
        return <span className="text-heat">server away · kept in this browser</span>;
      case 'failed':
        return <span className="text-heat">not saved: {save.message}</span>;
      case 'conflict':
        return <span className="text-heat">changed in another window</span>;
    }
  }
}
