import { useQueries } from '@tanstack/react-query';
import { useMemo } from 'react';
import { withCalibration } from '@zugluft/core/calibration/caseKey';
import type { Laboratory } from '@zugluft/core/case/laboratory';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { SHOWN_DRAWS, SHOWN_SEED } from '@zugluft/core/uncertainty/wattsBand';
import { calibrationKeys, readCalibrationInUse } from '../../api/calibrations';
import type { Machine } from '../../api/machines';
import { useOnce } from '../../documents/answer/useOnce';
import { computeComparison } from '../../documents/answer/workers/compareClient';
import { keyedCalibration } from '../../documents/record/useCalibration';
import { nameInList } from './nameInList';

/** Draws of each machine where many stand side by side. */
const DRAWS_OF_MANY = 100;
const MANY = 20;

/**
 * Machines held against each other on draws in which what they share is the same, computed beside the page.
 *
 * @param machines in the order of the address
 * @param lab defaults
 * @param caps at which
 */
export function useComparison(machines: readonly Machine[], lab: Laboratory, caps: readonly Cap[]) {
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
  const list = useMemo(() => cases?.map(({ name, request }) => ({ name, request })), [cases]);
  const job = useMemo(
    () =>
      list && list.length > 0
        ? {
            machines: list,
            caps,
            draws: list.length > MANY ? DRAWS_OF_MANY : SHOWN_DRAWS,
            seed: SHOWN_SEED,
          }
        : null,
    [list, caps],
  );
  const once = useOnce(job, computeComparison);
  return {
    once,
    // that of other machines is not shown with the names of these
    comparison: once.of?.machines === list ? once.result : null,
    /** Ids of the machines of the comparison, in its order; machines without an answer are left out. */
    ids: useMemo(() => cases?.map((c) => c.id) ?? [], [cases]),
    /** The case of each of these, with what its runs have narrowed. */
    requests: useMemo(() => new Map(cases?.map((c) => [c.id, c.request])), [cases]),
    /** Those whose runs have narrowed their watts. */
    calibrated: useMemo(
      () => new Set(cases?.filter((c) => c.request.calibration).map((c) => c.id)),
      [cases],
    ),
    /** Of each machine. */
    draws: job?.draws ?? SHOWN_DRAWS,
  };
}
