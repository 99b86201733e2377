import { Matrix, pseudoInverse } from 'ml-matrix';

/** Deviations between the median and an end of a 5–95 % band. */
const ENDS = 1.6448536269514722;

/** What others foretell of one more, as a band of the logarithm's own scale. */
export interface Foretold {
  p05: number;
  p50: number;
  p95: number;
  /** Typical error of one that the others foretell, as a share. */
  leaveOneOutShare: number;
}

/**
 * Foretells a figure from those of others by a regression of its logarithm, by least squares of least norm, so that columns which are
 * the same everywhere share what cannot be told apart. Its error is that of leaving one out after the other, `eᵢ / (1 − hᵢᵢ)`, wider
 * the farther the new one lies from those learned from.
 *
 * @param rows what is known of each of the others, as many columns each
 * @param values their figures, > 0
 * @param own what is known of the new one
 * Source: leave-one-out residuals of linear regression, Cook and Weisberg 1982, from memory.
 */
export function foretellByOthers(
  rows: readonly (readonly number[])[],
  values: readonly number[],
  own: readonly number[],
): Foretold {
  const n = rows.length;
  const x = new Matrix(rows.map((r) => [...r]));
  const y = Matrix.columnVector(values.map((v) => Math.log(v)));
  const inverse = pseudoInverse(x);
  const b = inverse.mmul(y);
  const fitted = x.mmul(b);
  let sum = 0;
  for (let i = 0; i < n; i++) {
    const leverage = dot(x.getRow(i), inverse.getColumn(i));
    // one that alone tells a coefficient is foretold by none of the others
    const left = Math.max(1e-3, 1 - leverage);
    sum += ((y.get(i, 0) - fitted.get(i, 0)) / left) ** 2;
  }
  const typical = Math.sqrt(sum / n);
  const at = dot(own, b.to1DArray());
  // how far the new one lies from those learned from, against how far these lie from each other
  const weights = Matrix.rowVector([...own])
    .mmul(inverse)
    .to1DArray();
  const far = Math.sqrt((1 + dot(weights, weights)) / (1 + own.length / n));
  const deviation = typical * far;
  return {
    p05: Math.exp(at - ENDS * deviation),
    p50: Math.exp(at),
    p95: Math.exp(at + ENDS * deviation),
    leaveOneOutShare: typical,
  };
}

const dot = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((sum, v, i) => sum + v * b[i]!, 0);
