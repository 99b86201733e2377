import { useRef, useState } from 'react';

/** Rows that are chosen, by id, and the one in hand, by its place. */
export interface ChosenRows {
  chosen: ReadonlySet<string>;
  /** Place of the row in hand; null while none is. */
  at: number | null;
  take: (index: number | null) => void;
  /** Chooses one or gives it up; with `reach` all rows from the one turned last to here become as that one is. */
  turn: (index: number, reach?: boolean) => void;
  choose: (ids: Iterable<string>) => void;
  clear: () => void;
}

/**
 * Rows of a list chosen by click, Shift or keys.
 *
 * @param idAt the row's id, undefined where it is not read yet
 */
export function useChosenRows(idAt: (index: number) => string | undefined): ChosenRows {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [at, setAt] = useState<number | null>(null);
  const last = useRef<number | null>(null);
  return {
    chosen,
    at,
    take: setAt,
    turn(index, reach = false) {
      const from = reach && last.current !== null ? last.current : index;
      setChosen((now) => {
        const next = new Set(now);
        const anchor = idAt(from);
        const on = from === index ? !now.has(anchor ?? '') : now.has(anchor ?? '');
        for (let i = Math.min(from, index); i <= Math.max(from, index); i++) {
          const id = idAt(i);
          if (id === undefined) continue;
          if (on) next.add(id);
          else next.delete(id);
        }
        return next;
      });
      if (!reach) last.current = index;
      setAt(index);
    },
    choose: (ids) => setChosen(new Set(ids)),
    clear: () => {
      setChosen(new Set());
      last.current = null;
    },
  };
}
