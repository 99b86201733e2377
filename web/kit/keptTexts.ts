import { createStore, del, get, set } from 'idb-keyval';

/** Where texts that belong to nothing yet are kept. */
export interface TextShelf {
  read(key: string): Promise<string[]>;
  /** Resolves once they are kept; rejects where the browser keeps nothing. */
  keep(key: string, texts: readonly string[]): Promise<void>;
}

/** In this browser's own database. */
export function browserTextShelf(): TextShelf {
  const store = createStore('zugluft-rows', 'texts');
  return {
    async read(key) {
      const kept = await get<unknown>(key, store);
      return Array.isArray(kept) ? kept.map((x) => (typeof x === 'string' ? x : '')) : [];
    },
    async keep(key, texts) {
      if (texts.some((t) => t !== '')) await set(key, [...texts], store);
      else await del(key, store);
    },
  };
}
