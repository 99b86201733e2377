import type { ResidualPage } from '../../api/runs';

/** What the runs of a page say of the estimate. */
export interface ResidualSummary {
  /** Runs that could be held against it. */
  count: number;
  inside: number;
  /** Held by their setting: they only bound the cooling from below. */
  held: number;
  /** Middle of measured over foretold, of those that the cooling held; null without any. */
  ratio: number | null;
}

/** Sums up residuals. */
export function residualSummary(items: ResidualPage['items']): ResidualSummary {
  const told = items.flatMap((r) => (r.against ? [r.against] : []));
  const ratios = told
    .filter((a) => !a.held && a.p50 > 0)
    .map((a) => a.measuredW / a.p50)
    .sort((a, b) => a - b);
  const middle = ratios.length / 2;
  return {
    count: told.length,
    inside: told.filter((a) => a.inBand).length,
    held: told.filter((a) => a.held).length,
    ratio:
      ratios.length === 0
        ? null
        : 0.5 * (ratios[Math.ceil(middle) - 1]! + ratios[Math.floor(middle)]!),
  };
}
