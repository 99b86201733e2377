/**
 * Spreading (constriction) resistance from a centred source into a plate that is cooled evenly on its far side, beyond
 * the plate's own one-dimensional resistance. Source and plate are turned into discs of equal area.
 *
 * `ε = a/b`, `τ = t/b`, `λ = π + 1/(√π ε)`, `Φ = (tanh λτ + λ/Bi) / (1 + (λ/Bi) tanh λτ)`, `Bi = h b / k`,
 * `R = ½ (1 − ε)^1.5 Φ · √π / (√π k a)` (mean source temperature).
 *
 * @param sourceAreaM2 heated area, > 0
 * @param plateAreaM2 plate area; at or below the source's area there is nothing to spread and 0 is returned
 * @param thicknessM plate thickness
 * @param conductivityWmK plate conductivity
 * @param hWm2K effective coefficient on the cooled side
 * @returns K/W
 * Source: Lee, Song, Au & Moran, Constriction/spreading resistance model for electronics packaging, 1995; from memory.
 */
export function spreadingResistance(
  sourceAreaM2: number,
  plateAreaM2: number,
  thicknessM: number,
  conductivityWmK: number,
  hWm2K: number,
): number {
  if (plateAreaM2 <= sourceAreaM2) return 0;
  const a = Math.sqrt(sourceAreaM2 / Math.PI);
  const b = Math.sqrt(plateAreaM2 / Math.PI);
  const eps = a / b;
  const tau = thicknessM / b;
  const lambda = Math.PI + 1 / (Math.sqrt(Math.PI) * eps);
  const biot = (hWm2K * b) / conductivityWmK;
  const th = Math.tanh(lambda * tau);
  const phi = (th + lambda / biot) / (1 + (lambda / biot) * th);
  const psiMean = 0.5 * Math.pow(1 - eps, 1.5) * phi;
  return psiMean / (conductivityWmK * a * Math.sqrt(Math.PI));
}
