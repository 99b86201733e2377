import { useEffect, useState, useSyncExternalStore } from 'react';
import { createKeeper, type Keeper, type KeeperOptions, type KeepView } from './keeper';

/**
 * A keeper for as long as the view is shown: what was kept is sent when it opens, what was typed last when it is left.
 *
 * @param options those of the first time hold
 */
export function useKeeper<V, B>(
  options: () => KeeperOptions<V, B>,
): KeepView<V, B> & { keeper: Keeper<V, B> } {
  const [keeper] = useState(() => createKeeper(options()));
  const view = useSyncExternalStore(keeper.subscribe, keeper.view);
  useEffect(() => {
    keeper.enter();
    return keeper.leave;
  }, [keeper]);
  return { ...view, keeper };
}
