import {
  countedOpinion,
  type CountedMachine,
  type CountedOpinion,
  type Counts,
} from '@zugluft/core/compare/countedOpinion';
import {
  pointsOpinion,
  type PointsOpinion,
  type PointsRule,
} from '@zugluft/core/compare/pointsOpinion';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { wattsColumn, type MachineSummary } from '@zugluft/core/library/answers';

/** What counting says of a machine, and what the laboratory's own rule does. */
export interface Counting {
  counted: CountedOpinion;
  points: PointsOpinion | null;
}

/**
 * What counting says of a machine, learned from those of the library that stand on runs.
 *
 * @param rows of the library
 * @param rule watts that the laboratory gives to each part
 * @param calibrated ids of machines whose watts their runs have narrowed
 * @returns null where the machine is not listed
 */
export function countedOf(
  rows: readonly MachineSummary[],
  id: string,
  cap: Cap,
  rule: PointsRule,
  calibrated: ReadonlySet<string>,
): Counting | null {
  const own = rows.find((r) => r.id === id);
  if (!own) return null;
  const others = rows.filter((r) => r.id !== id && r.putAsideAt === null && calibrated.has(r.id));
  const counts = countsOf(own);
  const learned = others.map((r): CountedMachine => ({
    ...countsOf(r),
    watts: r[wattsColumn(cap)] ?? 0,
  }));
  return {
    counted: countedOpinion(counts, learned),
    points: pointsOpinion(rule, counts, learned),
  };
}

const countsOf = ({ finAreaCm2, fans, pipes }: MachineSummary): Counts => ({
  finAreaCm2: finAreaCm2 ?? 0,
  fans,
  pipes,
});
