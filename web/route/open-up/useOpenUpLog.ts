import { useCallback, useEffect, useRef, useState } from 'react';
import { readOpenUpLog } from '@zugluft/core/service/openUpLog';
import { saveLog, type KeptLog, type OpenUpLog } from '../../api/openUp';
import type { HttpProblem } from '../../api/http';

const SAVE_AFTER_MS = 500;
const RETRY_AFTER_MS = 3000;
const MOST_UNDO = 200;
const key = (machineId: string) => `zugluft.log.${machineId}`;

export type LogSaving =
  | { kind: 'saved' | 'saving' | 'away' }
  | { kind: 'refused'; message: string }
  | { kind: 'conflict'; current: KeptLog };

/** What this browser kept of a log that the server does not have yet. */
export function readKeptLog(machineId: string): KeptLog | null {
  try {
    const kept = JSON.parse(localStorage.getItem(key(machineId)) ?? 'null') as KeptLog | null;
    const log = readOpenUpLog(kept?.log);
    return kept && log && { revision: kept.revision, log };
  } catch {
    return null;
  }
}

function keep(machineId: string, kept: KeptLog | null): void {
  try {
    if (kept) localStorage.setItem(key(machineId), JSON.stringify(kept));
    else localStorage.removeItem(key(machineId));
  } catch {
    // storage is switched off: the page itself still holds the log
  }
}

/**
 * The log of an opening while it is written: kept in this browser at once, sent shortly after, never over somebody else's; with
 * undo and redo.
 */
export function useOpenUpLog(machineId: string, fromServer: KeptLog) {
  const [kept] = useState(() => readKeptLog(machineId));
  const [log, setLog] = useState(kept?.log ?? fromServer.log);
  const [saving, setSaving] = useState<LogSaving>({ kind: 'saved' });
  const [steps, setSteps] = useState<{ past: OpenUpLog[]; future: OpenUpLog[] }>({
    past: [],
    future: [],
  });
  const work = useRef({
    log,
    revision: kept?.revision ?? fromServer.revision,
    dirty: kept !== null,
    busy: false,
    stopped: false,
  });
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  const save = useCallback(async (): Promise<void> => {
    clearTimeout(timer.current);
    const now = work.current;
    if (!now.dirty || now.busy || now.stopped) return;
    now.dirty = false;
    now.busy = true;
    setSaving({ kind: 'saving' });
    try {
      const saved = await saveLog(machineId, now.revision, now.log);
      now.revision = saved.revision;
      if (now.dirty) keep(machineId, { revision: now.revision, log: now.log });
      else keep(machineId, null);
      setSaving({ kind: 'saved' });
    } catch (cause) {
      const { status, message, body } = cause as HttpProblem;
      now.dirty = true;
      if (status === 412) {
        now.stopped = true;
        setSaving({ kind: 'conflict', current: body['current'] as KeptLog });
      } else if (status === 0 || status >= 500) {
        setSaving({ kind: 'away' });
        timer.current = setTimeout(() => void save(), RETRY_AFTER_MS);
      } else setSaving({ kind: 'refused', message });
      return;
    } finally {
      now.busy = false;
    }
    if (now.dirty) await save();
  }, [machineId]);

  const put = (next: OpenUpLog) => {
    const now = work.current;
    now.log = next;
    now.dirty = true;
    setLog(next);
    setSaving((s) => (s.kind === 'saved' ? { kind: 'saving' } : s));
    keep(machineId, { revision: now.revision, log: next });
    clearTimeout(timer.current);
    timer.current = setTimeout(() => void save(), SAVE_AFTER_MS);
  };
  // what a crash or a closed page left here is sent, and what was written last when the step is left
  useEffect(() => {
    void save();
    return () => {
      void save();
    };
  }, [save]);

  return {
    log,
    saving,
    canUndo: steps.past.length > 0,
    change(make: (log: OpenUpLog) => OpenUpLog) {
      const before = work.current.log;
      setSteps(({ past }) => ({ past: [...past, before].slice(-MOST_UNDO), future: [] }));
      put(make(before));
    },
    undo() {
      const before = steps.past.at(-1);
      if (!before) return;
      setSteps({ past: steps.past.slice(0, -1), future: [work.current.log, ...steps.future] });
      put(before);
    },
    redo() {
      const [after, ...future] = steps.future;
      if (!after) return;
      setSteps({ past: [...steps.past, work.current.log], future });
      put(after);
    },
    choose(mine: boolean) {
      if (saving.kind !== 'conflict') return;
      const now = work.current;
      now.revision = saving.current.revision;
      now.stopped = false;
      if (mine) {
        void save();
        return;
      }
      now.dirty = false;
      now.log = saving.current.log;
      setLog(now.log);
      setSteps({ past: [], future: [] });
      keep(machineId, null);
      setSaving({ kind: 'saved' });
    },
  };
}
