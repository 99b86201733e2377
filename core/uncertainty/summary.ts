import {
  READOUT_NAMES,
  type Estimate,
  type ReadoutName,
  type SensitivityShare,
} from '../case/answer';
import type { Cap } from '../envelope/fanStates';
import { READOUTS, type DrawPlan } from './draws';
import { measureNext, type MeasureNext } from './measureNext';
import { quantileOfSorted } from './quantile';
import { rankInputs, rankShares } from './rankRegression';

export interface Band {
  p05: number;
  p95: number;
}

/** How well rank regression explains one readout at one cap. */
export interface RegressionFit {
  readout: ReadoutName;
  cap: Cap;
  r2: number;
  unexplained: number;
}

/** What a sampling says. */
export interface DrawSummary {
  draws: number;
  /** Draws in which a solver ended at its bound. */
  unsettledDraws: number;
  /** Band per cap and readout, null where the machine lacks it. */
  bands: Record<ReadoutName, Band | null>[];
  sensitivity: SensitivityShare[];
  fits: RegressionFit[];
  next: { readout: ReadoutName; cap: Cap; items: MeasureNext[] }[];
}

/** Smaller shares are left out of the list. */
const MIN_SHARE = 0.005;
/** A regression needs more draws than this many per cause. */
const DRAWS_PER_COLUMN = 3;

/**
 * Bands, shares and what to measure next, from all draws of a plan.
 *
 * @param plan the plan
 * @param watts from `runDraws`, all rows
 * @param unsettledDraws what `runDraws` returned, over all rows
 */
export function summarise(plan: DrawPlan, watts: Float64Array, unsettledDraws = 0): DrawSummary {
  const { caps, draws, columns, u } = plan;
  const column = new Float64Array(draws);
  const bands: DrawSummary['bands'] = [];
  const sensitivity: SensitivityShare[] = [];
  const fits: RegressionFit[] = [];
  const next: DrawSummary['next'] = [];
  const causes = [
    ...columns.map((x, c) => ({ name: x.name, values: u.subarray(c * draws, (c + 1) * draws) })),
    ...plan.calibrated,
  ];
  const enough = draws >= DRAWS_PER_COLUMN * causes.length && causes.length > 0;
  const ranked = enough ? rankInputs(causes.map((x) => x.values)) : null;
  caps.forEach((cap, c) => {
    const band = { cpuAlone: null, gpuAlone: null, together: null } as Record<
      ReadoutName,
      Band | null
    >;
    READOUT_NAMES.forEach((readout, r) => {
      if (!plan.rays[r]) return;
      for (let i = 0; i < draws; i++) column[i] = watts[(i * caps.length + c) * READOUTS + r]!;
      const sorted = column.slice().sort();
      band[readout] = {
        p05: quantileOfSorted(sorted, 0.05),
        p95: quantileOfSorted(sorted, 0.95),
      };
      if (!ranked) return;
      const { shares, r2, unexplained } = rankShares(ranked, column);
      const listed = causes
        .map((x, k) => ({ readout, cap, input: x.name, share: shares[k]! }))
        .filter((x) => x.share >= MIN_SHARE)
        .sort((a, b) => b.share - a.share);
      sensitivity.push(...listed);
      fits.push({ readout, cap, r2, unexplained });
      next.push({
        readout,
        cap,
        items: measureNext(plan, listed, 0.5 * (band[readout]!.p95 - band[readout]!.p05)),
      });
    });
    if (!plan.rays[2]) band.together = band.cpuAlone ?? band.gpuAlone;
    bands.push(band);
  });
  return { draws, unsettledDraws, bands, sensitivity, fits, next };
}

/**
 * An estimate with the bands and shares of a sampling written in.
 *
 * @param estimate made with the same record, caps and setting as the sampling
 * @param summary from {@link summarise}
 */
export function withBands(estimate: Estimate, summary: DrawSummary): Estimate {
  return {
    ...estimate,
    caps: estimate.caps.map((c, i) => {
      const band = summary.bands[i]!;
      return {
        ...c,
        cpuAlone: c.cpuAlone && { ...c.cpuAlone, ...band.cpuAlone },
        gpuAlone: c.gpuAlone && { ...c.gpuAlone, ...band.gpuAlone },
        together: { ...c.together, ...band.together },
        configured: {
          ...c.configured,
          cpuAlone: c.configured.cpuAlone && cut(c.configured.cpuAlone, c.cpuAlone, band.cpuAlone),
          gpuAlone: c.configured.gpuAlone && cut(c.configured.gpuAlone, c.gpuAlone, band.gpuAlone),
          together: cut(c.configured.together, c.together, band.together),
        },
      };
    }),
    sensitivity: summary.sensitivity,
    notes: summary.unsettledDraws
      ? [
          ...estimate.notes,
          {
            path: 'solver',
            message: `in ${summary.unsettledDraws} of ${summary.draws} draws a search ended before it came to rest`,
          },
        ]
      : estimate.notes,
  };
}

/** A configured readout's band: that of the cooling, cut where firmware or adapter stops it. */
function cut<T extends { watts: number }>(
  set: T,
  carried: { watts: number } | null,
  band: Band | null,
): T {
  if (!carried || !band) return set;
  const stopped = set.watts < carried.watts * (1 - 1e-6) ? set.watts : Infinity;
  return { ...set, p05: Math.min(band.p05, stopped), p95: Math.min(band.p95, stopped) };
}
