import { besselK0, besselK1 } from './bessel';

/**
 * Conductance from a warm spot on the shell into the sheet around it and through its own face, so that the skin over a
 * plate can be set apart from the shell's mean: an isothermal disc in a wide thin sheet that loses heat evenly.
 *
 * `G = h A + 2π a k t m · K₁(ma)/K₀(ma)`, `m = √(h/(k t))`, a the radius of the disc of equal area.
 *
 * @param areaM2 area of the plate above the skin, > 0
 * @param sheetConductivityWmK conductivity of the shell's material
 * @param sheetThicknessM thickness of the shell
 * @param hWm2K coefficient on the outside
 * @returns W/K
 * Source: annular fin of infinite extent, Incropera et al., ch. 3.
 */
export function skinSpotConductance(
  areaM2: number,
  sheetConductivityWmK: number,
  sheetThicknessM: number,
  hWm2K: number,
): number {
  const a = Math.sqrt(areaM2 / Math.PI);
  const kt = sheetConductivityWmK * sheetThicknessM;
  const m = Math.sqrt(hWm2K / kt);
  return hWm2K * areaM2 + (2 * Math.PI * a * kt * m * besselK1(m * a)) / besselK0(m * a);
}
