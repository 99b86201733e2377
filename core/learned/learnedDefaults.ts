import type { LabDefaults } from '../record/resolver';
import { defaultAt } from './factorSlopes';
import { independentRanges } from './independentRanges';
import type { LearnedFactor, Population } from './populationFit';

/** Of the standard normal distribution, 5 %. */
const Z95 = 1.6448536269514722;
/** A factor is told by the machines from here on: narrower than built in, or moved, in its own deviations (common practice, no source). */
const NARROWER = 0.95;
const MOVED = 0.1;
const DIGITS = 4;

/** Whether the machines say anything of a factor. */
export const isTold = ({ mean, deviation }: Pick<LearnedFactor, 'mean' | 'deviation'>): boolean =>
  deviation < NARROWER || Math.abs(mean) > MOVED;

/**
 * What was learned, as a laboratory's own defaults: median and 5–95 % of the next machine's factor, as ranges that each stand for itself
 * and together give some watts the spread that was learned. Factors that the machines do not tell are left out.
 *
 * @param slopes of the watts of the machines that taught, at what they taught: each a factor for each of the population
 */
export function learnedDefaults(
  { factors, covariance }: Population,
  slopes: readonly Float64Array[],
): LabDefaults {
  const variances = independentRanges(covariance, slopes);
  return defaultsOf(factors.map((f, k) => ({ ...f, deviation: Math.sqrt(variances[k]!) })));
}

/** Ranges of factors as defaults; those that are as built in are left out. */
export function defaultsOf(
  factors: readonly Pick<LearnedFactor, 'key' | 'mean' | 'deviation'>[],
): LabDefaults {
  return Object.fromEntries(
    factors.filter(isTold).map(({ key, mean, deviation }) => {
      const at = (z: number) => Number(defaultAt(key, z).toPrecision(DIGITS));
      return [
        key,
        { value: at(mean), low: at(mean - Z95 * deviation), high: at(mean + Z95 * deviation) },
      ];
    }),
  );
}
