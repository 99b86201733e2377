import { tipSpeedMs } from '../airflow/fanCurve';

const REFERENCE_TIP_MS = 17;
const REFERENCE_DIAMETER_M = 0.065;
const REFERENCE_HEIGHT_M = 0.009;
const REFERENCE_DENSITY_KGM3 = 1.2;
export const REFERENCE_DISTANCE_M = 0.5;

/**
 * Sound power of a fan over that of a 65 × 9 mm fan at 17 m/s tip speed: `(U/17)⁵ · D b / (65·9 mm²)`.
 *
 * @param impellerDiameterM impeller diameter
 * @param bladeHeightM blade height
 * @param rpm speed, ≥ 0
 * Source: fan sound laws (fifth power of speed), from memory.
 */
export function relativeSound(
  impellerDiameterM: number,
  bladeHeightM: number,
  rpm: number,
): number {
  const tip = tipSpeedMs(impellerDiameterM, rpm) / REFERENCE_TIP_MS;
  const size = (impellerDiameterM * bladeHeightM) / (REFERENCE_DIAMETER_M * REFERENCE_HEIGHT_M);
  return tip * tip * tip * tip * tip * size;
}

/**
 * A-weighted level of one fan at 0.5 m: `L = L₀ + 50·log10(U/17) + 10·log10(D b / (65·9 mm²)) + 20·log10(ρ/1.2)`.
 *
 * @param impellerDiameterM impeller diameter
 * @param bladeHeightM blade height
 * @param rpm speed, > 0
 * @param referenceDbA level L₀ of a 65 × 9 mm fan at 17 m/s tip speed
 * @param densityKgM3 of the air
 * Source: fan sound laws (50·log10 of speed; 20·log10 of density, AMCA 301), from memory; reference level common practice,
 * no source.
 */
export function fanLevelDbA(
  impellerDiameterM: number,
  bladeHeightM: number,
  rpm: number,
  referenceDbA: number,
  densityKgM3 = REFERENCE_DENSITY_KGM3,
): number {
  return (
    referenceDbA +
    10 * Math.log10(relativeSound(impellerDiameterM, bladeHeightM, rpm)) +
    20 * Math.log10(densityKgM3 / REFERENCE_DENSITY_KGM3)
  );
}

/**
 * Sum of incoherent levels: `10·log10 Σ 10^(Lᵢ/10)`.
 * @example sumLevels([40, 40]) // 43.01
 */
export function sumLevels(levels: readonly number[]): number {
  let sum = 0;
  for (const l of levels) sum += 10 ** (l / 10);
  return 10 * Math.log10(sum);
}

/**
 * Change of level from 0.5 m to another distance over a reflecting plane: `−20·log10(r / 0.5)`.
 * @param distanceM distance r, > 0
 * @example distanceChange(1) // −6.02
 */
export function distanceChange(distanceM: number): number {
  return -20 * Math.log10(distanceM / REFERENCE_DISTANCE_M);
}
