import { toast } from 'sonner';
import { useQueryClient } from '@tanstack/react-query';
import { putRunAside, runKeys, type KeptRun, type RunDocument } from '../../api/runs';
import { ConflictPanel } from '../../documents/ConflictPanel';
import { useCommands } from '../../documents/commands';
import { usePageUndo } from '../../documents/pageUndo';
import type { Keeper } from '../../documents/keeper';
import { SavedWords } from '../../documents/SavedWords';
import { useKept } from '../../documents/useDocument';
import type { UndoStep } from '../../documents/undoSteps';

function say(done: string, step: UndoStep | null): void {
  if (step) toast(`${done}: ${step.label}`, { id: 'undo' });
}

/** Where a run is kept, its steps back, what two windows changed in it; it is put aside here and brought back. */
export function RunKeeping({ kept, keeper }: { kept: KeptRun; keeper: Keeper<RunDocument> }) {
  const client = useQueryClient();
  const view = useKept(keeper);
  usePageUndo({
    undo: view.undo?.label ?? null,
    redo: view.redo?.label ?? null,
    isAlone: true,
  });
  useCommands(
    {
      undo: () => say('Undone', keeper.undo()),
      redo: () => say('Done again', keeper.redo()),
    },
    true,
  );
  const renew = async () => client.invalidateQueries({ queryKey: runKeys.of(kept.machineId) });
  const aside = async () => {
    try {
      // what was typed goes first
      await keeper.flush();
      const { revision } = await putRunAside(kept.id, keeper.view().revision, true);
      await renew();
      toast('The run is put aside', {
        action: {
          label: 'Bring back',
          onClick: () =>
            void putRunAside(kept.id, revision, false).then(renew, (cause: Error) =>
              toast.error(`It could not be brought back: ${cause.message}`),
            ),
        },
      });
    } catch (cause) {
      toast.error(`It could not be put aside: ${(cause as Error).message}`);
    }
  };
  return (
    <>
      <span role="status" data-testid="run-saving">
        <SavedWords view={view} />
      </span>
      <button type="button" className="cursor-pointer hover:text-ink" onClick={() => void aside()}>
        put aside
      </button>
      {view.state.kind === 'conflict' && (
        <ConflictPanel kind="run" conflicts={view.state.conflicts} choose={keeper.choose} />
      )}
    </>
  );
}
