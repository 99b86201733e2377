/**
 * Resistance of an interface material: `R = (t/k · (1 + r·y) + c) / A`.
 *
 * @param bondLineM bond line thickness t, > 0
 * @param conductivityWmK conductivity k of the fresh material, > 0
 * @param areaM2 die area A, > 0
 * @param contactM2KW contact resistance c of both faces, m²K/W
 * @param ageYears years since renewal y, ≥ 0
 * @param ageingPerYear share r by which the resistance grows each year, ≥ 0; the growth stops at fourfold
 * @returns K/W
 * Source: one-dimensional conduction; ageing is common practice, no source.
 * @example interfaceResistance(40e-6, 5, 1e-4, 0, 0, 0) // 0.08
 */
export function interfaceResistance(
  bondLineM: number,
  conductivityWmK: number,
  areaM2: number,
  contactM2KPerW: number,
  ageYears: number,
  ageingPerYear: number,
): number {
  const aged = Math.min(4, 1 + ageingPerYear * ageYears);
  return ((bondLineM / conductivityWmK) * aged + contactM2KPerW) / areaM2;
}
