import { useRef } from 'react';
import { toast } from 'sonner';
import type { PhotoMarks } from '@zugluft/core/photo/photoMarks';
import { useCommands } from '../../documents/commands';
import { usePageUndo } from '../../documents/pageUndo';
import { useMachineFile } from '../../documents/record/MachineFile';
import type { Draft } from '../../documents/record/draft';
import { changed, noTurns, turn, type TurnOrder } from '../../documents/turnOrder';
import type { useMarks } from './useMarks';

/** Changes of the marks and of the record made on this page: undo takes back what was done last, whichever it was. */
export function usePageChanges({
  view,
  keeper,
  change,
}: Pick<ReturnType<typeof useMarks>, 'view' | 'keeper' | 'change'>) {
  const { kept, change: changeRecord } = useMachineFile();
  const order = useRef<TurnOrder<'marks' | 'record'>>(noTurns());
  const note = (of: 'marks' | 'record', touched: string | null) => {
    order.current = changed(order.current, of, touched, performance.now());
  };
  const step = (back: boolean) => {
    const by = back ? 'undo' : 'redo';
    const next = turn(order.current, back);
    if (next) order.current = next.order;
    // from before this page was opened: marks first, since they are what is seen here
    const first = next?.of ?? 'marks';
    const done =
      first === 'marks'
        ? (keeper?.[by]() ?? kept.keeper[by]())
        : (kept.keeper[by]() ?? keeper?.[by]());
    if (done) toast(`${back ? 'Undone' : 'Done again'}: ${done.label}`, { id: 'undo' });
  };
  usePageUndo({
    undo: view?.undo?.label ?? null,
    redo: view?.redo?.label ?? null,
    isAlone: false,
  });
  useCommands({ undo: () => step(true), redo: () => step(false) }, true);
  return {
    changeMarks(make: (marks: PhotoMarks) => PhotoMarks, touched: string | null = null) {
      note('marks', touched);
      change(make, touched);
    },
    changeRecord(make: (draft: Draft) => Draft) {
      note('record', null);
      changeRecord(make);
    },
  };
}
