import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { readDocument } from '../../api/documents';
import { listRuns, runKeys, type KeptRun } from '../../api/runs';
import { onArrived } from '../../documents/keepers';
import { useMachineFile } from '../../documents/record/MachineFile';
import { progressOf, type Progress } from './progress';
import type { StepPath } from './steps';

/** Begun with the first run, done once one has a log that may teach the estimate something. */
function runsState(runs: readonly KeptRun[]): Progress['state'] {
  if (runs.length === 0) return 'blank';
  return runs.some((r) => r.run.logs?.length && r.run.use !== 'leave-out') ? 'done' : 'begun';
}

/** How far each step of the open machine's route is. */
export function useProgress(): Record<StepPath, Progress> {
  const { draft, issues, machine, made, live, complete } = useMachineFile();
  const client = useQueryClient();
  const { data: log } = useQuery({
    queryKey: ['route', 'log', machine.id],
    queryFn: async () => (await readDocument('log', machine.id)).value,
    enabled: made,
    // what was read last says enough while the server is away
    retry: false,
  });
  const { data: runs } = useQuery({
    queryKey: runKeys.of(machine.id),
    queryFn: ({ signal }) => listRuns(machine.id, signal),
    enabled: made,
    retry: false,
  });
  useEffect(
    () =>
      onArrived((kind, id, { value }) => {
        if (kind === 'log') client.setQueryData(['route', 'log', id], value);
      }),
    [client],
  );
  const opened = log && (log.steps.length > 0 || log.screws.length > 0);
  const closed = opened && log.steps.every((s) => s.state === 'done' || s.state === 'skipped');
  return {
    identify: progressOf('identify', draft, issues),
    outside: progressOf('outside', draft, issues),
    cooling: progressOf('cooling', draft, issues),
    'open-up': { state: closed ? 'done' : opened ? 'begun' : 'blank', recorded: null },
    estimate: {
      state: !live.estimate ? 'blank' : complete ? 'done' : 'begun',
      recorded: null,
    },
    runs: { state: runsState(runs ?? []), recorded: null },
  };
}
