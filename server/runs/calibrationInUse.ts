import type { CaseCalibration } from '@zugluft/core/case/calibrated';
import type { KeptCalibration } from '@zugluft/core/calibration/calibrationAnswer';
import type { CalibrationRow } from '../database/models';
import type { Database } from '../database/openDatabase';

/** A fit's figures as they are kept beside its draws. */
export type KeptFigures = Pick<CaseCalibration, 'paths' | 'values' | 'count'> & { caseKey: string };

/** The version that a machine's estimate stands on, ready to be computed. */
export interface CalibrationInUse {
  version: number;
  recordRevision: number;
  createdAt: Date;
  /** How many runs it saw. */
  runs: number;
  calibration: CaseCalibration;
  caseKey: string;
}

/** Reads the version in use of each machine; null where none is. */
export const readCalibrationInUse =
  (db: Database) =>
  async (machineId: string): Promise<CalibrationInUse | null> => {
    const row = await db.models.Calibration.findOne({ where: { machineId, inUse: true } });
    return row && calibrationOf(row);
  };

/** Reads which machines stand on a calibration. */
export const readCalibratedMachines = (db: Database) => async (): Promise<ReadonlySet<string>> => {
  const rows = await db.models.Calibration.findAll({
    where: { inUse: true },
    attributes: ['machineId'],
    raw: true,
  });
  return new Set(rows.map((r) => r.machineId));
};

function calibrationOf(row: CalibrationRow): CalibrationInUse {
  const { caseKey, ...figures } = JSON.parse(row.figures) as KeptFigures;
  const { buffer, byteOffset, byteLength } = row.rows;
  // a view needs its own alignment
  const rows = new Float64Array(buffer.slice(byteOffset, byteOffset + byteLength));
  const used = JSON.parse(row.runs) as KeptCalibration['runs'];
  return {
    version: row.version,
    recordRevision: row.recordRevision,
    createdAt: row.createdAt,
    runs: used.filter((u) => u.use === 'fit' && u.states > 0).length,
    calibration: { ...figures, rows },
    caseKey,
  };
}
