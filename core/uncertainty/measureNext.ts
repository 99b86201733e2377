import type { DrawPlan } from './draws';

/** A figure worth measuring, with half the 5–95 % band before and after. */
export interface MeasureNext {
  input: string;
  share: number;
  nowW: number;
  thenW: number;
}

/** What a careful measurement leaves: a calliper, a weighed pad, a fan on its label. */
const CAREFUL = 0.02;
/** What can be learned of an interface material from its package, not from the machine. */
const FROM_PACKAGE = 0.15;
const MOST_ITEMS = 5;

/** Figures of the record that cannot be read off the opened machine. */
const HIDDEN = /\.(bondLineUm|conductivityWmK)$/;
/** Defaults that are no field of the record are narrowed by a run under load, not by a calliper. */
const FIELD = /^(dies|plates|heatPipes|finStacks|fans|vents|pads|strips|shell|room|power|noise)\./;

/**
 * What to measure next: for each recorded or absent figure of the record, how much narrower the band would be with it
 * measured well, `half · √(1 − share · (1 − (σ_after/σ_now)²))`.
 *
 * @param plan knows each cause's present spread
 * @param shares of one readout at one cap
 * @param halfBandW half the 5–95 % band now
 * @returns the most worthwhile first
 * Source: variances of independent causes add.
 */
export function measureNext(
  plan: DrawPlan,
  shares: readonly { input: string; share: number }[],
  halfBandW: number,
): MeasureNext[] {
  const items: MeasureNext[] = [];
  const measurable = new Set(
    plan.inputs
      .filter((x) => FIELD.test(x.path) && (x.recorded !== null || x.path !== x.key))
      .map((x) => x.path),
  );
  // fields whose default has the very name of the field
  for (const path of [
    'shell.widthMm',
    'shell.depthMm',
    'shell.footHeightMm',
    'power.restW',
    'room.temperatureC',
    'room.altitudeM',
  ]) {
    measurable.add(path);
  }
  for (const { input, share } of shares) {
    if (!measurable.has(input) || /^fans\.(psi|phi|curveExponent)\./.test(input)) continue;
    const now = plan.columns.find((c) => c.name === input)?.relative ?? 0;
    const after = HIDDEN.test(input) ? FROM_PACKAGE : CAREFUL;
    if (!(now > after)) continue;
    const left = 1 - share * (1 - (after / now) ** 2);
    items.push({ input, share, nowW: halfBandW, thenW: halfBandW * Math.sqrt(Math.max(0, left)) });
  }
  return items.sort((a, b) => a.thenW - b.thenW).slice(0, MOST_ITEMS);
}
