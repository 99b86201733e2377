import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import type { KindName, ValueOf } from '@zugluft/core/documents/kinds';
import type { Keeper, KeepView } from './keeper';
import { keeperOf, type Start } from './keepers';

/** The view of a keeper that is there. */
export function useKept<T>(keeper: Keeper<T>): KeepView<T> & { keeper: Keeper<T> } {
  const view = useSyncExternalStore(keeper.subscribe, keeper.view);
  useEffect(() => {
    // a view that is left sends what was typed last at once
    return () => void keeper.flush();
  }, [keeper]);
  return { ...view, keeper };
}

const NOTHING = () => () => undefined;

/**
 * A document of any kind: its value, changes, undo and redo, where it is kept, and what to choose in a conflict.
 *
 * @param start where the page has read it already; that of the first time holds
 * @returns `view` null while it is being read; `error` where it could not be, with `again`
 */
export function useDocument<K extends KindName>(kind: K, id: string, start?: Start<K>) {
  const first = useRef(start);
  const [keeper, setKeeper] = useState<Keeper<ValueOf<K>> | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const [count, setCount] = useState(0);
  useEffect(() => {
    let open = true;
    setError(null);
    keeperOf(kind, id, first.current).then(
      (k) => open && setKeeper(() => k),
      (cause: Error) => open && setError(cause),
    );
    return () => {
      open = false;
    };
  }, [kind, id, count]);
  const view = useSyncExternalStore<KeepView<ValueOf<K>> | null>(
    keeper?.subscribe ?? NOTHING,
    () => keeper?.view() ?? null,
  );
  useEffect(() => () => void keeper?.flush(), [keeper]);
  return { view, keeper, error, again: () => setCount((n) => n + 1) };
}
