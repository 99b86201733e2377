/** Saturated water and its vapor, SI units. */
export interface WaterProperties {
  pressurePa: number;
  liquidDensityKgM3: number;
  vaporDensityKgM3: number;
  latentHeatJkg: number;
  surfaceTensionNm: number;
  liquidViscosityPaS: number;
  vaporViscosityPaS: number;
  liquidConductivityWmK: number;
}

const T_CRITICAL_K = 647.096;
const P_CRITICAL_PA = 22.064e6;
const RHO_CRITICAL = 322;

/**
 * Saturated water between 10 and 150 °C, the working fluid of the pipes.
 *
 * Pressure and densities: the supplementary saturation equations; latent heat by Clapeyron,
 * `h_fg = T (1/ρ_v − 1/ρ_l) dp/dT`; surface tension `235.8e-3 τ^1.256 (1 − 0.625 τ)`; liquid viscosity and
 * conductivity at 0.1 MPa (the pressure's effect stays below 0.5 % here); vapor viscosity in the dilute limit.
 *
 * @param temperatureC saturation temperature, °C; below 10 and above 150 the end value is used, since a solver may
 *   pass there on its way
 * @param out where given, overwritten and returned, for inner loops
 * @returns properties in SI units
 * Source: IAPWS SR1-86(1992), R1-76(2014), SR6-08(2011), R12-08 (dilute term). Coefficients from memory, checked in
 * the tests against Incropera et al., table A.6.
 * @example water(56.85).latentHeatJkg // about 2.366e6
 */
export function water(temperatureC: number, out: WaterProperties = emptyWater()): WaterProperties {
  const t = Math.min(150, Math.max(10, temperatureC)) + 273.15;
  const tau = 1 - t / T_CRITICAL_K;
  const t05 = Math.sqrt(tau);
  const t15 = tau * t05;
  const poly =
    -7.85951783 * tau +
    1.84408259 * t15 -
    11.7866497 * tau ** 3 +
    22.6807411 * tau ** 3 * t05 -
    15.9618719 * tau ** 4 +
    1.80122502 * tau ** 7 * t05;
  const lnP = (T_CRITICAL_K / t) * poly;
  const pressurePa = P_CRITICAL_PA * Math.exp(lnP);
  const slope =
    -7.85951783 +
    1.5 * 1.84408259 * t05 -
    3 * 11.7866497 * tau ** 2 +
    3.5 * 22.6807411 * tau ** 2 * t05 -
    4 * 15.9618719 * tau ** 3 +
    7.5 * 1.80122502 * tau ** 6 * t05;
  const dpdt = -(pressurePa / t) * (lnP + slope);
  const c = Math.cbrt(tau);
  const liquidDensityKgM3 =
    RHO_CRITICAL *
    (1 +
      1.99274064 * c +
      1.09965342 * c ** 2 -
      0.510839303 * c ** 5 -
      1.75493479 * c ** 16 -
      45.5170352 * c ** 43 -
      6.7469445e5 * c ** 110);
  const s = Math.sqrt(c);
  const vaporDensityKgM3 =
    RHO_CRITICAL *
    Math.exp(
      -2.0315024 * s ** 2 -
        2.6830294 * s ** 4 -
        5.38626492 * s ** 8 -
        17.2991605 * s ** 18 -
        44.7586581 * s ** 37 -
        63.9201063 * s ** 71,
    );
  const r = t / 300;
  const liquidViscosityPaS =
    1e-6 * (280.68 * r ** -1.9 + 511.45 * r ** -7.7 + 61.131 * r ** -19.6 + 0.45903 * r ** -40);
  const liquidConductivityWmK =
    1.663 * r ** -1.15 - 1.7781 * r ** -3.4 + 1.1567 * r ** -6 - 0.432115 * r ** -7.6;
  const tr = t / T_CRITICAL_K;
  const vaporViscosityPaS =
    (1e-4 * Math.sqrt(tr)) / (1.67752 + 2.20462 / tr + 0.6366564 / tr ** 2 - 0.241605 / tr ** 3);
  out.pressurePa = pressurePa;
  out.liquidDensityKgM3 = liquidDensityKgM3;
  out.vaporDensityKgM3 = vaporDensityKgM3;
  out.latentHeatJkg = t * (1 / vaporDensityKgM3 - 1 / liquidDensityKgM3) * dpdt;
  out.surfaceTensionNm = 0.2358 * tau ** 1.256 * (1 - 0.625 * tau);
  out.liquidViscosityPaS = liquidViscosityPaS;
  out.vaporViscosityPaS = vaporViscosityPaS;
  out.liquidConductivityWmK = liquidConductivityWmK;
  return out;
}

/** A place for {@link water} to write to. */
export function emptyWater(): WaterProperties {
  return {
    pressurePa: 0,
    liquidDensityKgM3: 0,
    vaporDensityKgM3: 0,
    latentHeatJkg: 0,
    surfaceTensionNm: 0,
    liquidViscosityPaS: 0,
    vaporViscosityPaS: 0,
    liquidConductivityWmK: 0,
  };
}
