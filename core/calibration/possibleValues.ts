import { openCase, type OpenCase } from '../case/openCase';
import { normalQuantile } from '../uncertainty/normal';
import { latinHypercube } from '../uncertainty/random';
import { SHOWN_SEED } from '../uncertainty/wattsBand';
import { multipliersOf, valuesAt } from './multipliers';

/**
 * Sets of values of a machine's figures that are all still possible: of the fit where the case has one, else of the priors.
 *
 * @param open the case
 * @param most how many; a fit may have fewer
 */
export function possibleValues(
  { request, calibration }: OpenCase,
  most: number,
): ReadonlyMap<string, number>[] {
  if (calibration) {
    const { paths, rows, count } = calibration;
    const n = paths.length;
    return Array.from(
      { length: Math.min(count, most) },
      (_, k) => new Map(paths.map((path, i) => [path, rows[k * n + i]!])),
    );
  }
  const parameters = multipliersOf(openCase({ ...request, calibration: null }));
  const u = latinHypercube(most, parameters.length, SHOWN_SEED);
  return Array.from({ length: most }, (_, k) =>
    valuesAt(
      parameters,
      parameters.map((_, i) => normalQuantile(u[i * most + k]!)),
    ),
  );
}
