import { foretellByOthers } from '../numerics/foretellByOthers';
import type { Band3 } from '../verdict/bandWords';

/** What reviewers count. */
export interface Counts {
  finAreaCm2: number;
  fans: number;
  pipes: number;
}

/** A machine whose watts were learned from runs. */
export interface CountedMachine extends Counts {
  watts: number;
}

/** What counting says; refused where there are too few machines to learn from. */
export type CountedOpinion =
  | { refused: true; machines: number; needs: number }
  | {
      refused: false;
      machines: number;
      band: Band3;
      /** Typical error of a machine that the others foretell, as a share of its watts. */
      leaveOneOutShare: number;
    };

/** Machines for each coefficient, so that the errors mean something (common practice, no source). */
const PER_COEFFICIENT = 3;
const COEFFICIENTS = 4;
/** Fewer are not learned from. */
export const LEAST_MACHINES = PER_COEFFICIENT * COEFFICIENTS;

/**
 * Watts from counts: a regression of the logarithm of measured watts on those of fin area, fans and pipes over the other machines,
 * `ln W = b₀ + b₁ ln A + b₂ ln (1 + fans) + b₃ ln (1 + pipes)`,
 * as {@link foretellByOthers} does it.
 *
 * @param own counts of the machine
 * @param others that were measured, itself not among them; those without fins or watts are left out
 */
export function countedOpinion(own: Counts, others: readonly CountedMachine[]): CountedOpinion {
  const known = others.filter((o) => o.watts > 0 && o.finAreaCm2 > 0);
  const machines = known.length;
  if (machines < LEAST_MACHINES || !(own.finAreaCm2 > 0)) {
    return { refused: true, machines, needs: LEAST_MACHINES };
  }
  const { leaveOneOutShare, ...band } = foretellByOthers(
    known.map(rowOf),
    known.map((o) => o.watts),
    rowOf(own),
  );
  return { refused: false, machines, band, leaveOneOutShare };
}

const rowOf = ({ finAreaCm2, fans, pipes }: Counts): number[] => [
  1,
  Math.log(finAreaCm2),
  Math.log(1 + fans),
  Math.log(1 + pipes),
];
