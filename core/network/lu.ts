/**
 * Factors a dense square matrix in place, with partial pivoting, into `P A = L U`.
 *
 * Written out here, not taken from a package, because a factorisation happens thousands of times per envelope and must
 * not allocate.
 *
 * @param a row-major n × n matrix, overwritten by L (unit diagonal) and U
 * @param n size
 * @param pivot receives the row exchanges, length ≥ n
 * @throws Error where the matrix is singular
 */
export function luFactor(a: Float64Array, n: number, pivot: Int32Array): void {
  for (let k = 0; k < n; k++) {
    let p = k;
    let best = Math.abs(a[k * n + k]!);
    for (let i = k + 1; i < n; i++) {
      const v = Math.abs(a[i * n + k]!);
      if (v > best) {
        best = v;
        p = i;
      }
    }
    if (!(best > 0)) throw new Error(`singular network: node ${k} has no path to the room`);
    pivot[k] = p;
    if (p !== k) {
      for (let j = 0; j < n; j++) {
        const t = a[k * n + j]!;
        a[k * n + j] = a[p * n + j]!;
        a[p * n + j] = t;
      }
    }
    const inv = 1 / a[k * n + k]!;
    for (let i = k + 1; i < n; i++) {
      const l = a[i * n + k]! * inv;
      if (l === 0) continue;
      a[i * n + k] = l;
      for (let j = k + 1; j < n; j++) a[i * n + j]! -= l * a[k * n + j]!;
    }
  }
}

/**
 * Solves `A x = b` in place with the factors of {@link luFactor}.
 *
 * @param b right-hand side, overwritten by the solution
 */
export function luSolve(a: Float64Array, n: number, pivot: Int32Array, b: Float64Array): void {
  for (let k = 0; k < n; k++) {
    const p = pivot[k]!;
    if (p !== k) {
      const t = b[k]!;
      b[k] = b[p]!;
      b[p] = t;
    }
  }
  for (let i = 1; i < n; i++) {
    let s = b[i]!;
    for (let j = 0; j < i; j++) s -= a[i * n + j]! * b[j]!;
    b[i] = s;
  }
  for (let i = n - 1; i >= 0; i--) {
    let s = b[i]!;
    for (let j = i + 1; j < n; j++) s -= a[i * n + j]! * b[j]!;
    b[i] = s / a[i * n + i]!;
  }
}
