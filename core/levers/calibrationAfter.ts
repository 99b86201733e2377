import type { CaseCalibration } from '../case/calibrated';

/**
 * What a calibration still says after changes: a figure that was changed is another one now, and what was learned of the one before
 * says nothing of it; parts that were put in anew likewise.
 *
 * @param calibration of the machine before
 * @param changed paths that were changed
 * @example calibrationAfter(calibration, ['dies.cpu.interface.ageYears'])
 */
export function calibrationAfter(
  calibration: CaseCalibration,
  changed: readonly string[],
): CaseCalibration {
  const isChanged = (path: string) => changed.some((c) => path === c || path.startsWith(`${c}.`));
  const { paths, values, rows, count } = calibration;
  const kept = paths.flatMap((path, i) => (isChanged(path) ? [] : [i]));
  if (kept.length === paths.length) return calibration;
  const left = new Float64Array(count * kept.length);
  for (let k = 0; k < count; k++) {
    kept.forEach((i, j) => (left[k * kept.length + j] = rows[k * paths.length + i]!));
  }
  return {
    paths: kept.map((i) => paths[i]!),
    values: kept.map((i) => values[i]!),
    rows: left,
    count,
  };
}
