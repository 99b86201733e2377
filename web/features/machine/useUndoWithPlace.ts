import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { isObject } from '@zugluft/core/record/plainJson';
import type { UndoStep } from '../../documents/undoSteps';
import { useMachineFile } from '../../documents/record/MachineFile';
import { stepOf } from './steps';

/** A path that names parts by id, with their places instead: `finStacks.fins-left.depthMm` is `finStacks.0.depthMm`. */
export function placedPath(draft: unknown, path: string): string {
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
  const { kept, machine } = useMachineFile();
  const navigate = useNavigate();
  const go = (done: 'Undone' | 'Done again', step: UndoStep | null) => {
    if (!step) return;
    toast(`${done}: ${step.label}`, { id: 'undo' });
    if (step.place === '') return;
    void navigate(`/machines/${machine.id}/${stepOf(step.place)}`);
    const id = `field-${placedPath(kept.keeper.view().value, step.place)}`;
    // the step may still have to be drawn
    let tries = 20;
    const look = () => {
      const field = document.getElementById(id);
      if (field) field.focus();
      else if (tries-- > 0) requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  };
  return {
    undo: () => go('Undone', kept.keeper.undo()),
    redo: () => go('Done again', kept.keeper.redo()),
  };
}
