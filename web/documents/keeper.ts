import { sameValue } from '@zugluft/core/family/diffRecords';
import {
  mergeDocuments,
  type MergeConflict,
  type Side,
} from '@zugluft/core/documents/mergeDocuments';
import { HttpProblem } from '../api/http';
import type { Draft, Sent } from './draftShelf';
import {
  addStep,
  KEPT_STEPS,
  NO_STEPS,
  stepBack,
  stepForward,
  widenStep,
  type DescribeChange,
  type UndoStep,
  type UndoSteps,
} from './undoSteps';
import { writeName } from './writeName';

/** A value with the revision under which the server has it. */
export interface Version<T> {
  revision: number;
  value: T;
}

/** Where what stands here is, truthfully. */
export type KeepState =
  | { kind: 'saved'; at: Date | null; revision: number }
  | { kind: 'saving' }
  /** It holds something that the server would not take; `rest`: all else is there. */
  | { kind: 'held'; rest: boolean }
  /** The server does not answer; it is tried again by itself. */
  | { kind: 'offline' }
  /** It was tried in vain and waits for somebody to try again, or to mend it. */
  | { kind: 'failed'; message: string }
  | { kind: 'conflict'; revision: number; conflicts: MergeConflict[] };

export interface KeepView<T> {
  value: T;
  /** The part of it that may be kept: what is refused stands as before; null where nothing of it can be. */
  keepable: T | null;
  state: KeepState;
  /** The newest revision that this page knows of. */
  revision: number;
  /** Whether what is not on the server is in this browser's database: not yet, yes, or the store refuses it. */
  kept: 'pending' | 'yes' | 'refused';
  /** What undo and redo would do, null where there is nothing. */
  undo: UndoStep | null;
  redo: UndoStep | null;
}

export interface KeeperOptions<T> {
  server: Version<T> & { at: Date | null };
  /** What this browser kept of it. */
  draft: Draft<T> | null;
  /** Sends a value; the answer is what stands there afterwards. */
  send: (seen: number, value: T, writeId: string) => Promise<Version<T> & { at: Date | null }>;
  /** Keeps a draft in this browser's database; resolves once it is there. */
  keep: (draft: Draft<T>) => Promise<void>;
  /** What of a value the server would take, the refused as in `base`; null where nothing. The rest is held here until mended. */
  fit: (value: T, base: T) => T | null;
  describe: DescribeChange;
  /** Told of every version that the server has taken. */
  arrived?: (version: Version<T>) => void;
  saveAfterMs?: number;
  retryAfterMs?: number;
}

export type Keeper<T> = ReturnType<typeof createKeeper<T>>;

const SAVE_AFTER_MS = 500;
const RETRY_AFTER_MS = 1000;
const MAX_RETRY_MS = 30_000;
/** A server that answers with errors of its own is tried this often. */
const MAX_SERVER_ERRORS = 6;
const ONE_STEP_MS = 1200;
const MAX_MERGES = 20;

const same = sameValue as (a: unknown, b: unknown) => boolean;
const ELSEWHERE = { label: 'changed in another window', place: '' };

/**
 * Keeps one document while it is typed: in this browser's database at once, on the server shortly after, one version at a time,
 * never over what somebody else wrote. What another window changed elsewhere in it is merged in; what both changed is asked
 * figure by figure. While the server is away it is tried again, less and less often. Undo survives a reload.
 */
export function createKeeper<T>(options: KeeperOptions<T>) {
  const { server, draft, send, keep, fit, describe, arrived } = options;
  const saveAfterMs = options.saveAfterMs ?? SAVE_AFTER_MS;
  const retryAfterMs = options.retryAfterMs ?? RETRY_AFTER_MS;

  let base: Version<T> = { revision: server.revision, value: server.value };
  let savedAt = server.at;
  let value = server.value;
  let dirty = false;
  let steps: UndoSteps = NO_STEPS;
  let joined: { touched: string; at: number } | null = null;
  let theirs: Version<T> | null = null;
  let chosen = new Map<string, Side>();
  let busy: Promise<void> | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let tries = 0;
  let serverErrors = 0;
  let merges = 0;
  let keeping = 0;
  /** A write of which nobody knows whether it arrived: it is sent again under its name before anything newer. */
  let underWay: Sent<T> | null = null;
  const told = new Set<() => void>();
  let view: KeepView<T>;

  const show = (state: KeepState = view.state, kept: KeepView<T>['kept'] = view.kept) => {
    view = {
      value,
      keepable: dirty ? fitting() : value,
      state,
      revision: base.revision,
      kept,
      undo: steps.past.at(-1) ?? null,
      redo: steps.future[0] ?? null,
    };
    for (const tell of told) tell();
  };
  const saved = (): KeepState => ({ kind: 'saved', at: savedAt, revision: base.revision });
  let fitted: { value: T; base: T; is: T | null } | null = null;
  /** What of it the server would take. */
  const fitting = (): T | null => {
    if (fitted?.value !== value || fitted.base !== base.value) {
      fitted = { value, base: base.value, is: fit(value, base.value) };
    }
    return fitted.is;
  };
  /** Whether any of it is still to be sent. */
  const sendable = (): boolean => {
    if (!dirty) return false;
    if (underWay) return true;
    const now = fitting();
    return now !== null && !same(now, base.value);
  };
  /** Where it is while nothing is wrong. */
  const standing = (): KeepState => {
    if (!dirty) return saved();
    return sendable() ? { kind: 'saving' } : { kind: 'held', rest: fitting() !== null };
  };
  const later = (ms: number) => {
    clearTimeout(timer);
    timer = setTimeout(() => void save(), ms);
  };

  /** Puts what stands here into the browser's database; only when it is there the page says so. */
  const store = () => {
    const number = ++keeping;
    if (dirty && view.kept === 'yes') show(view.state, 'pending');
    keep({
      base,
      value,
      dirty,
      sent: underWay,
      past: steps.past.slice(-KEPT_STEPS),
      future: steps.future.slice(0, KEPT_STEPS),
    }).then(
      () => number === keeping && view.kept !== 'yes' && show(view.state, 'yes'),
      () => number === keeping && show(view.state, 'refused'),
    );
  };

  /**
   * What another window wrote is joined to what stands here.
   *
   * @param from what both started from
   * @returns false where figures are left to be asked about
   */
  const join = (from: T, now: Version<T>): boolean => {
    const merged = mergeDocuments(from, value, now.value, chosen);
    if (merged.conflicts.length) {
      theirs = now;
      show({ kind: 'conflict', revision: now.revision, conflicts: merged.conflicts });
      return false;
    }
    theirs = null;
    chosen = new Map();
    if (!same(merged.value, value)) steps = addStep(steps, value, merged.value, ELSEWHERE);
    value = merged.value;
    base = now;
    dirty = !same(value, now.value);
    joined = null;
    store();
    return true;
  };

  const attempt = async (): Promise<void> => {
    const going = underWay ?? {
      seen: base.revision,
      value: fitting() as T,
      id: writeName(base.revision, fitting()),
    };
    underWay = going;
    dirty = false;
    show({ kind: 'saving' });
    try {
      const now = await send(going.seen, going.value, going.id);
      underWay = null;
      tries = 0;
      serverErrors = 0;
      merges = 0;
      savedAt = now.at ?? new Date();
      arrived?.(now);
      const moved = !same(value, going.value);
      if (moved && same(now.value, going.value)) {
        // typed on meanwhile
        base = now;
        dirty = !same(value, now.value);
        store();
      } else {
        // what was sent stands there, whatever came after it
        base = { revision: going.seen + 1, value: going.value };
        if (!join(base.value, now)) {
          dirty = true;
          return;
        }
      }
      show(standing());
    } catch (cause) {
      dirty = true;
      failed(cause);
    }
  };

  const failed = (cause: unknown) => {
    // a fault of this program is shown, not tried again
    if (!(cause instanceof HttpProblem)) {
      underWay = null;
      show({ kind: 'failed', message: `this program failed: ${(cause as Error).message}` });
      return;
    }
    const away = cause.status === 0;
    // refused: it was not taken
    if (!away && cause.status < 500) underWay = null;
    if (cause.status === 412) {
      const now = cause.body['theirs'] as Version<T> | undefined;
      if (!now || ++merges > MAX_MERGES) show({ kind: 'failed', message: cause.message });
      else if (join(base.value, now)) {
        if (dirty) later(0);
        else show(saved());
      }
      return;
    }
    if (away || (cause.status >= 500 && ++serverErrors < MAX_SERVER_ERRORS)) {
      show({ kind: 'offline' });
      later(Math.min(MAX_RETRY_MS, retryAfterMs * 2 ** tries++));
    } else {
      // what is typed to mend it must not wait for it
      underWay = null;
      show({ kind: 'failed', message: cause.message });
    }
  };

  const waiting = () => view.state.kind === 'conflict' || view.state.kind === 'failed';

  /** Sends what stands there now, and what is typed meanwhile after it. */
  async function save(): Promise<void> {
    clearTimeout(timer);
    if (busy) return busy;
    if (waiting() || !sendable()) return;
    busy = (async () => {
      do await attempt();
      while (view.state.kind === 'saving' && sendable());
    })().finally(() => {
      busy = null;
      if (!waiting() && !sendable()) show(standing());
    });
    return busy;
  }

  const put = (next: T) => {
    value = next;
    dirty = !same(value, base.value) || busy !== null || underWay !== null;
    store();
    if (view.state.kind === 'conflict') {
      const merged = mergeDocuments(base.value, value, theirs!.value, chosen);
      show({ kind: 'conflict', revision: theirs!.revision, conflicts: merged.conflicts });
      return;
    }
    if (!dirty) {
      clearTimeout(timer);
      show(saved());
    } else if (busy === null && !sendable()) {
      clearTimeout(timer);
      show(standing());
    } else if (view.state.kind === 'offline') {
      // the next try is under way
      show();
    } else {
      show({ kind: 'saving' });
      later(saveAfterMs);
    }
  };

  const start = () => {
    view = {
      value,
      keepable: value,
      state: saved(),
      revision: base.revision,
      kept: 'yes',
      undo: null,
      redo: null,
    };
    if (!draft) return;
    steps = { past: draft.past, future: draft.future };
    value = draft.value;
    if (!draft.dirty) {
      // nothing waits here: what others wrote since is one step more
      if (!same(value, server.value)) steps = addStep(steps, value, server.value, ELSEWHERE);
      value = server.value;
      show(saved());
      return;
    }
    const now = base;
    base = draft.base;
    dirty = true;
    underWay = draft.sent ?? null;
    if (underWay) {
      // whether it arrived is asked first: what stands there may be this page's own
      show(standing());
    } else if (now.revision < base.revision) {
      // an older answer than what this browser knows, kept from when the server was there
      show(standing());
    } else if (join(draft.base.value, now)) {
      show(standing());
    }
  };
  start();
  view = view!;

  return {
    view: () => view,

    subscribe(tell: () => void) {
      told.add(tell);
      return () => void told.delete(tell);
    },

    /**
     * Changes the value.
     *
     * @param touched names the field; changes to one field in quick succession are one step back
     */
    change(make: (value: T) => T, touched: string | null = null) {
      const next = make(value);
      if (next === value) return;
      const at = Date.now();
      const joins = touched !== null && joined?.touched === touched && at - joined.at < ONE_STEP_MS;
      steps = joins
        ? widenStep(steps, value, next, describe)
        : addStep(steps, value, next, describe(value, next));
      joined = touched === null ? null : { touched, at };
      put(next);
    },

    /** Takes the last change back; says which it was. */
    undo(): UndoStep | null {
      const back = stepBack(value, steps);
      if (!back) return null;
      steps = back.steps;
      joined = null;
      put(back.value);
      return back.step;
    },

    redo(): UndoStep | null {
      const on = stepForward(value, steps);
      if (!on) return null;
      steps = on.steps;
      joined = null;
      put(on.value);
      return on.step;
    },

    /** In a conflict: one figure as it stands here or as the other window has it; all of them where none is named. */
    choose(side: Side, path?: string) {
      if (view.state.kind !== 'conflict' || !theirs) return;
      for (const c of view.state.conflicts) {
        if (path === undefined || c.path === path) chosen.set(c.path, side);
      }
      if (!join(base.value, theirs)) return;
      show(standing());
      void save();
    },

    /** After something failed, or before its time. */
    retry() {
      if (view.state.kind === 'failed') {
        serverErrors = 0;
        tries = 0;
        merges = 0;
        show(standing());
      }
      void save();
    },

    /** What the server has now, read beside this page's own writes: put aside, renamed. */
    moved(now: Version<T>) {
      if (now.revision <= base.revision) return;
      if (busy || dirty) return;
      if (join(base.value, now)) show(standing());
    },

    /** Sends at once; false where it could not be. */
    async flush(): Promise<boolean> {
      if (busy) await busy;
      await save();
      return !dirty;
    },

    /** Whether anything stands here that the server does not have. */
    isDirty: () => dirty || busy !== null,
  };
}
