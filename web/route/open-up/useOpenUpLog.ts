import { diffRecords } from '@zugluft/core/family/diffRecords';
import { readOpenUpLog } from '@zugluft/core/service/openUpLog';
import { saveLog, type KeptLog, type OpenUpLog } from '../../api/openUp';
import type { Kept, KeepState } from '../../keep/keeper';
import { readPending, sentFrom, storedPending } from '../../keep/storedPending';
import { useKeeper } from '../../keep/useKeeper';

export type LogSaving = KeepState<OpenUpLog, number>;

const nameOf = (machineId: string) => `zugluft.log.${machineId}`;

const same = (a: OpenUpLog, b: OpenUpLog) => diffRecords(a, b).length === 0;

/** What stands in the storage, also where an earlier version of this program wrote it. */
function readKept(kept: unknown): Kept<OpenUpLog, number> | null {
  const { value, base, log, revision } = (kept ?? {}) as Record<string, unknown>;
  const read = readOpenUpLog(value ?? log);
  const at = base ?? revision;
  return read && typeof at === 'number' ? { value: read, base: at } : null;
}

/** What this browser kept of a log that the server does not have yet. */
export function readKeptLog(machineId: string): KeptLog | null {
  const kept = readPending(nameOf(machineId), readKept);
  return kept && { revision: kept.base, log: kept.value };
}

/** The log of an opening while it is written. */
export function useOpenUpLog(machineId: string, fromServer: KeptLog) {
  return useKeeper<OpenUpLog, number>(() => ({
    server: { value: fromServer.log, base: fromServer.revision },
    ...storedPending(nameOf(machineId), readKept, same),
    sent: sentFrom(nameOf(machineId)),
    send: async (base, log) => (await saveLog(machineId, base, log)).revision,
    theirs: ({ body }) => {
      const { log, revision } = body['current'] as KeptLog;
      return { value: log, base: revision };
    },
  }));
}
