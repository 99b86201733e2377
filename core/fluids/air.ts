/** Properties of dry air in SI units. */
export interface AirProperties {
  densityKgM3: number;
  viscosityPaS: number;
  conductivityWmK: number;
  heatCapacityJkgK: number;
  prandtl: number;
}

export const GAS_CONSTANT_AIR = 287.05287;
export const KELVIN = 273.15;
const TEN_TO_MINUS_12 = -12 * Math.LN10;

/**
 * Dry air as an ideal gas.
 *
 * Density `p / (R T)`; viscosity by Sutherland's law, `1.458e-6 T^1.5 / (T + 110.4)`; conductivity
 * `2.64638e-3 T^1.5 / (T + 245.4 · 10^(−12/T))`; heat capacity by a parabola through handbook points.
 *
 * @param temperatureC air temperature, −20…120 °C
 * @param pressurePa absolute pressure, Pa
 * @param out where given, overwritten and returned, for inner loops
 * @returns density kg/m³, viscosity Pa s, conductivity W/mK, heat capacity J/kgK, Prandtl number
 * @throws RangeError outside −60…200 °C, where the fits no longer hold
 * Source: ISO 2533:1975 (gas constant, both Sutherland fits); Incropera et al., table A.4 (heat capacity). From memory.
 * @example air(26.85, 101325).densityKgM3 // 1.1766
 */
export function air(
  temperatureC: number,
  pressurePa: number,
  out: AirProperties = emptyAir(),
): AirProperties {
  if (!(temperatureC >= -60 && temperatureC <= 200)) {
    throw new RangeError(`air properties are fitted for −60 to 200 °C, not ${temperatureC} °C`);
  }
  const t = temperatureC + KELVIN;
  const tPow = t * Math.sqrt(t);
  const viscosityPaS = (1.458e-6 * tPow) / (t + 110.4);
  const conductivityWmK = (2.64638e-3 * tPow) / (t + 245.4 * Math.exp(TEN_TO_MINUS_12 / t));
  const d = t - 300;
  const heatCapacityJkgK = 1007 + 0.03 * d + 4e-4 * d * d;
  out.densityKgM3 = pressurePa / (GAS_CONSTANT_AIR * t);
  out.viscosityPaS = viscosityPaS;
  out.conductivityWmK = conductivityWmK;
  out.heatCapacityJkgK = heatCapacityJkgK;
  out.prandtl = (viscosityPaS * heatCapacityJkgK) / conductivityWmK;
  return out;
}

/** A place for {@link air} to write to. */
export function emptyAir(): AirProperties {
  return { densityKgM3: 0, viscosityPaS: 0, conductivityWmK: 0, heatCapacityJkgK: 0, prandtl: 0 };
}
