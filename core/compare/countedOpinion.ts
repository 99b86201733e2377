import { Matrix, pseudoInverse } from 'ml-matrix';
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
/** Deviations between the median and an end of a 5–95 % band. */
const ENDS = 1.6448536269514722;

/**
 * Watts from counts: a regression of the logarithm of measured watts on those of fin area, fans and pipes over the other machines,
 * `ln W = b₀ + b₁ ln A + b₂ ln (1 + fans) + b₃ ln (1 + pipes)`, by least squares of least norm, so that counts which are the same everywhere
 * share what cannot be told apart. Its error is that of leaving one machine out after the other, `eᵢ / (1 − hᵢᵢ)`.
 *
 * @param own counts of the machine
 * @param others that were measured, itself not among them; those without fins or watts are left out
 * Source: leave-one-out residuals of linear regression, Cook and Weisberg 1982, from memory.
 */
export function countedOpinion(own: Counts, others: readonly CountedMachine[]): CountedOpinion {
  const known = others.filter((o) => o.watts > 0 && o.finAreaCm2 > 0);
  const machines = known.length;
  if (machines < LEAST_MACHINES || !(own.finAreaCm2 > 0)) {
    return { refused: true, machines, needs: LEAST_MACHINES };
  }
  const x = new Matrix(known.map(rowOf));
  const y = Matrix.columnVector(known.map((o) => Math.log(o.watts)));
  const inverse = pseudoInverse(x);
  const b = inverse.mmul(y);
  const fitted = x.mmul(b);
  let sum = 0;
  for (let i = 0; i < machines; i++) {
    const leverage = dot(x.getRow(i), inverse.getColumn(i));
    // a machine that alone tells a coefficient is foretold by none of the others
    const left = Math.max(1e-3, 1 - leverage);
    sum += ((y.get(i, 0) - fitted.get(i, 0)) / left) ** 2;
  }
  const typical = Math.sqrt(sum / machines);
  const row = rowOf(own);
  const at = dot(row, b.to1DArray());
  // how far the machine lies from those learned from, against how far these lie from each other
  const weights = Matrix.rowVector(row).mmul(inverse).to1DArray();
  const far = Math.sqrt((1 + dot(weights, weights)) / (1 + COEFFICIENTS / machines));
  const deviation = typical * far;
  return {
    refused: false,
    machines,
    band: {
      p05: Math.exp(at - ENDS * deviation),
      p50: Math.exp(at),
      p95: Math.exp(at + ENDS * deviation),
    },
    leaveOneOutShare: typical,
  };
}

const rowOf = ({ finAreaCm2, fans, pipes }: Counts): number[] => [
  1,
  Math.log(finAreaCm2),
  Math.log(1 + fans),
  Math.log(1 + pipes),
];

const dot = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((sum, v, i) => sum + v * b[i]!, 0);
