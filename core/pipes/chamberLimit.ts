import type { WaterProperties } from '../fluids/water';

/**
 * Watts a vapor chamber can take from one die before its wick runs dry there: radial liquid flow from the rim.
 *
 * `Q = (2σ/r) · 2π ρ_l h_fg K t / μ_l / (ln(b/a) + ½)`, a and b the radii of die and chamber as discs of equal area.
 *
 * @param dieAreaM2, chamberAreaM2 heated and whole area
 * @param wickM wick thickness t
 * @param wick permeability K and pore radius r
 * @param water saturated water at the vapor temperature
 * @returns W
 * Source: Darcy's law for radial flow; Reay, Kew & McGlen; from memory.
 */
export function chamberCapillaryW(
  dieAreaM2: number,
  chamberAreaM2: number,
  wickM: number,
  wick: { permeabilityM2: number; poreM: number },
  water: WaterProperties,
): number {
  const spread = 0.5 * Math.log(Math.max(1, chamberAreaM2 / dieAreaM2)) + 0.5;
  const conductance =
    (2 * Math.PI * water.liquidDensityKgM3 * water.latentHeatJkg * wick.permeabilityM2 * wickM) /
    water.liquidViscosityPaS;
  return ((2 * water.surfaceTensionNm) / wick.poreM) * (conductance / spread);
}
