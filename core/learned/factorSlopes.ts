import { openCase, type CaseRequest } from '../case/openCase';
import { sustainedTogether } from '../case/sustainedTogether';
import type { Cap } from '../envelope/fanStates';
import { DEFAULTS, type Default, type DefaultKey } from '../record/defaults';
import type { LabDefaults } from '../record/resolver';
import { spreadOf } from '../uncertainty/spread';

/** Where the slope is taken, deviations to either side: far enough that which limit holds may change as it does in draws. */
const STEP = 0.7;

/** Value of a built-in default some deviations from its median. */
export function defaultAt(key: DefaultKey, z: number): number {
  const { value, low, high } = DEFAULTS[key] as Default;
  return spreadOf({ path: key, value, recorded: null, key, low, high })!.at(z);
}

/**
 * What one deviation of each factor does to the watts of a machine: `d ln W / d z` by central differences.
 *
 * @param middle where each factor lies, in deviations of its built-in default
 * @param caps at which
 * @returns for each cap, one for each factor; caps at which nothing is carried are left out
 */
export function factorSlopes(
  request: CaseRequest,
  keys: readonly DefaultKey[],
  middle: readonly number[],
  caps: readonly Cap[],
): Float64Array[] {
  const wattsWith = (moved: number, by: number): Float64Array | number[] => {
    const defaults: LabDefaults = Object.fromEntries(
      keys.map((key, k) => {
        const value = defaultAt(key, middle[k]! + (k === moved ? by : 0));
        return [key, { value, low: value, high: value }];
      }),
    );
    const open = openCase({ ...request, calibration: null, lab: { ...request.lab, defaults } });
    return sustainedTogether(open, caps);
  };
  const slopes = caps.map(() => new Float64Array(keys.length));
  keys.forEach((_, k) => {
    const up = wattsWith(k, STEP);
    const down = wattsWith(k, -STEP);
    slopes.forEach((row, c) => (row[k] = Math.log(up[c]! / down[c]!) / (2 * STEP)));
  });
  return slopes.filter((row) => row.every(Number.isFinite));
}
