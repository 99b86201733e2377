const ORDER = 6;
/** Squarings are chosen so that the scaled matrix has at most this norm; the remainder is then below 1e-12. */
const NORM = 0.5;

/**
 * Exponential of a dense matrix by scaling and squaring of its diagonal Padé approximant.
 *
 * Written out, as no package in use offers it for typed arrays; checked in the tests against
 * ml-matrix's eigenvalues.
 *
 * @param a row-major n × n, not changed
 * @param n size, 1…200
 * @returns row-major n × n
 * @throws Error where an entry is not finite
 * Source: Moler & Van Loan, “Nineteen dubious ways to compute the exponential of a matrix”, SIAM Review 45 (2003), method 3;
 * coefficients `c_k = c_{k−1} (q − k + 1) / (k (2q − k + 1))`. From memory.
 */
export function matrixExponential(a: ArrayLike<number>, n: number): Float64Array {
  let norm = 0;
  for (let i = 0; i < n; i++) {
    let row = 0;
    for (let j = 0; j < n; j++) row += Math.abs(a[i * n + j]!);
    norm = Math.max(norm, row);
  }
  if (!Number.isFinite(norm)) throw new Error('the matrix has an entry that is not finite');
  const squarings = Math.max(0, Math.ceil(Math.log2(Math.max(norm, 1e-300) / NORM)));
  const scale = 2 ** -squarings;
  const scaled = Float64Array.from(a, (x) => x * scale);
  let power = identity(n);
  const above = identity(n);
  const below = identity(n);
  let spare = new Float64Array(n * n);
  let c = 1;
  for (let k = 1; k <= ORDER; k++) {
    c *= (ORDER - k + 1) / (k * (2 * ORDER - k + 1));
    multiply(power, scaled, n, spare);
    [power, spare] = [spare, power];
    const sign = k % 2 ? -c : c;
    for (let i = 0; i < n * n; i++) {
      above[i]! += c * power[i]!;
      below[i]! += sign * power[i]!;
    }
  }
  let result = solveMany(below, above, n);
  for (let s = 0; s < squarings; s++) {
    multiply(result, result, n, spare);
    [result, spare] = [spare, result];
  }
  return result;
}

function identity(n: number): Float64Array<ArrayBuffer> {
  const m = new Float64Array(n * n);
  for (let i = 0; i < n; i++) m[i * n + i] = 1;
  return m;
}

function multiply(a: Float64Array, b: Float64Array, n: number, out: Float64Array): void {
  out.fill(0);
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < n; k++) {
      const x = a[i * n + k]!;
      if (x === 0) continue;
      for (let j = 0; j < n; j++) out[i * n + j]! += x * b[k * n + j]!;
    }
  }
}

/** Solves `A X = B` by Gaussian elimination with row exchange; both are overwritten, B with X. */
function solveMany(
  a: Float64Array<ArrayBuffer>,
  b: Float64Array<ArrayBuffer>,
  n: number,
): Float64Array<ArrayBuffer> {
  for (let k = 0; k < n; k++) {
    let pivot = k;
    for (let i = k + 1; i < n; i++) {
      if (Math.abs(a[i * n + k]!) > Math.abs(a[pivot * n + k]!)) pivot = i;
    }
    if (pivot !== k) {
      swapRows(a, n, k, pivot);
      swapRows(b, n, k, pivot);
    }
    const inverse = 1 / a[k * n + k]!;
    for (let i = 0; i < n; i++) {
      const l = i === k ? 0 : a[i * n + k]! * inverse;
      if (l === 0) continue;
      for (let j = k; j < n; j++) a[i * n + j]! -= l * a[k * n + j]!;
      for (let j = 0; j < n; j++) b[i * n + j]! -= l * b[k * n + j]!;
    }
  }
  for (let i = 0; i < n; i++) {
    const inverse = 1 / a[i * n + i]!;
    for (let j = 0; j < n; j++) b[i * n + j]! *= inverse;
  }
  return b;
}

function swapRows(m: Float64Array, n: number, i: number, j: number): void {
  for (let k = 0; k < n; k++) {
    const held = m[i * n + k]!;
    m[i * n + k] = m[j * n + k]!;
    m[j * n + k] = held;
  }
}
