import { toast } from 'sonner';
import { isObject } from '@zugluft/core/record/plainJson';
import type { UndoStep } from '../../documents/undoSteps';
import { useMachineFile } from '../../documents/record/MachineFile';
import { useGoToField } from './useGoToField';

const SHOWN_MS = 1500;

/** A path that names parts by id, with their places instead: `finStacks.fins-left.depthMm` is `finStacks.0.depthMm`. */
function placedPath(draft: unknown, path: string): string {
  let at: unknown = draft;
  return path
    .split('.')
    .map((key) => {
      if (Array.isArray(at)) {
        const i = at.findIndex((x) => isObject(x) && x['id'] === key);
        const place = i >= 0 ? i : Number(key);
        at = (at as unknown[])[place];
        return String(place);
      }
      at = isObject(at) ? at[key] : undefined;
      return key;
    })
    .join('.');
}

/** Takes changes of the record back, says which, and goes to where each was. */
export function useUndoWithPlace() {
  const { kept } = useMachineFile();
  const goTo = useGoToField();
  const go = (done: 'Undone' | 'Done again', step: UndoStep | null) => {
    if (!step) return;
    toast(`${done}: ${step.label}`, { id: 'undo' });
    if (step.place === '') return;
    // keys go on to where they went before: only who was in a field is taken into another one
    const typing = /^(INPUT|SELECT|TEXTAREA)$/.test(document.activeElement?.tagName ?? '');
    goTo(placedPath(kept.keeper.view().value, step.place), (field) => {
      field.scrollIntoView({ block: 'nearest' });
      if (typing) field.focus();
      field.toggleAttribute('data-undone', true);
      setTimeout(() => field.toggleAttribute('data-undone', false), SHOWN_MS);
    });
  };
  return {
    undo: () => go('Undone', kept.keeper.undo()),
    redo: () => go('Done again', kept.keeper.redo()),
  };
}
