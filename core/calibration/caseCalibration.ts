import type { CaseCalibration } from '../case/calibrated';
import type { Calibration } from './fitMultipliers';
import { valuesAt } from './multipliers';

/**
 * A fit as every computation takes it: the figures it moved, their values at the fit, and the draws of what is still
 * possible after it.
 */
export function caseCalibration({ parameters, z, draws }: Calibration): CaseCalibration {
  const at = valuesAt(parameters, z);
  const paths = [...at.keys()];
  const n = parameters.length;
  const rows = new Float64Array(draws.count * paths.length);
  for (let k = 0; k < draws.count; k++) {
    const values = valuesAt(parameters, draws.z.subarray(k * n, (k + 1) * n));
    paths.forEach((path, i) => (rows[k * paths.length + i] = values.get(path)!));
  }
  return { paths, values: [...at.values()], rows, count: draws.count };
}
