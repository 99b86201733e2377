import type { Draft } from './draft';

/** What was typed and is not yet on the server, kept in this browser. */
export interface StoredDraft {
  baseRevision: number;
  record: Draft;
  keptAt: string;
}

const key = (id: string) => `zugluft.draft.${id}`;

/** Keeps a draft; false where the browser refuses (storage full or switched off). */
export function keepDraft(id: string, draft: StoredDraft): boolean {
  try {
    localStorage.setItem(key(id), JSON.stringify(draft));
    return true;
  } catch {
    return false;
  }
}

export function readDraft(id: string): StoredDraft | null {
  try {
    const text = localStorage.getItem(key(id));
    return text === null ? null : (JSON.parse(text) as StoredDraft);
  } catch {
    return null;
  }
}

export function dropDraft(id: string): void {
  try {
    localStorage.removeItem(key(id));
  } catch {
    // storage is switched off: nothing was kept either
  }
}
