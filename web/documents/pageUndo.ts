import { useEffect, useSyncExternalStore } from 'react';

/** What a page that keeps more than the record would take back or do again next, in words; null where there is nothing. */
export interface PageUndo {
  undo: string | null;
  redo: string | null;
  /** The record's own steps are not reached from here. */
  isAlone: boolean;
}

let shown: PageUndo | null = null;
const told = new Set<() => void>();

function show(next: PageUndo | null): void {
  shown = next;
  told.forEach((t) => t());
}

/** Tells the buttons of the page's head what undo takes back while this page is shown. */
export function usePageUndo({ undo, redo, isAlone }: PageUndo): void {
  useEffect(() => {
    const own = { undo, redo, isAlone };
    show(own);
    return () => {
      // the next page may have told already
      if (shown === own) show(null);
    };
  }, [undo, redo, isAlone]);
}

/** What undo and redo would do next on the page that is shown. */
export function useUndoWords(
  record: Pick<PageUndo, 'undo' | 'redo'>,
): Pick<PageUndo, 'undo' | 'redo'> {
  const page = useSyncExternalStore(
    (t) => {
      told.add(t);
      return () => void told.delete(t);
    },
    () => shown,
  );
  if (!page) return record;
  const { undo, redo, isAlone } = page;
  return isAlone ? { undo, redo } : { undo: undo ?? record.undo, redo: redo ?? record.redo };
}
