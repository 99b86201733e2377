/**
 * The order of work for factoring one sparsity pattern over and over: for each pivot the rows below and the columns to the
 * right that are not zero, fill included. Made once per machine.
 */
export interface EliminationPlan {
  n: number;
  /** Index into `rows` where pivot k begins; n + 1 entries. */
  rowStart: Int32Array;
  rows: Int32Array;
  colStart: Int32Array;
  cols: Int32Array;
}

/**
 * Plans a factorisation without pivoting, in the given order of unknowns.
 *
 * Written out here, not taken from a package, because it runs thousands of times per estimate on one pattern and must not
 * allocate. Unknowns with few neighbours (fin segments, skins) come first, so that eliminating them condenses the network to
 * the few nodes behind it.
 *
 * @param n number of unknowns
 * @param pattern n × n, row-major, non-zero where the matrix may be
 */
export function planElimination(n: number, pattern: ArrayLike<number>): EliminationPlan {
  const at = Uint8Array.from({ length: n * n }, (_, i) => (pattern[i] ? 1 : 0));
  const rows: number[] = [];
  const cols: number[] = [];
  const rowStart = new Int32Array(n + 1);
  const colStart = new Int32Array(n + 1);
  for (let k = 0; k < n; k++) {
    rowStart[k] = rows.length;
    colStart[k] = cols.length;
    for (let i = k + 1; i < n; i++) if (at[i * n + k]) rows.push(i);
    for (let j = k + 1; j < n; j++) if (at[k * n + j]) cols.push(j);
    for (let r = rowStart[k]!; r < rows.length; r++) {
      for (let c = colStart[k]!; c < cols.length; c++) at[rows[r]! * n + cols[c]!] = 1;
    }
  }
  rowStart[n] = rows.length;
  colStart[n] = cols.length;
  return { n, rowStart, rows: Int32Array.from(rows), colStart, cols: Int32Array.from(cols) };
}

/**
 * Factors a matrix in place into L (unit diagonal) and U, without exchanging rows.
 *
 * Sound for the matrices here, which are weakly diagonally dominant with no positive entry beside the diagonal (M-matrices),
 * or symmetric and positive definite:
 * no pivot shrinks and nothing cancels.
 *
 * @param a row-major n × n of the plan's pattern, overwritten
 * @throws Error where a pivot is not positive: a node without a path to the room
 */
export function factorPlanned(a: Float64Array, plan: EliminationPlan): void {
  const { n, rowStart, rows, colStart, cols } = plan;
  for (let k = 0; k < n; k++) {
    const pivot = a[k * n + k]!;
    if (!(pivot > 0)) throw new Error(`singular network: node ${k} has no path to the room`);
    const inverse = 1 / pivot;
    const c0 = colStart[k]!;
    const c1 = colStart[k + 1]!;
    for (let r = rowStart[k]!; r < rowStart[k + 1]!; r++) {
      const row = rows[r]! * n;
      const l = a[row + k]! * inverse;
      a[row + k] = l;
      if (l === 0) continue;
      for (let c = c0; c < c1; c++) a[row + cols[c]!]! -= l * a[k * n + cols[c]!]!;
    }
  }
}

/**
 * Solves `A x = b` in place with the factors of {@link factorPlanned}.
 *
 * @param b right-hand side, overwritten by the solution
 */
export function solvePlanned(a: Float64Array, plan: EliminationPlan, b: Float64Array): void {
  const { n, rowStart, rows, colStart, cols } = plan;
  for (let k = 0; k < n; k++) {
    const x = b[k]!;
    if (x === 0) continue;
    for (let r = rowStart[k]!; r < rowStart[k + 1]!; r++) {
      const row = rows[r]!;
      b[row]! -= a[row * n + k]! * x;
    }
  }
  for (let k = n - 1; k >= 0; k--) {
    let s = b[k]!;
    for (let c = colStart[k]!; c < colStart[k + 1]!; c++) s -= a[k * n + cols[c]!]! * b[cols[c]!]!;
    b[k] = s / a[k * n + k]!;
  }
}
