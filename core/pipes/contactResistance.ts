export const COPPER_WMK = 390;

/**
 * Resistance per area between a part and the vapor inside a pipe pressed or soldered onto it: solder, wall and wet wick in
 * series, `R″ = R″_solder + t_wall/k_Cu + t_wick/k_wick`.
 *
 * @returns m²K/W
 * Source: one-dimensional conduction; Faghri 1995.
 */
export function pipeContactResistance(
  solderM2KPerW: number,
  wallM: number,
  wickM: number,
  wickConductivityWmK: number,
): number {
  return solderM2KPerW + wallM / COPPER_WMK + wickM / wickConductivityWmK;
}
