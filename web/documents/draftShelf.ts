import type { KindName } from '@zugluft/core/documents/kinds';
import { createStore, del, entries, set } from 'idb-keyval';
import type { Version } from './keeper';
import type { UndoStep } from './undoSteps';

/** A write on its way: what was seen, what is written, and its name. */
export interface Sent<T> {
  seen: number;
  value: T;
  id: string;
}

/** What this browser keeps of one document in one tab: what stands there, what the server had, and the steps back. */
export interface Draft<T> {
  base: Version<T>;
  value: T;
  /** Whether the server does not have it yet. */
  dirty: boolean;
  /** A write of which it is not known whether it arrived. */
  sent?: Sent<T> | null;
  past: UndoStep[];
  future: UndoStep[];
}

/** Where drafts lie: one for each document and tab. */
export interface DraftShelf {
  /** Resolves once it is on the shelf. */
  put(kind: KindName, id: string, draft: Draft<unknown>): Promise<void>;
  /** This tab's own draft, or one that a tab left behind which is no longer there. */
  take(kind: KindName, id: string): Promise<Draft<unknown> | null>;
  /** Documents that were begun here and that no server has: nothing else leads back to them. */
  unsent(kind: KindName): Promise<{ id: string; value: unknown }[]>;
}

interface Entry {
  kind: KindName;
  id: string;
  tab: string;
  at: number;
  draft: Draft<unknown>;
}

const TAB_KEY = 'zugluft.tab';
const lockOf = (tab: string) => `zugluft-tab-${tab}`;
/** Of documents that nobody looked at for so long the steps back are dropped; what the server does not have never is. */
const MAX_IDLE_MS = 14 * 24 * 3600 * 1000;

/** Holds a name for as long as the tab lives; false where another tab has it. */
async function hold(tab: string): Promise<boolean> {
  const { locks } = navigator;
  if (!locks) return true;
  return new Promise((resolve) => {
    void locks.request(lockOf(tab), { ifAvailable: true }, (lock) => {
      resolve(lock !== null);
      // held until the tab is closed
      return lock === null ? undefined : new Promise(() => undefined);
    });
  });
}

async function nameTab(): Promise<string> {
  let kept: string | null = null;
  try {
    kept = sessionStorage.getItem(TAB_KEY);
  } catch {
    // switched off
  }
  // a tab that was doubled brings the name of the other one along
  const tab = kept !== null && (await hold(kept)) ? kept : crypto.randomUUID();
  if (tab !== kept) await hold(tab);
  try {
    sessionStorage.setItem(TAB_KEY, tab);
  } catch {
    // a reload then finds the draft as one that was left behind
  }
  return tab;
}

async function livingTabs(): Promise<Set<string>> {
  const { locks } = navigator;
  if (!locks) return new Set();
  const { held = [] } = await locks.query();
  return new Set(held.flatMap((l) => (l.name ? [l.name] : [])));
}

/** The shelf in this browser's own database. */
export function browserDraftShelf(): DraftShelf {
  const store = createStore('zugluft-drafts', 'documents');
  let tab: Promise<string> | null = null;
  const own = () => (tab ??= nameTab());
  let asked = false;
  return {
    async put(kind, id, draft) {
      const name = await own();
      if (draft.dirty && !asked) {
        asked = true;
        // the browser may say no; what is written is written all the same
        void navigator.storage?.persist?.().catch(() => false);
      }
      const entry: Entry = { kind, id, tab: name, at: Date.now(), draft };
      await set(`${kind}/${id}/${name}`, entry, store);
    },

    async take(kind, id) {
      const name = await own();
      const all = (await entries<string, Entry>(store)).filter(([key]) =>
        key.startsWith(`${kind}/${id}/`),
      );
      const living = await livingTabs();
      const mine = all.find(([, e]) => e.tab === name);
      const left = all.filter(([, e]) => e.tab !== name && !living.has(lockOf(e.tab)));
      // what a closed tab still had to send comes first, else the steps back of this one
      const waiting = left.filter(([, e]) => e.draft.dirty).sort(([, a], [, b]) => b.at - a.at);
      const found = mine?.[1].draft.dirty ? mine : (waiting[0] ?? mine ?? null);
      if (found && found !== mine) {
        await set(`${kind}/${id}/${name}`, { ...found[1], tab: name }, store);
        await del(found[0], store);
      }
      for (const [key, e] of left) {
        if (e === found?.[1] || e.draft.dirty) continue;
        if (Date.now() - e.at > MAX_IDLE_MS) await del(key, store);
      }
      return found?.[1].draft ?? null;
    },

    async unsent(kind) {
      const all = await entries<string, Entry>(store);
      return all.flatMap(([, { kind: of, id, draft }]) =>
        of === kind && draft.dirty && draft.base.revision === 0 ? [{ id, value: draft.value }] : [],
      );
    },
  };
}
