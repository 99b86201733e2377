import type { WaterProperties } from '../fluids/water';
import { vaporFriction, vaporHydraulicM, type LimitedPipe } from './pipeLimits';

export interface CapillaryPipe extends LimitedPipe {
  tiltRad: number;
  lengthM: number;
  wick: { permeabilityM2: number; poreM: number; conductivityWmK: number };
  wickAreaM2: number;
  thicknessM: number;
  wallM: number;
  /** Share of the reach that bends leave. */
  bendFactor: number;
}

/**
 * How far a pipe's capillary pump reaches: the greatest range of the axial integral ∫Q dx it can keep wet.
 *
 * `2σ/r − ρ g d cos β − ρ g L |sin β| = (F_l + F_v) · range(∫Q dx)`, with
 * `F_l = μ_l / (K A_w ρ_l h_fg)` and `F_v = f μ_v / (2 D_h² A_v ρ_v h_fg)`, f·Re of a slot (96, Darcy) to a round passage (64).
 * The tilt is taken against the flow, whichever end is heated; each bend takes a share of the reach.
 *
 * @param pipe section and wick
 * @param water saturated water at the vapor temperature
 * @returns watt-metres, 0 where gravity alone exceeds the pump
 * Source: Chi 1976; Reay, Kew & McGlen, Heat Pipes; from memory.
 */
export function capillaryCapacityWm(pipe: CapillaryPipe, water: WaterProperties): number {
  const inner = pipe.thicknessM - 2 * pipe.wallM;
  const gravity =
    water.liquidDensityKgM3 *
    9.80665 *
    (inner * Math.cos(pipe.tiltRad) + pipe.lengthM * Math.abs(Math.sin(pipe.tiltRad)));
  const pump = (2 * water.surfaceTensionNm) / pipe.wick.poreM - gravity;
  if (pump <= 0) return 0;
  const liquid =
    water.liquidViscosityPaS /
    (pipe.wick.permeabilityM2 * pipe.wickAreaM2 * water.liquidDensityKgM3 * water.latentHeatJkg);
  const dh = vaporHydraulicM(pipe);
  const vapor =
    (vaporFriction(pipe) * water.vaporViscosityPaS) /
    (2 * dh * dh * pipe.vaporAreaM2 * water.vaporDensityKgM3 * water.latentHeatJkg);
  return (pipe.bendFactor * pipe.limitFactor * pump) / (liquid + vapor);
}
