/**
 * Factors a symmetric positive definite matrix in place, `A = L Lᵀ`; L stands in its lower half after.
 *
 * @param a n × n, row by row; the upper half is neither read nor written
 * @param n size
 * @returns false where the matrix is not positive definite; a is then half factored
 * Source: Golub and Van Loan, Matrix Computations, alg. 4.2.1; from memory.
 */
export function factorCholesky(a: Float64Array, n: number): boolean {
  for (let j = 0; j < n; j++) {
    for (let i = j; i < n; i++) {
      let sum = a[i * n + j]!;
      for (let k = 0; k < j; k++) sum -= a[i * n + k]! * a[j * n + k]!;
      if (i > j) a[i * n + j] = sum / a[j * n + j]!;
      else if (sum > 0) a[j * n + j] = Math.sqrt(sum);
      else return false;
    }
  }
  return true;
}

/** Solves `L x = b` in place, L as `factorCholesky` leaves it. */
export function solveLower(l: Float64Array, n: number, b: Float64Array): void {
  for (let i = 0; i < n; i++) {
    let sum = b[i]!;
    for (let k = 0; k < i; k++) sum -= l[i * n + k]! * b[k]!;
    b[i] = sum / l[i * n + i]!;
  }
}

/** Solves `Lᵀ x = b` in place. */
export function solveLowerTransposed(l: Float64Array, n: number, b: Float64Array): void {
  for (let i = n - 1; i >= 0; i--) {
    let sum = b[i]!;
    for (let k = i + 1; k < n; k++) sum -= l[k * n + i]! * b[k]!;
    b[i] = sum / l[i * n + i]!;
  }
}
