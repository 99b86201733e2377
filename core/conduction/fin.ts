export interface FinRow {
  heightM: number;
  depthM: number;
  thicknessM: number;
  conductivityWmK: number;
  joined: 'one-side' | 'both-sides';
}

/**
 * Efficiency of a plain straight fin with an insulated tip: `tanh(mL)/(mL)`, `m = √(2h / (k t))`.
 *
 * @param lengthM from the base to the insulated tip or mirror plane
 * @param thicknessM fin thickness t
 * @param conductivityWmK fin conductivity k
 * @param hWm2K heat transfer coefficient on both faces
 * Source: Incropera et al., ch. 3, table 3.4 case B.
 * @example finEfficiency(0.01, 0.0005, 200, 50) // 0.968
 */
export function finEfficiency(
  lengthM: number,
  thicknessM: number,
  conductivityWmK: number,
  hWm2K: number,
): number {
  const ml = lengthM * Math.sqrt((2 * hWm2K) / (conductivityWmK * thicknessM));
  return ml < 1e-6 ? 1 : Math.tanh(ml) / ml;
}

/**
 * Efficiency of a stack's fins: along the height from the joint, times the spreading inside the fin from a contact
 * narrower than the fin is deep. The overhang on either side of the contact acts as a straight fin of that length.
 *
 * @param fin the fin's size, material and on how many sides it is joined
 * @param hWm2K heat transfer coefficient
 * @param contactDepthM width of all pipes or the plate under the fin, measured along the air's way, > 0
 * Source: Incropera et al., ch. 3; the overhang as a fin of its own is an engineering simplification.
 */
export function stackFinEfficiency(fin: FinRow, hWm2K: number, contactDepthM: number): number {
  const length = fin.joined === 'both-sides' ? fin.heightM / 2 : fin.heightM;
  const up = finEfficiency(length, fin.thicknessM, fin.conductivityWmK, hWm2K);
  const contact = Math.min(contactDepthM, fin.depthM);
  const overhang = (fin.depthM - contact) / 2;
  if (overhang <= 0) return up;
  const side = finEfficiency(overhang, fin.thicknessM, fin.conductivityWmK, hWm2K);
  return (up * (contact + (fin.depthM - contact) * side)) / fin.depthM;
}
