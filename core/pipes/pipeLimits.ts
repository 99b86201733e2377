import type { WaterProperties } from '../fluids/water';

/** What a pipe's limits beside the capillary one need to know of it. */
export interface LimitedPipe {
  vaporAreaM2: number;
  vaporGapM: number;
  vaporWidthM: number;
  wickThicknessM: number;
  nucleationM: number;
  limitFactor: number;
  wick: { poreM: number; conductivityWmK: number };
}

const GAS_CONSTANT_WATER = 461.526;
const GAMMA_VAPOR = 1.33;

/** Hydraulic diameter of the vapor passage, a slot with round ends. */
export function vaporHydraulicM(pipe: LimitedPipe): number {
  const perimeter = Math.PI * pipe.vaporGapM + 2 * (pipe.vaporWidthM - pipe.vaporGapM);
  return (4 * pipe.vaporAreaM2) / perimeter;
}

/** Darcy f·Re of the vapor passage: 64 round, 96 as a wide slot, straight between over gap by width. */
export function vaporFriction(pipe: LimitedPipe): number {
  return 96 - 32 * Math.min(1, pipe.vaporGapM / pipe.vaporWidthM);
}

/**
 * Greatest axial heat flow before the vapor reaches its speed of sound at the evaporator's end.
 *
 * `Q = A_v ρ_v h_fg √(γ R T / (2(γ + 1)))`
 *
 * @param pipe the vapor passage
 * @param water saturated water at the vapor temperature
 * @param vaporC vapor temperature, 10…150 °C
 * @returns W
 * Source: Chi 1976; Faghri 1995; from memory.
 */
export function sonicW(pipe: LimitedPipe, water: WaterProperties, vaporC: number): number {
  const speed = Math.sqrt(
    (GAMMA_VAPOR * GAS_CONSTANT_WATER * (vaporC + 273.15)) / (2 * (GAMMA_VAPOR + 1)),
  );
  return pipe.limitFactor * pipe.vaporAreaM2 * water.vaporDensityKgM3 * water.latentHeatJkg * speed;
}

/**
 * Greatest axial heat flow before the vapor tears liquid off the wick.
 *
 * `Q = A_v h_fg √(σ ρ_v / (2 r_h))`, r_h the hydraulic radius of the wick's surface, taken as its effective pore radius.
 *
 * @returns W
 * Source: Cotter's Weber-number form in Chi 1976 and Faghri 1995; from memory.
 */
export function entrainmentW(pipe: LimitedPipe, water: WaterProperties): number {
  return (
    pipe.limitFactor *
    pipe.vaporAreaM2 *
    water.latentHeatJkg *
    Math.sqrt((water.surfaceTensionNm * water.vaporDensityKgM3) / (2 * pipe.wick.poreM))
  );
}

/**
 * How far the vapor's own pressure drives it against friction where it is thin: the greatest range of ∫Q dx.
 *
 * `range = D_h² A_v ρ_v p h_fg / (C μ_v)`, C the Darcy f·Re; in a round passage `D² A ρ p h_fg / (64 μ)`.
 *
 * @returns W·m
 * Source: Busse 1973 in Faghri 1995; from memory; the slot by its hydraulic diameter.
 */
export function viscousCapacityWm(pipe: LimitedPipe, water: WaterProperties): number {
  const dh = vaporHydraulicM(pipe);
  return (
    (pipe.limitFactor *
      dh *
      dh *
      pipe.vaporAreaM2 *
      water.vaporDensityKgM3 *
      water.pressurePa *
      water.latentHeatJkg) /
    (vaporFriction(pipe) * water.vaporViscosityPaS)
  );
}

/**
 * Greatest heat flux through a heated wick before bubbles stay in it.
 *
 * `q″ = k_wick ΔT / t_wick`, `ΔT = T_v (2σ/r_n − 2σ/r_pore) / (h_fg ρ_v)`
 *
 * @param pipe wick and nucleation radius
 * @param water saturated water at the vapor temperature
 * @param vaporC vapor temperature, 10…150 °C
 * @returns W/m²
 * Source: Chi 1976 (flat form of the radial one); Faghri 1995; from memory.
 */
export function boilingFlux(pipe: LimitedPipe, water: WaterProperties, vaporC: number): number {
  const bubble = 2 * water.surfaceTensionNm * (1 / pipe.nucleationM - 1 / pipe.wick.poreM);
  const superheat =
    ((vaporC + 273.15) * Math.max(0, bubble)) / (water.latentHeatJkg * water.vaporDensityKgM3);
  return (pipe.limitFactor * pipe.wick.conductivityWmK * superheat) / pipe.wickThicknessM;
}
