import { useRef, useState } from 'react';
import {
  sendLayout,
  sendLog,
  takeFromInbox,
  type LogLayout,
  type RunDocument,
  type TakenLog,
} from '../../api/runs';
import { HttpProblem } from '../../api/http';
import type { Keeper } from '../../documents/keeper';
import type { AskedLog } from './LogLayoutPanel';

/** A log that is on its way. */
export interface Sending {
  name: string;
  /** Of its bytes; null where that is not known. */
  share: number | null;
}

/** Brings logs into a run: files that were chosen, dropped or pasted, and files of the inbox. */
export function useRunLogs(machineId: string, id: string, keeper: Keeper<RunDocument> | null) {
  const [sending, setSending] = useState<Sending | null>(null);
  const given = useRef<AbortController | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [asked, setAsked] = useState<AskedLog[]>([]);

  const add = (taken: TakenLog) =>
    keeper?.change((now) => {
      const before = (now.logs ?? []).find((l) => l.sha256 === taken.sha256);
      const there = (now.logs ?? []).filter((l) => l !== before);
      const log = {
        ...before,
        id: before?.id ?? freeId(there.map((l) => l.id)),
        file: taken.file,
        kind: taken.kind,
        sha256: taken.sha256,
        ...(taken.layout ? { layout: taken.layout } : {}),
        channels: taken.channels.filter((c) => !c.is.startsWith('other.')),
      };
      return {
        ...now,
        startedAt: now.startedAt ?? new Date().toISOString(),
        follows: (now.follows ?? []).filter((f) => f !== taken.file),
        logs: before ? (now.logs ?? []).map((l) => (l === before ? log : l)) : [...there, log],
      };
    }, `log ${taken.file}`);

  const ask = (next: AskedLog) =>
    setAsked((now) => [...now.filter((a) => a.sha256 !== next.sha256), next]);

  const bring = async (
    name: string,
    task: (told: (share: number) => void, signal: AbortSignal) => Promise<TakenLog>,
  ) => {
    setSending({ name, share: null });
    setProblem(null);
    const { signal } = (given.current = new AbortController());
    try {
      const taken = await task((share) => setSending({ name, share }), signal);
      add(taken);
      // a header that nobody has looked at yet
      if (taken.kind === 'csv' && taken.layout === null) {
        ask({ file: taken.file, sha256: taken.sha256, taken, message: null, columns: [] });
      }
    } catch (cause) {
      // what was given up leaves nothing behind
      if ((cause as Error).name === 'AbortError') return;
      const { sha256, asks } = cause instanceof HttpProblem ? cause.body : {};
      const { message } = cause as Error;
      // what is there and only lacks a word can be read once somebody says it
      if (typeof sha256 === 'string' && Array.isArray(asks)) {
        ask({ file: name, sha256, taken: null, message, columns: asks as string[] });
      } else setProblem(message);
    }
  };

  return {
    sending,
    problem,
    /** Logs that wait for a word, the oldest first. */
    asked,
    async say({ sha256, file }: AskedLog, layout: LogLayout) {
      add(await sendLayout(machineId, id, { sha256, file, layout }));
      setAsked((now) => now.filter((a) => a.sha256 !== sha256));
      await keeper?.flush();
    },
    /** Gives up what is on its way. */
    giveUp: () => given.current?.abort(),
    leave: ({ sha256 }: AskedLog) => setAsked((now) => now.filter((a) => a.sha256 !== sha256)),
    async take(files: readonly File[]) {
      for (const file of files) {
        await bring(file.name, (told, signal) => sendLog(machineId, id, file, told, signal));
        if (given.current?.signal.aborted) break;
      }
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
