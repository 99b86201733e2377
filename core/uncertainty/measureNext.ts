import type { DefaultKey } from '../record/defaults';
import { fieldAt, type Field } from '../record/fieldTable';
import type { DrawPlan } from './drawPlan';
import { SETTLED_BY, type BenchMeans } from './settledBy';

/** Means that read numbers which follow from many causes together, so that the draws tell what they leave. */
export type ReadMeans = 'run-under-load' | 'noise-sweep';

/** How a cause is narrowed: read off the opened machine, or by one of the bench's means. */
export type MeasureMeans = 'figure' | BenchMeans;

/** Something worth measuring, with half the 5–95 % band before and after. */
export interface MeasureNext {
  means: MeasureMeans;
  /** Figures or factors that it settles, the weightiest first. */
  inputs: string[];
  share: number;
  nowW: number;
  thenW: number;
}

/** What a careful measurement leaves of a figure: a calliper, a weighed pad, a fan on its label (one deviation over value). */
const CAREFUL = 0.02;
/** What can be learned of an interface material from its package, not from the machine. */
const FROM_PACKAGE = 0.15;
/** What a fan's curve off a test duct or a datasheet leaves of its coefficients. */
const OFF_CURVE = 0.04;
const MAX_ITEMS = 5;
/** Less than this share of the band is not worth the walk to the bench. */
const MIN_GAIN = 0.01;

/** The figure of the record that an input is, as far as it can be found out at all. */
function figureAt(path: string): Field | undefined {
  const field = fieldAt(path);
  return field?.measured ? field : undefined;
}

function leftOf(means: Exclude<MeasureMeans, ReadMeans>, input: string): number {
  if (means === 'fan-curve') return OFF_CURVE;
  return fieldAt(input)?.measured === 'package' ? FROM_PACKAGE : CAREFUL;
}

const isRead = (means: MeasureMeans): means is ReadMeans =>
  means === 'run-under-load' || means === 'noise-sweep';

/**
 * What to measure next: for each figure of the record, and for a fan's curve, how much narrower the band would be,
 * `half · √(1 − Σ share · (1 − (σ_after/σ_now)²))`; for a steady run and a noise sweep, whose readings follow from all causes
 * together, what a regression on these readings over the draws leaves.
 *
 * @param plan knows each cause's present spread
 * @param shares of one readout at one cap
 * @param halfBandW half the 5–95 % band now
 * @param afterReading half the band once a run or a sweep was read
 * @returns the most worthwhile first; nothing that gains less than 1 %
 * Source: variances of independent causes add; what each means leaves is common practice, no source.
 */
export function measureNext(
  plan: DrawPlan,
  shares: readonly { input: string; share: number }[],
  halfBandW: number,
  afterReading: (means: ReadMeans) => number,
): MeasureNext[] {
  const keys = new Map(plan.inputs.map((x) => [x.path, x.key]));
  const meansOf = (input: string): MeasureMeans | null => {
    const settled = SETTLED_BY[(keys.get(input) ?? input) as DefaultKey];
    return settled ?? (figureAt(input) ? 'figure' : null);
  };
  const byMeans = new Map<string, { item: MeasureNext; gained: number }>();
  for (const { input, share } of shares) {
    const means = meansOf(input);
    const now = [...plan.columns, ...plan.calibrated].find((c) => c.name === input)?.relative ?? 0;
    if (!means || !(now > 0)) continue;
    if (isRead(means)) {
      const at = byMeans.get(means) ?? {
        item: { means, inputs: [], share: 0, nowW: halfBandW, thenW: afterReading(means) },
        gained: 0,
      };
      at.item.inputs.push(input);
      at.item.share += share;
      byMeans.set(means, at);
      continue;
    }
    const after = leftOf(means, input);
    if (!(now > after)) continue;
    const key = means === 'figure' ? input : means;
    const at = byMeans.get(key) ?? {
      item: { means, inputs: [], share: 0, nowW: halfBandW, thenW: halfBandW },
      gained: 0,
    };
    at.item.inputs.push(input);
    at.item.share += share;
    at.gained += share * (1 - (after / now) ** 2);
    at.item.thenW = halfBandW * Math.sqrt(Math.max(0, 1 - at.gained));
    byMeans.set(key, at);
  }
  return [...byMeans.values()]
    .map((x) => x.item)
    .filter((i) => i.thenW < i.nowW * (1 - MIN_GAIN))
    .sort((a, b) => a.thenW - b.thenW)
    .slice(0, MAX_ITEMS);
}
