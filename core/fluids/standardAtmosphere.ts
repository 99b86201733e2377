/**
 * Standard atmosphere below the tropopause.
 *
 * `T = 288.15 − 0.0065 H`, `p = 101325 (T / 288.15)^5.25588`, H geopotential.
 *
 * @param altitudeM geopotential altitude, −1000…11 000 m
 * @returns temperature K, pressure Pa, density kg/m³
 * @throws RangeError outside the range
 * Source: ISO 2533:1975.
 * @example standardAtmosphere(1000).pressurePa // 89 874.6
 */
export function standardAtmosphere(altitudeM: number): {
  temperatureK: number;
  pressurePa: number;
  densityKgM3: number;
} {
  if (!(altitudeM >= -1000 && altitudeM <= 11000)) {
    throw new RangeError(
      `the standard atmosphere here covers −1000 to 11 000 m, not ${altitudeM} m`,
    );
  }
  const temperatureK = 288.15 - 0.0065 * altitudeM;
  const pressurePa = 101325 * Math.pow(temperatureK / 288.15, 9.80665 / (0.0065 * 287.05287));
  return { temperatureK, pressurePa, densityKgM3: pressurePa / (287.05287 * temperatureK) };
}
