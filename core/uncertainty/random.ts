/**
 * A seeded stream of numbers in [0, 1): the same seed gives the same stream everywhere.
 *
 * @param seed whole number
 * Source: mulberry32, public domain; from memory.
 */
export function randomStream(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = a;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * Latin hypercube: for each column every one of n equal slices of (0, 1) once, in random order, at a random place inside.
 *
 * @param draws number of rows n, ≥ 1
 * @param columns number of columns
 * @param seed whole number
 * @returns column-major, `u[column · draws + row]`
 * Source: McKay, Beckman & Conover, Technometrics 21 (1979).
 */
export function latinHypercube(draws: number, columns: number, seed: number): Float64Array {
  const next = randomStream(seed);
  const u = new Float64Array(draws * columns);
  const order = new Int32Array(draws);
  for (let c = 0; c < columns; c++) {
    for (let i = 0; i < draws; i++) order[i] = i;
    for (let i = draws - 1; i > 0; i--) {
      const j = Math.floor(next() * (i + 1));
      const t = order[i]!;
      order[i] = order[j]!;
      order[j] = t;
    }
    for (let i = 0; i < draws; i++) u[c * draws + i] = (order[i]! + next()) / draws;
  }
  return u;
}
