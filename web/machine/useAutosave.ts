import { useCallback, useEffect, useRef, useState } from 'react';
import type { HttpProblem } from '../api/http';
import { saveMachine, type Machine } from '../api/machines';
import type { Draft } from './draft';
import { dropDraft, keepDraft, readDraft } from './storedDraft';

export type SaveState =
  | { kind: 'saved'; at: Date; revision: number }
  | { kind: 'saving' }
  | { kind: 'held' }
  | { kind: 'away' }
  | { kind: 'failed'; message: string }
  | { kind: 'conflict'; current: Machine };

const SAVE_AFTER_MS = 500;
const RETRY_AFTER_MS = 3000;

const leaving = new Map<string, Promise<unknown>>();

/** Resolves when what a left page still had to send has been answered. */
export async function lastSave(machineId: string): Promise<void> {
  await leaving.get(machineId)?.catch(() => undefined);
}

/**
 * Saves a draft by itself: kept in this browser at once, sent to the server shortly after the last change and when the page is
 * left. A draft with refused figures stays here until they are mended; while the server is away it is tried again.
 *
 * @param machine the machine as the server last had it
 * @param draft what stands on the page
 * @param keepable whether the server would take it
 * @param startConflict a newer version on the server than the one this draft was made from
 * @param onSaved called after each save, also after the page was left
 */
export function useAutosave(
  machine: Machine,
  draft: Draft,
  keepable: boolean,
  startConflict: boolean,
  onSaved: () => void,
): { state: SaveState; overwrite: () => void; settled: (to: Machine) => void } {
  const [state, setState] = useState<SaveState>(() =>
    startConflict
      ? { kind: 'conflict', current: machine }
      : { kind: 'saved', at: new Date(machine.updatedAt), revision: machine.revision },
  );
  const [tick, setTick] = useState(0);
  const saved = useRef<{ draft: unknown; revision: number }>({
    draft: machine.record,
    revision: machine.revision,
  });
  const busy = useRef<Promise<void> | null>(null);
  const inConflict = state.kind === 'conflict';
  const latest = useRef({ draft, keepable, inConflict, onSaved });
  useEffect(() => {
    latest.current = { draft, keepable, inConflict, onSaved };
  });

  /** Sends what stands there now; one at a time. */
  const send = useCallback(async () => {
    const sent = latest.current.draft;
    setState({ kind: 'saving' });
    try {
      const now = await saveMachine(machine.id, saved.current.revision, sent);
      saved.current = { draft: sent, revision: now.revision };
      const kept = readDraft(machine.id);
      if (latest.current.draft === sent) dropDraft(machine.id);
      else if (kept) keepDraft(machine.id, { ...kept, baseRevision: now.revision });
      setState({ kind: 'saved', at: new Date(now.updatedAt), revision: now.revision });
      latest.current.onSaved();
    } catch (cause) {
      const problem = cause as HttpProblem;
      if (problem.status === 412) {
        setState({ kind: 'conflict', current: problem.body['current'] as Machine });
      } else if (problem.status === 0) {
        setState({ kind: 'away' });
        setTimeout(() => setTick((t) => t + 1), RETRY_AFTER_MS);
      } else {
        setState({ kind: 'failed', message: problem.message });
      }
      throw cause;
    }
  }, [machine.id]);

  useEffect(() => {
    if (draft === saved.current.draft) {
      dropDraft(machine.id);
      // stepped back to what is saved: nothing is held any more
      setState((s) =>
        s.kind === 'held' ? { kind: 'saved', at: new Date(), revision: saved.current.revision } : s,
      );
      return;
    }
    keepDraft(machine.id, {
      baseRevision: saved.current.revision,
      record: draft,
      keptAt: new Date().toISOString(),
    });
    if (inConflict) return;
    if (!keepable) {
      setState({ kind: 'held' });
      return;
    }
    if (busy.current) return;
    const timer = setTimeout(() => {
      const sent = latest.current.draft;
      const job = send()
        .catch(() => undefined)
        .finally(() => {
          busy.current = null;
          if (latest.current.draft !== sent) setTick((t) => t + 1);
        });
      busy.current = job;
    }, SAVE_AFTER_MS);
    return () => clearTimeout(timer);
  }, [draft, keepable, machine.id, tick, inConflict, send]);

  // the page is left before the pause was over: send at once, after whatever is under way
  useEffect(
    () => () => {
      const job = (busy.current ?? Promise.resolve()).then(async () => {
        const now = latest.current;
        if (now.draft === saved.current.draft || !now.keepable || now.inConflict) return;
        await send();
      });
      leaving.set(
        machine.id,
        job.catch(() => undefined),
      );
    },
    [machine.id, send],
  );

  /** Keeps this draft over the newer version. */
  const overwrite = useCallback(() => {
    setState((s) => {
      if (s.kind === 'conflict') saved.current = { draft: null, revision: s.current.revision };
      return { kind: 'saving' };
    });
  }, []);

  /** Takes the newer version: the page shows it from now on. */
  const settled = useCallback((to: Machine) => {
    saved.current = { draft: to.record, revision: to.revision };
    dropDraft(to.id);
    setState({ kind: 'saved', at: new Date(to.updatedAt), revision: to.revision });
  }, []);

  return { state, overwrite, settled };
}
