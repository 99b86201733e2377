import { useQueries } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { withCalibration } from '@zugluft/core/calibration/caseKey';
import type { Laboratory } from '@zugluft/core/case/laboratory';
import type { Comparison } from '@zugluft/core/compare/compareMachines';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { SHOWN_DRAWS, SHOWN_SEED } from '@zugluft/core/uncertainty/wattsBand';
import { calibrationKeys, readCalibrationInUse } from '../../api/calibrations';
import type { Machine } from '../../api/machines';
import { computeComparison } from '../../documents/answer/workers/compareClient';
import { keyedCalibration } from '../../documents/record/useCalibration';
import { nameInList } from './nameInList';

/** Draws of each machine where many stand side by side. */
const DRAWS_OF_MANY = 100;
const MANY = 20;

export interface ComparedState {
  comparison: Comparison | null;
  /** Ids of the machines of the comparison, in its order; machines without an answer are left out. */
  ids: readonly string[];
  /** Those whose runs have narrowed their watts. */
  calibrated: ReadonlySet<string>;
  progress: { done: number; of: number } | null;
  problem: string | null;
  cancelled: boolean;
}

/**
 * Machines held against each other on draws in which what they share is the same, computed beside the page.
 *
 * @param machines in the order of the address
 * @param lab defaults
 * @param caps at which
 */
export function useComparison(
  machines: readonly Machine[],
  lab: Laboratory,
  caps: readonly Cap[],
): ComparedState & { cancel: () => void; again: () => void } {
  const inUse = useQueries({
    queries: machines.map((m) => ({
      queryKey: calibrationKeys.inUse(m.id),
      queryFn: ({ signal }: { signal: AbortSignal }) => readCalibrationInUse(m.id, signal),
      staleTime: Infinity,
      retry: false,
    })),
  });
  const read = inUse.every((q) => !q.isPending);
  const key = machines.map((m) => `${m.id} ${m.revision}`).join();
  const cases = useMemo(
    () =>
      read
        ? machines.flatMap((m, i) => {
            const { record, complete } = parseRecord(m.record);
            if (!record || !complete) return [];
            const figures = inUse[i]!.data;
            const { request } = withCalibration(
              { record, lab },
              figures ? keyedCalibration(figures) : null,
            );
            return [{ id: m.id, name: nameInList(m), request }];
          })
        : null,
    // by the machines themselves: lists are made anew each time
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [key, lab, read],
  );
  const [state, setState] = useState<
    Omit<ComparedState, 'ids' | 'calibrated'> & { of: typeof cases }
  >({ comparison: null, progress: null, problem: null, cancelled: false, of: null });
  const [count, setCount] = useState(0);
  const [giveUp, setGiveUp] = useState<{ now: () => void } | null>(null);
  useEffect(() => {
    if (!cases || cases.length === 0) return;
    setState((s) => ({ ...s, progress: { done: 0, of: cases.length }, cancelled: false }));
    const job = {
      machines: cases.map(({ name, request }) => ({ name, request })),
      caps,
      draws: cases.length > MANY ? DRAWS_OF_MANY : SHOWN_DRAWS,
      seed: SHOWN_SEED,
    };
    const end = computeComparison(job, (message) =>
      setState((s) => {
        if (message.kind === 'progress') {
          return { ...s, progress: { done: message.done, of: message.of } };
        }
        if (message.kind === 'failed') return { ...s, progress: null, problem: message.message };
        const { comparison } = message;
        return { ...s, comparison, of: cases, progress: null, problem: null };
      }),
    );
    setGiveUp({ now: end });
    return end;
  }, [cases, caps, count]);
  const current = state.of === cases ? state.comparison : null;
  return {
    ...state,
    comparison: current,
    ids: cases?.map((c) => c.id) ?? [],
    calibrated: useMemo(
      () => new Set(cases?.filter((c) => c.request.calibration).map((c) => c.id)),
      [cases],
    ),
    cancel() {
      giveUp?.now();
      setState((s) => ({ ...s, progress: null, cancelled: true }));
    },
    again: () => setCount((n) => n + 1),
  };
}
