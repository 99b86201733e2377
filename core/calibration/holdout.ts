import { openCase, type OpenCase } from '../case/openCase';
import { sustainedTogether } from '../case/sustainedTogether';
import type { Cap } from '../envelope/fanStates';
import { normalQuantile } from '../uncertainty/normal';
import { quantileOfDraws } from '../uncertainty/quantile';
import { latinHypercube } from '../uncertainty/random';
import type { Calibration } from './fitMultipliers';
import { valuesAt } from './multipliers';
import { predictorOf } from './predictReadings';
import { readingsOf, type Reading, type SteadyRun } from './steadyRun';

const NOISE_SEED = 2;

/** Median and 5–95 % range. */
export interface Predicted {
  value: number;
  low: number;
  high: number;
}

/** Several numbers over all that is still possible after a fit; `error` adds one's own deviation to each. */
function predictRanges(
  { parameters, draws }: Calibration,
  at: (values: ReadonlyMap<string, number>) => ArrayLike<number>,
  count: number,
  error: (i: number) => number,
): Predicted[] {
  const n = parameters.length;
  const used = draws.count;
  const noise = latinHypercube(used, count, NOISE_SEED);
  const values = Array.from({ length: count }, () => new Float64Array(used));
  for (let k = 0; k < used; k++) {
    const y = at(valuesAt(parameters, draws.z.subarray(k * n, (k + 1) * n)));
    for (let i = 0; i < count; i++) {
      const own = error(i);
      values[i]![k] = y[i]! + (own > 0 ? own * normalQuantile(noise[i * used + k]!) : 0);
    }
  }
  return values.map((own) => {
    own.sort();
    const at = (p: number) => quantileOfDraws(own, p);
    return { low: at(0.05), value: at(0.5), high: at(0.95) };
  });
}

/**
 * Foretells runs that the fit did not see: median and 5–95 % of what will be read, the reading's own ± included.
 *
 * @param open the case that was fitted
 * @param fit from `fitMultipliers` on other runs
 * @param runs the runs held back
 */
export function predictRuns(
  open: OpenCase,
  fit: Calibration,
  runs: readonly SteadyRun[],
): (Reading & { predicted: Predicted; inside: boolean })[] {
  const readings = readingsOf(runs);
  const predict = predictorOf(open, runs, readings);
  const all = predictRanges(fit, predict, readings.length, (i) => readings[i]!.plusMinus);
  return readings.map((r, i) => {
    const predicted = all[i]!;
    return { ...r, predicted, inside: r.value >= predicted.low && r.value <= predicted.high };
  });
}

/**
 * Watts of both dies together at some caps as the fitted machine carries them, with their 5–95 % band.
 *
 * @returns one entry per cap
 */
export function sustainedAfterFit(
  { request }: OpenCase,
  fit: Calibration,
  caps: readonly Cap[],
): Predicted[] {
  const at = (values: ReadonlyMap<string, number>) =>
    sustainedTogether(openCase({ ...request, overrides: values }), caps);
  return predictRanges(fit, at, caps.length, () => 0);
}
