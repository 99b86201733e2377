import { useNavigate } from 'react-router';
import { isPartList } from '@zugluft/core/record/fieldTable';
import { enterField } from '../../kit/fieldOrder';
import { useMachineFile } from '../../documents/record/MachineFile';
import { stepsOf } from '../../documents/route/steps';

const MAX_LOOKS = 30;

/** The field of a path where it stands on the page; for a part as a whole the first field of its row, for a list its button. */
function fieldOf(path: string): HTMLElement | null {
  const exact = document.getElementById(`field-${path}`);
  if (exact) return exact;
  const [list = '', index] = path.split('.');
  const table = document.querySelector(`[data-testid="table-${list}"]`);
  if (index === undefined) {
    return table?.parentElement?.parentElement?.querySelector('button[data-onward]') ?? null;
  }
  return table?.querySelector<HTMLElement>(`[data-row="${index}"] input`) ?? null;
}

/**
 * Goes to a field of the machine's file, on whichever step it stands.
 *
 * @returns takes the field's path, parts by their place; `arrived` gets the field once it is there, by default the hand is put into it
 */
export function useGoToField(): (path: string, arrived?: (field: HTMLElement) => void) => void {
  const { machine } = useMachineFile();
  const navigate = useNavigate();
  return (path, arrived = enterField) => {
    const [list = ''] = path.split('.');
    const steps = stepsOf(path);
    const here = steps.find((s) => location.pathname.endsWith(`/${s}`));
    const inCooling = isPartList(list);
    const shown =
      here !== undefined &&
      (here !== 'cooling' || document.querySelector(`[data-testid="table-${list}"]`) !== null);
    if (!shown) {
      const step = here ?? steps[0]!;
      const query = inCooling && step === 'cooling' ? `?parts=${list}` : '';
      void navigate(`/machines/${machine.id}/${step}${query}`);
    }
    // the step may still have to be drawn, and what a part holds beyond its row once the row is entered
    let tries = MAX_LOOKS;
    let nearest: HTMLElement | null = null;
    const look = () => {
      const field = fieldOf(path);
      const exact = field?.id === `field-${path}`;
      if (field && !exact && field !== nearest) {
        nearest = field;
        if (path.split('.').length > 2) field.focus();
      }
      if (!exact && tries-- > 0) {
        requestAnimationFrame(look);
        return;
      }
      if (field) arrived(field);
    };
    requestAnimationFrame(look);
  };
}
