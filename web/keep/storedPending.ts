import type { Kept } from './keeper';

/**
 * What waits under a name in this browser's storage; where that is switched off the page itself still holds it.
 *
 * @param read makes sense of what stands there, null where there is none
 * @param same whether two values say the same
 */
export function storedPending<V, B>(
  name: string,
  read: (kept: unknown) => Kept<V, B> | null,
  same: (a: V, b: V) => boolean,
): {
  pending: Kept<V, B> | null;
  same: (a: V, b: V) => boolean;
  store: (pending: Kept<V, B> | null, arrived?: V) => void;
} {
  return {
    pending: readPending(name, read),
    same,
    store(pending, arrived) {
      try {
        if (pending) {
          localStorage.setItem(name, JSON.stringify(pending));
          return;
        }
        // another view may have kept something newer meanwhile
        const now = arrived === undefined ? null : readPending(name, read);
        if (now && !same(now.value, arrived!)) return;
        localStorage.removeItem(name);
      } catch {
        // full or switched off
      }
    },
  };
}

export function readPending<V, B>(
  name: string,
  read: (kept: unknown) => Kept<V, B> | null,
): Kept<V, B> | null {
  try {
    const text = localStorage.getItem(name);
    return text === null ? null : read(JSON.parse(text));
  } catch {
    return null;
  }
}

const sent = new Map<string, unknown[]>();

/** What this window has sent under a name, over all its views. */
export function sentFrom<V>(name: string): V[] {
  const list = sent.get(name) ?? [];
  sent.set(name, list);
  return list as V[];
}
