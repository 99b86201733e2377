import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { withCalibration, type KeyedCalibration } from '@zugluft/core/calibration/caseKey';
import type { CaseRequest } from '@zugluft/core/case/openCase';
import {
  calibrationKeys,
  readCalibrationInUse,
  type CalibrationFigures,
} from '../../api/calibrations';

/** A calibration as it was read, as computations take it. */
export function keyedCalibration({
  paths,
  values,
  rows,
  count,
  caseKey,
}: CalibrationFigures): KeyedCalibration {
  return { calibration: { paths, values, rows: Float64Array.from(rows), count }, caseKey };
}

/** What a machine's estimate stands on. */
export interface CalibrationInUse {
  version: number;
  /** How many runs it saw. */
  runs: number;
  createdAt: string;
  /** The record has changed since: the estimate stands on the record alone. */
  lapsed: boolean;
}

/**
 * The calibration in use laid over a request.
 *
 * @param made false where the machine is not on the server yet
 * @returns the request as it is to be computed, and what it stands on
 */
export function useCalibration(
  machineId: string,
  made: boolean,
  request: CaseRequest | null,
): { request: CaseRequest | null; calibration: CalibrationInUse | null; waiting: boolean } {
  const { data, isPending } = useQuery({
    queryKey: calibrationKeys.inUse(machineId),
    queryFn: ({ signal }) => readCalibrationInUse(machineId, signal),
    enabled: made,
    staleTime: Infinity,
  });
  const keyed = useMemo(() => (data ? keyedCalibration(data) : null), [data]);
  const laid = useMemo(
    () => (request ? withCalibration(request, keyed) : { request: null, lapsed: false }),
    [request, keyed],
  );
  const calibration = useMemo(
    () =>
      data
        ? {
            version: data.version,
            runs: data.runs,
            createdAt: data.createdAt,
            lapsed: laid.lapsed,
          }
        : null,
    [data, laid.lapsed],
  );
  return { request: laid.request, calibration, waiting: made && isPending };
}
