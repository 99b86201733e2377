import { useSyncExternalStore } from 'react';
import type { Cap } from '@zugluft/core/envelope/fanStates';

/** What a change of the machine would add, laid over the ladder while it is looked at. */
export interface Overlay {
  name: string;
  /** More watts of both dies, by cap. */
  gainedW: ReadonlyMap<Cap, number>;
}

let shown: Overlay | null = null;
const told = new Set<() => void>();

/** Lays something over the ladder, or takes it away. */
export function showOverlay(overlay: Overlay | null): void {
  shown = overlay;
  for (const tell of told) tell();
}

const subscribe = (tell: () => void) => {
  told.add(tell);
  return () => void told.delete(tell);
};

/** What lies over the ladder now. */
export const useOverlay = (): Overlay | null => useSyncExternalStore(subscribe, () => shown);
