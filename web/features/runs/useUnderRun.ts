import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { IDLE_W } from '@zugluft/core/runs/idleWatts';
import { readAnalysis, readSeries, runKeys } from '../../api/runs';
import type { KeptRun, RunAnalysis, RunDocument } from '../../api/runs';
import type { UnderRun } from '../../documents/answer/runLines';
import { estimateWorker } from '../../documents/answer/workers/estimateClient';
import { useMachineFile } from '../../documents/record/MachineFile';
import { runName } from '../../documents/runName';
import { loadStartS } from './runWords';

/** Stretches in which least and greatest are drawn. */
export const PIXELS = 700;
const STEP_S = 1;

/** What lies dotted under a run: another run, and the simulation of the same load, both aligned where the load begins. */
export function useUnderRun({
  machineId,
  run,
  others,
  analysis,
  load,
}: {
  machineId: string;
  run: RunDocument;
  others: readonly KeptRun[];
  analysis: RunAnalysis | null;
  load: { fromS: number; toS: number };
}) {
  const { live } = useMachineFile();
  const [at, setAt] = useState<number | null>(null);
  const [simulated, setSimulated] = useState(false);
  const other = at === null ? null : (others[at] ?? null);
  const beside = useQuery({
    queryKey: ['runs', 'under', other?.id ?? '', other?.revision ?? 0],
    queryFn: async ({ signal }) => {
      const own = await readAnalysis(machineId, other!.id, signal);
      const series = await readSeries(
        machineId,
        other!.id,
        { fromS: null, toS: null, pixels: PIXELS },
        signal,
      );
      return { series, loadFromS: loadStartS(own) };
    },
    enabled: other !== null,
    retry: false,
  });
  const { request } = live;
  const on = run.load?.on ?? 'both';
  const cap = analysis?.against?.cap ?? 'full';
  const durationS = Math.max(60, Math.round(load.toS - load.fromS));
  const simulation = useQuery({
    queryKey: [
      ...runKeys.of(machineId),
      'simulated',
      run.id,
      request,
      run.setting,
      on,
      cap,
      durationS,
    ],
    queryFn: () => {
      const setting = request!.record.settings?.some((s) => s.id === run.setting)
        ? run.setting
        : request!.setting;
      return estimateWorker().simulatedRun(
        { ...request!, setting },
        {
          cap,
          stepS: STEP_S,
          durationS,
          ...(on === 'cpu' || on === 'none' ? { gpuLoadW: IDLE_W.gpu } : {}),
          ...(on === 'gpu' || on === 'none' ? { cpuLoadW: IDLE_W.cpu } : {}),
        },
        PIXELS,
      );
    },
    enabled: simulated && request !== null && analysis !== null,
    retry: false,
    gcTime: 0,
  });
  const besideData = other ? beside.data : undefined;
  const name = other ? runName(other.run) : '';
  const simulatedSeries = simulated ? simulation.data : undefined;
  const { fromS } = load;
  const lines = useMemo(
    (): UnderRun[] => [
      ...(besideData
        ? [{ name, series: besideData.series, shiftS: fromS - besideData.loadFromS }]
        : []),
      ...(simulatedSeries ? [{ name: 'simulated', series: simulatedSeries, shiftS: fromS }] : []),
    ],
    [besideData, name, simulatedSeries, fromS],
  );
  return {
    lines,
    otherName: other ? runName(other.run) : null,
    nextOther: () =>
      setAt((now) => {
        const next = now === null ? 0 : now + 1;
        return next < others.length ? next : null;
      }),
    simulated,
    toggleSimulation: () => setSimulated((x) => !x),
    problem: beside.error?.message ?? simulation.error?.message ?? null,
  };
}
