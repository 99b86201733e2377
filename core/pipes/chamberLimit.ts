import { KELVIN } from '../fluids/air';
import type { WaterProperties } from '../fluids/water';

/** Shape of radial flow between discs of equal area, spread over the inner one: `ln(b/a) + ½`. */
function radialShape(dieAreaM2: number, chamberAreaM2: number): number {
  return 0.5 * Math.log(Math.max(1, chamberAreaM2 / dieAreaM2)) + 0.5;
}

/**
 * Pressure the vapor loses on its way from a die to the rim of its chamber, per watt: laminar radial flow between two plates.
 *
 * `Δp/Q = 6 μ_v / (π ρ_v h_fg g³) · (ln(b/a) + ½)`, g the height of the vapor space.
 *
 * @param dieAreaM2, chamberAreaM2 heated and whole area
 * @param vaporGapM height of the vapor space, > 0
 * @param water saturated water at the vapor temperature
 * @returns Pa/W
 * Source: Poiseuille flow between parallel plates, radial; Faghri 1995; from memory.
 */
export function chamberVaporPaPerW(
  dieAreaM2: number,
  chamberAreaM2: number,
  vaporGapM: number,
  water: WaterProperties,
): number {
  return (
    ((6 * water.vaporViscosityPaS) /
      (Math.PI * water.vaporDensityKgM3 * water.latentHeatJkg * vaporGapM ** 3)) *
    radialShape(dieAreaM2, chamberAreaM2)
  );
}

/**
 * Temperature the vapor loses on the same way, per watt, along the saturation line: `ΔT/Q = Δp/Q · T / (ρ_v h_fg)`.
 *
 * @param vaporC vapor temperature
 * @returns K/W
 * Source: Clausius–Clapeyron relation.
 */
export function chamberVaporKPerW(paPerW: number, vaporC: number, water: WaterProperties): number {
  return (paPerW * (vaporC + KELVIN)) / (water.vaporDensityKgM3 * water.latentHeatJkg);
}

/**
 * Watts a vapor chamber can take from one die before its wick runs dry there: radial liquid flow from the rim and the vapor's
 * way out.
 *
 * `Q = (2σ/r) / (μ_l (ln(b/a) + ½) / (2π ρ_l h_fg K t) + Δp_v/Q)`, a and b the radii of die and chamber as discs of equal area.
 *
 * @param dieAreaM2, chamberAreaM2 heated and whole area
 * @param wickM wick thickness t
 * @param vaporGapM height of the vapor space
 * @param wick permeability K and pore radius r
 * @param water saturated water at the vapor temperature
 * @returns W
 * Source: Darcy's law for radial flow; Reay, Kew & McGlen; from memory.
 */
export function chamberCapillaryW(
  dieAreaM2: number,
  chamberAreaM2: number,
  wickM: number,
  vaporGapM: number,
  wick: { permeabilityM2: number; poreM: number },
  water: WaterProperties,
): number {
  const liquidPaPerW =
    (water.liquidViscosityPaS * radialShape(dieAreaM2, chamberAreaM2)) /
    (2 * Math.PI * water.liquidDensityKgM3 * water.latentHeatJkg * wick.permeabilityM2 * wickM);
  const vaporPaPerW = chamberVaporPaPerW(dieAreaM2, chamberAreaM2, vaporGapM, water);
  return (2 * water.surfaceTensionNm) / wick.poreM / (liquidPaPerW + vaporPaPerW);
}
