import { useCallback, useSyncExternalStore } from 'react';

/** As narrow as a phone. */
const PHONE = '(max-width: 639px)';
/** Too narrow for three columns beside each other. */
export const ONE_COLUMN = '(max-width: 1023px)';

/** Whether the page is narrow, by default as a phone is. */
export function useNarrow(query = PHONE): boolean {
  const subscribe = useCallback(
    (changed: () => void) => {
      const list = window.matchMedia(query);
      list.addEventListener('change', changed);
      return () => list.removeEventListener('change', changed);
    },
    [query],
  );
  return useSyncExternalStore(subscribe, () => window.matchMedia(query).matches);
}
