import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { nextPlanStep } from '@zugluft/core/levers/planSteps';
import type { LeverPlan } from '@zugluft/core/levers/plansDocument';
import { readDocument } from '../../api/documents';
import { listRuns, runKeys, type KeptRun } from '../../api/runs';
import { onArrived } from '../../documents/keepers';
import { useMachineFile } from '../../documents/record/MachineFile';
import { progressOf, type Progress } from '../../documents/route/progress';
import type { StepPath } from '../../documents/route/steps';

/** Begun with the first run, done once one has a log that may teach the estimate something. */
function runsState(runs: readonly KeptRun[]): Progress['state'] {
  if (runs.length === 0) return 'blank';
  return runs.some((r) => r.run.logs?.length && r.run.use !== 'leave-out') ? 'done' : 'begun';
}

/** Begun with the first plan, done once one has all its steps. */
function leversState(plans: readonly LeverPlan[]): Progress['state'] {
  if (plans.length === 0) return 'blank';
  return plans.some((p) => nextPlanStep(p) === null) ? 'done' : 'begun';
}

/** How far each step of the open machine's route is. */
export function useProgress(): Record<StepPath, Progress> {
  const { draft, issues, machine, made, live, complete, calibration } = useMachineFile();
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
  const { data: plans } = useQuery({
    queryKey: ['route', 'plans', machine.id],
    queryFn: async () => (await readDocument('plans', machine.id)).value,
    enabled: made,
    retry: false,
  });
  useEffect(
    () =>
      onArrived((kind, id, { value }) => {
        if (kind === 'log' || kind === 'plans') client.setQueryData(['route', kind, id], value);
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
    levers: { state: leversState(plans?.plans ?? []), recorded: null },
    // it follows from the others
    verdict: { state: !live.estimate ? 'blank' : calibration ? 'done' : 'begun', recorded: null },
  };
}
