import {
  READOUT_NAMES,
  type Estimate,
  type HeldShare,
  type Readout,
  type ReadoutName,
  type SensitivityShare,
} from '../case/answer';
import type { Cap } from '../envelope/fanStates';
import { bindingOfCode } from '../envelope/limitNames';
import type { DrawPlan } from './drawPlan';
import { COLUMNS, READOUTS, type Drawn } from './draws';
import { mapReadouts } from './mapReadouts';
import { halfBandAfter, type ReadingColumn } from './afterReadings';
import { measureNext, type MeasureNext, type ReadMeans } from './measureNext';
import { quantileOfSorted } from './quantile';
import { rankInputs, rankShares } from './rankRegression';
import { runReadings } from './runReadings';

export interface Band {
  p05: number;
  /** The median: what to expect. */
  p50: number;
  p95: number;
  /** In what share of the draws each limit holds, the most frequent first. */
  held: HeldShare[];
}

/** Bands of the three readouts, null where the machine lacks one. */
export type Bands = Record<ReadoutName, Band | null>;

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
  /** By cap: of what the cooling carries, and of the machine as configured. */
  bands: (Bands & { configured: Bands })[];
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
 * @param drawn from `runDraws`, all rows
 * @param unsettledDraws what `runDraws` returned, over all rows
 */
export function summarise(plan: DrawPlan, drawn: Drawn, unsettledDraws = 0): DrawSummary {
  const { caps, draws, columns, u, wanted } = plan;
  const column = new Float64Array(draws);
  const bands: DrawSummary['bands'] = [];
  const sensitivity: SensitivityShare[] = [];
  const fits: RegressionFit[] = [];
  const next: DrawSummary['next'] = [];
  const causes = [
    ...columns.map((x, c) => ({ name: x.name, values: u.subarray(c * draws, (c + 1) * draws) })),
    ...plan.calibrated,
  ];
  const read = readingsOf(plan, drawn);
  const enough = draws >= DRAWS_PER_COLUMN * causes.length && causes.length > 0;
  const ranked = enough ? rankInputs(causes.map((x) => x.values)) : null;
  caps.forEach((cap, c) => {
    const band = noBands();
    const configured = noBands();
    READOUT_NAMES.forEach((readout, r) => {
      if (!wanted[r]) return;
      configured[readout] = bandOf(plan, drawn, c, r + READOUTS, column);
      band[readout] = bandOf(plan, drawn, c, r, column);
      const half = 0.5 * (band[readout]!.p95 - band[readout]!.p05);
      const afterReading = (means: ReadMeans) => halfBandAfter(column, read[means]);
      if (!ranked) {
        // too few draws to tell one figure from another: what is read of all together can still be foretold
        const all = causes.map((x) => ({ input: x.name, share: 0 }));
        next.push({ readout, cap, items: measureNext(plan, all, half, afterReading) });
        return;
      }
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
        items: measureNext(plan, listed, half, afterReading),
      });
    });
    if (!plan.rays[2]) {
      band.together = band.cpuAlone ?? band.gpuAlone;
      configured.together = configured.cpuAlone ?? configured.gpuAlone;
    }
    bands.push({ ...band, configured });
  });
  return { draws, unsettledDraws, bands, sensitivity, fits, next };
}

/** Errors of a steady run's readings: a junction, K, and a level, dB (common practice, no source). */
const JUNCTION_K = 1;
const LEVEL_DB = 0.5;

/** What the means of the bench would read, in each draw. */
function readingsOf(
  { run, draws, central }: DrawPlan,
  { readings }: Drawn,
): Record<ReadMeans, ReadingColumn[]> {
  if (!run) return { 'run-under-load': [], 'noise-sweep': [] };
  const many = runReadings(central);
  const columns = Array.from({ length: many }, (_, k): ReadingColumn => ({
    values: Float64Array.from({ length: draws }, (_x, i) => readings[i * many + k]!),
    plusMinus: k === many - 1 ? LEVEL_DB : JUNCTION_K,
  }));
  return { 'run-under-load': columns, 'noise-sweep': columns.slice(-1) };
}

function noBands(): Bands {
  return { cpuAlone: null, gpuAlone: null, together: null };
}

/** Median, 5–95 % and what holds of one readout at one cap; leaves its watts by draw in `column`. */
function bandOf(
  plan: DrawPlan,
  { watts, held }: Drawn,
  cap: number,
  column: number,
  byDraw: Float64Array,
): Band {
  const { caps, draws } = plan;
  const counts = new Map<number, number>();
  for (let i = 0; i < draws; i++) {
    const at = (i * caps.length + cap) * COLUMNS + column;
    byDraw[i] = watts[at]!;
    counts.set(held[at]!, (counts.get(held[at]!) ?? 0) + 1);
  }
  const sorted = byDraw.slice().sort();
  return {
    p05: quantileOfSorted(sorted, 0.05),
    p50: quantileOfSorted(sorted, 0.5),
    p95: quantileOfSorted(sorted, 0.95),
    held: heldShares(plan, counts),
  };
}

/** Limits by how often they hold; the ways in which one pipe fails are one limit. */
function heldShares(plan: DrawPlan, counts: ReadonlyMap<number, number>): HeldShare[] {
  const shares = new Map<string, HeldShare>();
  for (const [code, count] of counts) {
    const { limit, part } = bindingOfCode(plan.central, plan.open.config, code);
    const key = `${limit} ${part}`;
    const share = (shares.get(key)?.share ?? 0) + count / plan.draws;
    shares.set(key, { limit, part, share });
  }
  return [...shares.values()].sort((a, b) => b.share - a.share);
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
      const bands = summary.bands[i]!;
      return mapReadouts(c, (readout, name, as) =>
        banded(readout, as === 'carried' ? bands[name] : bands.configured[name]),
      );
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

function banded<T extends Readout>(readout: T, band: Band | null): T {
  return { ...readout, ...band };
}
