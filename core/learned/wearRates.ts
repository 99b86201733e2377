import { LEAST_RENEWALS } from '../library/wearAnswer';
import type { DefaultKey } from '../record/defaults';
import type { FactorEvidence } from './factorEvidence';
import { defaultsOf } from './learnedDefaults';
import { fitPopulation, type LearnedFactor } from './populationFit';

/** A rate as all renewals together tell it for the next machine. */
export interface LearnedRate extends LearnedFactor {
  /** Median and 5–95 % of the next machine's; null where too few renewals tell it, or they tell nothing new. */
  offered: { value: number; low: number; high: number } | null;
}

/**
 * What renewals tell of the next machine's rates: the same hierarchical fit as for factors of machines.
 *
 * @param evidence of each renewal
 */
export function wearRates(evidence: readonly FactorEvidence[]): LearnedRate[] {
  if (evidence.length === 0) return [];
  const { factors } = fitPopulation(evidence);
  const offered = defaultsOf(factors);
  return factors.map((f) => ({
    ...f,
    offered: f.machines < LEAST_RENEWALS ? null : rangeOf(offered[f.key as DefaultKey]),
  }));
}

const rangeOf = (d: { value: number; low: number; high: number } | undefined) =>
  d ? { value: d.value, low: d.low, high: d.high } : null;
