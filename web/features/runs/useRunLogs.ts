import { useState } from 'react';
import { sendLog, takeFromInbox, type RunDocument, type TakenLog } from '../../api/runs';
import type { Keeper } from '../../documents/keeper';

/** Brings logs into a run: files that were chosen, dropped or pasted, and files of the inbox. */
export function useRunLogs(machineId: string, id: string, keeper: Keeper<RunDocument> | null) {
  const [sending, setSending] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);

  const add = (taken: TakenLog) =>
    keeper?.change((now) => {
      const there = (now.logs ?? []).filter((l) => l.sha256 !== taken.sha256);
      const log = {
        id: freeId(there.map((l) => l.id)),
        file: taken.file,
        kind: taken.kind,
        sha256: taken.sha256,
        channels: taken.channels.filter((c) => !c.is.startsWith('other.')),
      };
      return {
        ...now,
        startedAt: now.startedAt ?? new Date().toISOString(),
        follows: (now.follows ?? []).filter((f) => f !== taken.file),
        logs: [...there, log],
      };
    }, `log ${taken.file}`);

  const bring = async (name: string, task: () => Promise<TakenLog>) => {
    setSending(name);
    setProblem(null);
    try {
      add(await task());
    } catch (cause) {
      setProblem((cause as Error).message);
    }
  };

  return {
    sending,
    problem,
    async take(files: readonly File[]) {
      for (const file of files) await bring(file.name, () => sendLog(machineId, id, file));
      setSending(null);
      await keeper?.flush();
    },
    async takeFollowed(name: string) {
      await bring(name, () => takeFromInbox(machineId, id, name));
      setSending(null);
      await keeper?.flush();
    },
  };
}

function freeId(taken: readonly string[]): string {
  for (let n = taken.length + 1; ; n++) if (!taken.includes(`log-${n}`)) return `log-${n}`;
}
