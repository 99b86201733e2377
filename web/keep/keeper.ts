import type { HttpProblem } from '../api/http';

/** Something that is typed here and belongs to the server, with what the server knows of it (its revision). */
export interface Kept<V, B> {
  value: V;
  base: B;
}

export type KeepState<V, B> =
  | { kind: 'saved' | 'saving' | 'held' | 'away' }
  | { kind: 'refused'; message: string }
  | { kind: 'conflict'; theirs: Kept<V, B> };

export interface KeepView<V, B> {
  value: V;
  state: KeepState<V, B>;
  canUndo: boolean;
  canRedo: boolean;
}

export interface KeeperOptions<V, B> {
  /** As the server last had it. */
  server: Kept<V, B>;
  /** What this browser kept and the server does not have yet. */
  pending: Kept<V, B> | null;
  /** Sends a value; resolves with what the server now knows of it. */
  send: (base: B, value: V) => Promise<B>;
  /** Keeps what is not sent yet; null once nothing waits, with the value that has arrived. */
  store: (pending: Kept<V, B> | null, arrived?: V) => void;
  /** The server's version in the answer that refuses an older one. */
  theirs: (problem: HttpProblem) => Kept<V, B>;
  /** Whether the server would take it; else it is held here until mended. */
  takes?: (value: V) => boolean;
  /** Whether two values say the same. */
  same: (a: V, b: V) => boolean;
  /** What this window sent before, also from a view that was left: a newer version that is one of these is nobody else's. */
  sent?: V[];
  saveAfterMs?: number;
  retryAfterMs?: number;
}

export type Keeper<V, B> = ReturnType<typeof createKeeper<V, B>>;

const SAVE_AFTER_MS = 500;
const RETRY_AFTER_MS = 3000;
const MAX_UNDO = 200;
const MAX_SENT = 20;

/**
 * Keeps what is typed in this browser at once, sends it shortly after, one version at a time, never over somebody else's, and
 * tries again while the server is away. With undo and redo.
 */
export function createKeeper<V, B>(options: KeeperOptions<V, B>) {
  const { send, store, theirs, same, takes = () => true, sent = [] } = options;
  const saveAfterMs = options.saveAfterMs ?? SAVE_AFTER_MS;
  const retryAfterMs = options.retryAfterMs ?? RETRY_AFTER_MS;
  const start = options.pending ?? options.server;
  let value = start.value;
  let base = start.base;
  let dirty = options.pending !== null;
  let busy: Promise<void> | null = null;
  let past: V[] = [];
  let future: V[] = [];
  let timer: ReturnType<typeof setTimeout> | undefined;
  let left = false;
  const told = new Set<() => void>();
  let view: KeepView<V, B> = {
    value,
    state: { kind: !dirty ? 'saved' : takes(value) ? 'saving' : 'held' },
    canUndo: false,
    canRedo: false,
  };

  const show = (state: KeepState<V, B> = view.state) => {
    view = { value, state, canUndo: past.length > 0, canRedo: future.length > 0 };
    for (const tell of told) tell();
  };
  const inConflict = () => view.state.kind === 'conflict';
  const later = (ms: number) => {
    clearTimeout(timer);
    timer = setTimeout(() => void save(), ms);
  };

  const attempt = async (): Promise<void> => {
    const going = value;
    dirty = false;
    sent.push(going);
    sent.splice(0, sent.length - MAX_SENT);
    show({ kind: 'saving' });
    try {
      base = await send(base, going);
      if (dirty) store({ value, base });
      else store(null, going);
      if (!dirty) show({ kind: 'saved' });
    } catch (cause) {
      dirty = true;
      failed(cause as HttpProblem);
    }
  };

  const failed = (problem: HttpProblem) => {
    if (problem.status === 412) {
      // a view that opened since goes on from here, or will; an older version must not come over its own
      if (left) return;
      const now = theirs(problem);
      if (sent.some((v) => same(v, now.value))) {
        // sent from here, from a view that was left before it was answered: go on from it
        base = now.base;
        later(0);
        return;
      }
      show({ kind: 'conflict', theirs: now });
    } else if (!problem.status || problem.status >= 500) {
      show({ kind: 'away' });
      later(retryAfterMs);
    } else show({ kind: 'refused', message: problem.message });
  };

  /** Sends what stands there now, and what is typed meanwhile after it. */
  async function save(): Promise<void> {
    clearTimeout(timer);
    if (busy) return busy;
    if (!dirty || inConflict() || !takes(value)) return;
    busy = (async () => {
      const before = base;
      await attempt();
      // typed on meanwhile, and the one before has arrived
      while (dirty && base !== before && view.state.kind === 'saving' && takes(value)) {
        const again = base;
        await attempt();
        if (base === again) break;
      }
    })().finally(() => {
      busy = null;
      if (dirty && !takes(value) && !inConflict()) show({ kind: 'held' });
    });
    return busy;
  }

  const put = (next: V) => {
    value = next;
    dirty = true;
    store({ value, base });
    if (inConflict()) return show();
    if (!takes(value)) {
      clearTimeout(timer);
      return show({ kind: 'held' });
    }
    // while the server is away the next try is under way
    if (view.state.kind === 'away') return show();
    show({ kind: 'saving' });
    later(saveAfterMs);
  };

  return {
    view: () => view,

    subscribe(tell: () => void) {
      told.add(tell);
      return () => void told.delete(tell);
    },

    change(make: (value: V) => V) {
      const next = make(value);
      if (next === value) return;
      past = [...past, value].slice(-MAX_UNDO);
      future = [];
      put(next);
    },

    undo() {
      const before = past.at(-1);
      if (before === undefined) return;
      past = past.slice(0, -1);
      future = [value, ...future];
      put(before);
    },

    redo() {
      const [after, ...rest] = future;
      if (after === undefined) return;
      past = [...past, value];
      future = rest;
      put(after);
    },

    /** In a conflict: what stands here, or the other version. */
    choose(mine: boolean) {
      if (view.state.kind !== 'conflict') return;
      const other = view.state.theirs;
      base = other.base;
      if (mine) {
        show({ kind: 'saving' });
        void save();
        return;
      }
      value = other.value;
      dirty = false;
      past = [];
      future = [];
      store(null);
      show({ kind: 'saved' });
    },

    /** The view is shown: what was kept is sent. */
    enter() {
      left = false;
      void save();
    },

    /** The view is left: what was typed last is sent at once, and tried again while the server is away. */
    leave() {
      left = true;
      void save();
    },

    /** Sends at once; false where it could not be. */
    async flush(): Promise<boolean> {
      await busy;
      await save();
      return !dirty;
    },
  };
}
