import { useQueries, useQuery } from '@tanstack/react-query';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { readDocument } from '../../api/documents';
import { listMachines, machineKeys, readMachine, type MachineSummary } from '../../api/machines';
import { listRuns, runKeys } from '../../api/runs';
import type { Draft } from '../../documents/record/draft';
import { nextStep, type NextStep } from '../../documents/route/nextStep';
import { careOf } from './careOf';

/** Machines that are shown as in work. */
const IN_WORK = 10;
const AGAIN_MS = 2000;
const LATEST = `sort=-updatedAt&pageSize=${IN_WORK}`;

/** A machine that was worked on of late. */
export interface InWork {
  summary: MachineSummary;
  /** Null until its file is read. */
  next: NextStep | null;
  care: string[];
}

/** The machines that were changed last, each with what is to be done next. */
export function useInWork() {
  const { data, error, isPending } = useQuery({
    queryKey: machineKeys.list(LATEST),
    queryFn: ({ signal }) => listMachines(LATEST, signal),
    // watts of what was just changed come after it
    refetchInterval: ({ state }) => (state.data?.pending ? AGAIN_MS : false),
  });
  const items = data?.items ?? [];
  const machines = useQueries({
    queries: items.map((m) => ({
      // the page of a machine keeps another shape under its own
      queryKey: [...machineKeys.one(m.id), 'in work'],
      queryFn: () => readMachine(m.id),
    })),
  });
  const logs = useQueries({
    queries: items.map((m) => ({
      queryKey: ['route', 'log', m.id],
      queryFn: async () => (await readDocument('log', m.id)).value,
    })),
  });
  const runs = useQueries({
    queries: items.map((m) => ({
      queryKey: runKeys.of(m.id),
      queryFn: ({ signal }: { signal: AbortSignal }) => listRuns(m.id, signal),
    })),
  });
  const inWork = items.map((summary, i): InWork => {
    const record = machines[i]?.data?.record;
    const log = logs[i]?.data;
    const own = runs[i]?.data;
    if (!record || !log || !own) return { summary, next: null, care: [] };
    const hasLog = log.steps.length > 0 || log.screws.length > 0;
    return {
      summary,
      next: nextStep(record as Draft, parseRecord(record).issues, { hasLog, runs: own.length }),
      care: careOf(record as CaseRecord),
    };
  });
  return { inWork, caps: data?.caps ?? [], total: data?.total ?? 0, error, isPending };
}
