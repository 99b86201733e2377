/**
 * Loss coefficient of air drawn from the open through a grille, on the face velocity.
 *
 * `ζ = (1.707 − f)² / f²`
 *
 * @param openShare open area over face area f, 0 < f ≤ 1
 * Source: Idelchik, Handbook of Hydraulic Resistance, entrance through a thin grid; from memory.
 */
export function intakeGrilleLoss(openShare: number): number {
  return (1.707 - openShare) ** 2 / openShare ** 2;
}

/**
 * Loss coefficient of air blown through a grille into the open, on the face velocity; contains the lost velocity head.
 *
 * `ζ = (1 + 0.707 √(1 − f))² / f²`
 *
 * @param openShare open area over face area f, 0 < f ≤ 1
 * Source: Idelchik, Handbook of Hydraulic Resistance, exit through a thin grid; from memory.
 */
export function exhaustGrilleLoss(openShare: number): number {
  return (1 + 0.707 * Math.sqrt(1 - openShare)) ** 2 / openShare ** 2;
}

/**
 * Extra loss of a wire mesh behind a grille, on the velocity through the mesh.
 *
 * `ζ = 1.3 (1 − f) + (1/f − 1)²`
 *
 * @param openShare open share of the mesh, 0 < f ≤ 1
 * Source: Idelchik, circular metal wire screen; from memory.
 */
export function meshLoss(openShare: number): number {
  return 1.3 * (1 - openShare) + (1 / openShare - 1) ** 2;
}

/**
 * Entrance and exit loss of a row of fins, on the velocity between them.
 *
 * `ζ = 0.42 (1 − σ²) + (1 − σ)²`, σ the open share of the face. The kinetic energy in the passage's developing profile
 * is already inside the apparent friction.
 *
 * @param openShare gap over pitch σ, 0 < σ ≤ 1
 * Source: Kays & London, Compact Heat Exchangers, sudden contraction and expansion; from memory.
 */
export function finRowLoss(openShare: number): number {
  return 0.42 * (1 - openShare * openShare) + (1 - openShare) ** 2;
}

/**
 * Extra loss of lint on a stack's entrance, on the velocity between the fins: the mat as a screen that covers a share of it.
 *
 * `ζ = 1.3 s + (1/(1 − s) − 1)²`
 *
 * @param coveredShare share of the entrance under lint s, 0 ≤ s < 1
 * Source: Idelchik, screen; that lint acts like one is common practice, no source.
 */
export function lintLoss(coveredShare: number): number {
  return meshLoss(1 - coveredShare);
}
