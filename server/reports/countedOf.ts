import {
  countedOpinion,
  type CountedOpinion,
  type Counts,
} from '@zugluft/core/compare/countedOpinion';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { wattsColumn, type MachineSummary } from '@zugluft/core/library/answers';

/**
 * What counting says of a machine, learned from those of the library that stand on runs.
 *
 * @param rows of the library
 * @param calibrated ids of machines whose watts their runs have narrowed
 * @returns null where the machine is not listed
 */
export function countedOf(
  rows: readonly MachineSummary[],
  id: string,
  cap: Cap,
  calibrated: ReadonlySet<string>,
): CountedOpinion | null {
  const own = rows.find((r) => r.id === id);
  if (!own) return null;
  const others = rows.filter((r) => r.id !== id && r.putAsideAt === null && calibrated.has(r.id));
  return countedOpinion(
    countsOf(own),
    others.map((r) => ({ ...countsOf(r), watts: r[wattsColumn(cap)] ?? 0 })),
  );
}

const countsOf = ({ finAreaCm2, fans, pipes }: MachineSummary): Counts => ({
  finAreaCm2: finAreaCm2 ?? 0,
  fans,
  pipes,
});
