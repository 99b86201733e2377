import { KELVIN } from '../fluids/air';
import type { WaterProperties } from '../fluids/water';

/**
 * Pressure the vapor loses on its way from a die to the rim of its chamber, per watt: laminar flow between two plates.
 *
 * `Δp/Q = 6 μ_v / (π ρ_v h_fg g³) · S`, g the height of the vapor space.
 *
 * @param shape S of the flow, from `chamberFlowShape`
 * @param vaporGapM height of the vapor space, > 0
 * @param water saturated water at the vapor temperature
 * @returns Pa/W
 * Source: Poiseuille flow between parallel plates; Faghri 1995; from memory.
 */
export function chamberVaporPaPerW(
  shape: number,
  vaporGapM: number,
  water: WaterProperties,
): number {
  return (
    ((6 * water.vaporViscosityPaS) /
      (Math.PI * water.vaporDensityKgM3 * water.latentHeatJkg * vaporGapM ** 3)) *
    shape
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
 * Watts a vapor chamber can take from one die before its wick runs dry there: the liquid's way through the wick and the
 * vapor's way out.
 *
 * `Q = (2σ/r) / (μ_l S / (2π ρ_l h_fg K t) + Δp_v/Q)`.
 *
 * @param shape S of the flow, from `chamberFlowShape`
 * @param wickM wick thickness t
 * @param vaporGapM height of the vapor space
 * @param wick permeability K and pore radius r
 * @param water saturated water at the vapor temperature
 * @returns W
 * Source: Darcy's law; Reay, Kew & McGlen; from memory.
 */
export function chamberCapillaryW(
  shape: number,
  wickM: number,
  vaporGapM: number,
  wick: { permeabilityM2: number; poreM: number },
  water: WaterProperties,
): number {
  const liquidPaPerW =
    (water.liquidViscosityPaS * shape) /
    (2 * Math.PI * water.liquidDensityKgM3 * water.latentHeatJkg * wick.permeabilityM2 * wickM);
  const vaporPaPerW = chamberVaporPaPerW(shape, vaporGapM, water);
  return (2 * water.surfaceTensionNm) / wick.poreM / (liquidPaPerW + vaporPaPerW);
}
