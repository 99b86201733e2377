import { useSyncExternalStore } from 'react';

/** Whether the last answers came from the server itself, or are old ones that this browser kept. */

let away = false;
const told = new Set<() => void>();

export function answerWas(kept: boolean): void {
  if (kept === away) return;
  away = kept;
  for (const tell of told) tell();
}

const listen = (tell: () => void) => {
  told.add(tell);
  return () => told.delete(tell);
};

/** True while what is shown is as this browser last saw it. */
export const useShownAsKept = (): boolean => useSyncExternalStore(listen, () => away);
