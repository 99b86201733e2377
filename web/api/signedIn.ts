import { useSyncExternalStore } from 'react';

/** Whether the server wants to be signed in to before it answers. */

export const SESSION = '/api/session';

let needed = false;
const told = new Set<() => void>();

function set(next: boolean): void {
  if (next === needed) return;
  needed = next;
  for (const tell of told) tell();
}
export const signInIsNeeded = () => set(true);
let was = false;
/** Told once somebody is signed in. */
export function signedIn(): void {
  was = true;
  set(false);
}
/** Whether somebody has been signed in since the page began. */
export const wasSignedIn = (): boolean => was;

const listen = (tell: () => void) => {
  told.add(tell);
  return () => told.delete(tell);
};

export const useSignInNeeded = (): boolean => useSyncExternalStore(listen, () => needed);
