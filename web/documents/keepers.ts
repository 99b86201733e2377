import { keepablePart } from '@zugluft/core/documents/keepablePart';
import { kindNamed, type KindName, type ValueOf } from '@zugluft/core/documents/kinds';
import { readDocument, writeDocument } from '../api/documents';
import { browserDraftShelf, type Draft, type DraftShelf } from './draftShelf';
import { createKeeper, type Keeper, type Version } from './keeper';
import { takeOldDraft } from './oldDrafts';
import { describeChange } from './describeChange';

const open = new Map<string, Promise<Keeper<unknown>>>();
/** Those that are there. */
const standing = new Set<Keeper<unknown>>();
const listeners = new Set<(kind: KindName, id: string, version: Version<unknown>) => void>();
let shelf: DraftShelf | null = null;

/** Told of every version of any document that the server has taken from this page. */
export function onArrived(
  listener: (kind: KindName, id: string, version: Version<unknown>) => void,
): () => void {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}

/** A document as it was just read. */
export type Start<K extends KindName> = Version<ValueOf<K>> & { at: Date | null };

async function make<K extends KindName>(
  kind: K,
  id: string,
  start: Start<K> | undefined,
): Promise<Keeper<ValueOf<K>>> {
  shelf ??= browserDraftShelf();
  const drafts = shelf;
  let draft = (await drafts.take(kind, id).catch(() => null)) as Draft<ValueOf<K>> | null;
  let server: Start<K>;
  try {
    server = start ?? (await read(kind, id));
  } catch (cause) {
    // what this browser kept can be gone on with while the server is away
    if (!draft) throw cause;
    server = { ...draft.base, at: null };
  }
  const old = draft?.dirty ? null : takeOldDraft(kind, id, server);
  if (old) draft = old.draft as Draft<ValueOf<K>>;
  const keeper = createKeeper<ValueOf<K>>({
    server,
    draft,
    fit: (value, base) => keepablePart(kindNamed(kind).accept, value, base) as ValueOf<K> | null,
    describe: (before, after) => describeChange(kind, before, after),
    keep: async (now) => {
      await drafts.put(kind, id, now);
      old?.drop();
    },
    send: async (seen, value, writeId) => {
      const now = await writeDocument(kind, id, seen, value, writeId);
      return { revision: now.revision, value: now.value, at: dateOf(now.updatedAt) };
    },
    arrived: (version) => {
      for (const tell of listeners) tell(kind, id, version);
    },
  });
  standing.add(keeper as unknown as Keeper<unknown>);
  void keeper.flush();
  return keeper;
}

async function read<K extends KindName>(kind: K, id: string): Promise<Start<K>> {
  const { revision, value, updatedAt } = await readDocument(kind, id);
  return { revision, value, at: dateOf(updatedAt) };
}

const dateOf = (text: string | null) => (text === null ? null : new Date(text));

/**
 * The one keeper of a document in this page: whoever asks for it types into the same value.
 *
 * @param start where the page has just read it
 */
export function keeperOf<K extends KindName>(
  kind: K,
  id: string,
  start?: Start<K>,
): Promise<Keeper<ValueOf<K>>> {
  const name = `${kind}/${id}`;
  const known = open.get(name) as Promise<Keeper<ValueOf<K>>> | undefined;
  if (known) {
    if (start) void known.then((k) => k.moved(start)).catch(() => undefined);
    return known;
  }
  const made = make(kind, id, start);
  open.set(name, made as unknown as Promise<Keeper<unknown>>);
  made.catch(() => open.delete(name));
  return made;
}

/** Documents of a kind that are in this browser alone. */
export function unsentDocuments(kind: KindName): Promise<{ id: string; value: unknown }[]> {
  shelf ??= browserDraftShelf();
  return shelf.unsent(kind);
}

/** What the server answered to something else than this page's own typing: put aside, renamed, brought back. */
export function documentMoved<K extends KindName>(
  kind: K,
  id: string,
  version: Version<ValueOf<K>>,
): void {
  const known = open.get(`${kind}/${id}`) as Promise<Keeper<ValueOf<K>>> | undefined;
  void known?.then((k) => k.moved(version)).catch(() => undefined);
}

/** Sends all that this page has and the server has not; whether it has everything now. */
export async function sendAll(): Promise<boolean> {
  await Promise.all([...standing].map((k) => k.flush()));
  return [...standing].every((k) => !k.isDirty());
}

const isUnsafe = (k: Keeper<unknown>) => k.isDirty() && k.view().kept !== 'yes';

/** Watches for the page being left with something that is neither on the server nor in this browser, and for the server. */
export function watchLeaving(): () => void {
  const stop = new AbortController();
  const { signal } = stop;
  addEventListener(
    'beforeunload',
    (e) => {
      if ([...standing].some(isUnsafe)) e.preventDefault();
    },
    { signal },
  );
  // the server may be there again
  addEventListener(
    'online',
    () => {
      for (const k of standing) if (k.view().state.kind === 'offline') k.retry();
    },
    { signal },
  );
  addEventListener('pagehide', () => standing.forEach((k) => void k.flush()), { signal });
  return () => stop.abort();
}
