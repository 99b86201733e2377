import { useCallback, useEffect, useRef, useState } from 'react';
import { HttpProblem } from '../api/http';
import { saveMachine, type Machine } from '../api/machines';
import type { Draft } from './draft';
import { dropDraft, keepDraft } from './storedDraft';

export type SaveState =
  | { kind: 'saved'; at: Date; revision: number }
  | { kind: 'saving' }
  | { kind: 'held' }
  | { kind: 'away' }
  | { kind: 'failed'; message: string }
  | { kind: 'conflict'; current: Machine };

const SAVE_AFTER_MS = 500;
const RETRY_AFTER_MS = 3000;

/**
 * Saves a draft by itself: kept in this browser at once, sent to the server shortly after the last change. A draft with
 * refused figures stays here until they are mended; while the server is away it is tried again.
 *
 * @param machine the machine as the server last had it
 * @param draft what stands on the page
 * @param keepable whether the server would take it
 * @param startConflict a newer version on the server than the one this draft was made from
 */
export function useAutosave(
  machine: Machine,
  draft: Draft,
  keepable: boolean,
  startConflict: boolean,
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
  const busy = useRef(false);
  const latest = useRef(draft);
  latest.current = draft;
  const inConflict = state.kind === 'conflict';

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
    const timer = setTimeout(async () => {
      const sent = latest.current;
      busy.current = true;
      setState({ kind: 'saving' });
      try {
        const now = await saveMachine(machine.id, saved.current.revision, sent);
        saved.current = { draft: sent, revision: now.revision };
        if (latest.current === sent) dropDraft(machine.id);
        setState({ kind: 'saved', at: new Date(now.updatedAt), revision: now.revision });
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
      } finally {
        busy.current = false;
        if (latest.current !== sent) setTick((t) => t + 1);
      }
    }, SAVE_AFTER_MS);
    return () => clearTimeout(timer);
  }, [draft, keepable, machine.id, tick, inConflict]);

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
