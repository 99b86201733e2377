import { air, KELVIN } from '../fluids/air';

export const STEFAN_BOLTZMANN = 5.670374419e-8;

/** Rayleigh numbers over which both correlations below were published, the narrower of the two. */
export const CONVECTION_RAYLEIGH = { low: 1e4, high: 1e9 };

/**
 * Rayleigh number of a horizontal surface: `g β ΔT L³ Pr / ν²`, L its area over its perimeter.
 *
 * @param difference surface over room, K, > 0
 * Source: Incropera et al., ch. 9; from memory.
 */
export function horizontalRayleigh(
  widthM: number,
  depthM: number,
  difference: number,
  ambientC: number,
  pressurePa: number,
): number {
  const p = air(ambientC + difference / 2, pressurePa);
  const length = (widthM * depthM) / (2 * (widthM + depthM));
  const nu = p.viscosityPaS / p.densityKgM3;
  const beta = 1 / (ambientC + difference / 2 + KELVIN);
  return ((9.80665 * beta * difference * length ** 3) / (nu * nu)) * p.prandtl;
}

/**
 * Mean coefficient of natural convection on a flat horizontal surface warmer than the room.
 *
 * Facing up: `Nu = 0.54 Ra^¼` (Ra ≤ 1e7), `0.15 Ra^⅓` above; facing down: `0.27 Ra^¼`; length = area over perimeter.
 *
 * @param facing which way the surface looks
 * @param widthM, depthM the surface's sides
 * @param surfaceC surface temperature; at or below the room the value at 0.1 K is used
 * @param ambientC room temperature
 * @param pressurePa room pressure
 * @returns W/m²K
 * Source: Incropera et al., ch. 9, eqs. 9.30–9.32; from memory.
 */
export function horizontalConvection(
  facing: 'up' | 'down',
  widthM: number,
  depthM: number,
  surfaceC: number,
  ambientC: number,
  pressurePa: number,
): number {
  const difference = Math.max(0.1, surfaceC - ambientC);
  const film = ambientC + difference / 2;
  const p = air(film, pressurePa);
  const length = (widthM * depthM) / (2 * (widthM + depthM));
  const nu = p.viscosityPaS / p.densityKgM3;
  const beta = 1 / (film + KELVIN);
  const rayleigh = ((9.80665 * beta * difference * length ** 3) / (nu * nu)) * p.prandtl;
  const nusselt =
    facing === 'down'
      ? 0.27 * Math.sqrt(Math.sqrt(rayleigh))
      : rayleigh <= 1e7
        ? 0.54 * Math.sqrt(Math.sqrt(rayleigh))
        : 0.15 * Math.cbrt(rayleigh);
  return (nusselt * p.conductivityWmK) / length;
}

/**
 * Radiation from a small warm surface to a large room as a coefficient: `ε σ (T² + T∞²)(T + T∞)`.
 *
 * @returns W/m²K
 * Source: Stefan–Boltzmann law.
 * @example radiationCoefficient(0.9, 40, 23) // 5.7
 */
export function radiationCoefficient(
  emissivity: number,
  surfaceC: number,
  ambientC: number,
): number {
  const t = surfaceC + KELVIN;
  const r = ambientC + KELVIN;
  return emissivity * STEFAN_BOLTZMANN * (t * t + r * r) * (t + r);
}
