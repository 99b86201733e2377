/**
 * Fins in a stack from their pitch: a fin at either end, so that n fins have n − 1 pitches and one thickness.
 *
 * `n = (w − s)/p + 1`, rounded; ± is what one count more or less and the pitch's own error leave.
 *
 * @param widthMm width of the stack, > 0
 * @param pitchMm middle to middle, > fin thickness
 * @param finThicknessMm ≥ 0
 * @throws RangeError where the pitch is not between the fin's thickness and the width
 * @example finsOfPitch(70, 1.1, 0.15) // 64
 */
export function finsOfPitch(widthMm: number, pitchMm: number, finThicknessMm: number): number {
  if (!(pitchMm > finThicknessMm) || !(pitchMm < widthMm)) {
    throw new RangeError('the pitch must be more than a fin’s thickness and less than the width');
  }
  return Math.round((widthMm - finThicknessMm) / pitchMm) + 1;
}

/** Pitch of a stack whose fins were counted, mm; the inverse of {@link finsOfPitch} but for the rounding. */
export function pitchOfFins(widthMm: number, finCount: number, finThicknessMm: number): number {
  return (widthMm - finThicknessMm) / (finCount - 1);
}

/**
 * Width of a round pipe pressed flat, its wall length unchanged: `w = t + π(D − t)/2`.
 *
 * @param diameterMm before pressing
 * @param flattenedMm thickness after, ≤ diameter
 * @example flattenedWidth(8, 3) // 10.85
 */
export function flattenedWidth(diameterMm: number, flattenedMm: number): number {
  return flattenedMm + (Math.PI * (diameterMm - flattenedMm)) / 2;
}

/** Diameter before pressing, from width and thickness after; the inverse of {@link flattenedWidth}. */
export function roundDiameter(widthMm: number, flattenedMm: number): number {
  return flattenedMm + (2 * (widthMm - flattenedMm)) / Math.PI;
}

/** Area of all fins, both faces, cm². */
export function finAreaCm2(heightMm: number, depthMm: number, finCount: number): number {
  return (2 * heightMm * depthMm * finCount) / 100;
}

/** Area that the outlet of a radial impeller sweeps, `π D b`, cm². */
export function sweptAreaCm2(impellerDiameterMm: number, bladeHeightMm: number): number {
  return (Math.PI * impellerDiameterMm * bladeHeightMm) / 100;
}

/** Speed of the blades' tips, `π D n`, m/s. */
export function tipSpeedMs(impellerDiameterMm: number, rpm: number): number {
  return (Math.PI * impellerDiameterMm * rpm) / 60_000;
}
