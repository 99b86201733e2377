import { z } from 'zod';
import type { Counts, CountedMachine } from './countedOpinion';

const watts = (usual: number) =>
  z
    .number('needs a number of watts')
    .min(0, 'must be at least 0 W')
    .max(1000, 'must be at most 1000 W')
    .default(usual);

/** Watts that a laboratory gives to each part; the built-in ones are common practice, no source. */
export const pointsRule = z.strictObject({
  wattsPerFan: watts(15),
  wattsPerPipe: watts(10),
  /** Both faces of all fins. */
  wattsPer100Cm2: watts(5),
});
export type PointsRule = z.infer<typeof pointsRule>;

/** Watts by points, and how far off the rule is where runs tell. */
export interface PointsOpinion {
  watts: number;
  /** Machines with runs that it was held against. */
  machines: number;
  /** Root mean square of ln(rule / measured) over them, as a share; null where there are none. */
  offShare: number | null;
}

/** Watts of some parts, `a · fans + b · pipes + c · A / 100 cm²`. */
export const wattsByPoints = (rule: PointsRule, { fans, pipes, finAreaCm2 }: Counts): number =>
  rule.wattsPerFan * fans + rule.wattsPerPipe * pipes + (rule.wattsPer100Cm2 * finAreaCm2) / 100;

/**
 * What a rule of points for each part says of a machine. It knows no level and has no band of its own; machines whose watts were
 * learned from runs tell how far off it usually is.
 *
 * @param own counts of the machine
 * @param others that were measured, itself not among them; those without watts, or to which the rule gives none, are left out
 * @returns null where the rule gives the machine nothing
 */
export function pointsOpinion(
  rule: PointsRule,
  own: Counts,
  others: readonly CountedMachine[],
): PointsOpinion | null {
  const watts = wattsByPoints(rule, own);
  if (!(watts > 0)) return null;
  const off = others
    .map((o) => Math.log(wattsByPoints(rule, o) / o.watts))
    .filter((x) => Number.isFinite(x));
  const meanSquare = off.reduce((sum, x) => sum + x * x, 0) / off.length;
  return {
    watts,
    machines: off.length,
    offShare: off.length > 0 ? Math.sqrt(meanSquare) : null,
  };
}
