import type { Page } from '@zugluft/core/library/answers';
import type {
  CalibrationFigures,
  KeptCalibration,
} from '@zugluft/core/calibration/calibrationAnswer';
import { fetchJson } from './http';

export type { CalibrationFigures, KeptCalibration };

export const calibrationKeys = {
  of: (machineId: string) => ['machines', 'calibrations', machineId] as const,
  inUse: (machineId: string) => ['machines', 'calibration-in-use', machineId] as const,
};

const at = (machineId: string) => `/api/machines/${machineId}/calibrations`;

/** The newest versions, the newest first. */
export const listCalibrations = async (
  machineId: string,
  signal?: AbortSignal,
): Promise<Page<KeptCalibration>> => fetchJson(at(machineId), signal ? { signal } : {});

/** Fits the machine to its runs; giving up the request ends the fit. */
export const makeCalibration = async (
  machineId: string,
  signal: AbortSignal,
): Promise<KeptCalibration> => fetchJson(at(machineId), { method: 'POST', body: {}, signal });

/** What the estimate stands on; null: the record alone. */
export const readCalibrationInUse = async (
  machineId: string,
  signal?: AbortSignal,
): Promise<CalibrationFigures | null> =>
  fetchJson(`${at(machineId)}/in-use`, signal ? { signal } : {});

export const putVersionInUse = async (
  machineId: string,
  version: number | null,
): Promise<CalibrationFigures | null> =>
  fetchJson(`${at(machineId)}/in-use`, { method: 'PUT', body: { version } });
