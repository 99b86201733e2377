import { cosineMeans, termsFor, type PlateSource } from '../conduction/plateSpreading';

/**
 * Shape of the liquid's flow through the wick of a chamber to a die, and of the vapor's flow back: how far the pressure falls
 * from where it is highest to the middle of the die, over what it falls in parallel flow through a strip as wide as it is long,
 * times 2π. Vapor condenses evenly over the whole outline and evaporates evenly over the die. Between discs it is `ln(b/a)`
 * and a little more.
 *
 * `∇²p = 1/A_die − 1/A` on the die, `−1/A` elsewhere, no flow over the rim: a Fourier series; the highest pressure lies in a
 * corner.
 *
 * @param die inside the outline
 * @param widthM, lengthM sides of the chamber
 * @returns dimensionless, ≥ 0
 * Source: Darcy's law, Carslaw & Jaeger's series for a rectangle; from memory.
 */
export function chamberFlowShape(die: PlateSource, widthM: number, lengthM: number): number {
  const pressures = chamberPressures(die, widthM, lengthM, [
    { xM: 0, yM: 0 },
    { xM: widthM, yM: 0 },
    { xM: 0, yM: lengthM },
    { xM: widthM, yM: lengthM },
    { xM: die.centreXM, yM: die.centreYM },
  ]);
  const middle = pressures[4]!;
  return Math.max(0, Math.max(...pressures.subarray(0, 4)) - middle);
}

/**
 * The liquid's pressure at places of a chamber's wick from one die's flow, from its mean over the outline, over what it falls
 * in parallel flow through a strip as wide as it is long, times 2π; as for {@link chamberFlowShape}.
 *
 * @param die inside the outline
 * @param widthM, lengthM sides of the chamber
 * @param places within the outline, from the corner the die is measured from
 * @returns dimensionless, one for each place
 * Source: Darcy's law, Carslaw & Jaeger's series for a rectangle; from memory.
 */
export function chamberPressures(
  die: PlateSource,
  widthM: number,
  lengthM: number,
  places: readonly { xM: number; yM: number }[],
): Float64Array {
  const a = widthM;
  const b = lengthM;
  const n = places.length;
  const across = termsFor(a, die.widthM);
  const along = termsFor(b, die.lengthM);
  const x = new Float64Array(across);
  const y = new Float64Array(along);
  cosineMeans(x, 0, x.length, Math.PI / a, die.centreXM, die.widthM);
  cosineMeans(y, 0, y.length, Math.PI / b, die.centreYM, die.lengthM);
  // each cosine along the chamber once for each place, not for every wave across
  const alongAt = new Float64Array(n * along);
  places.forEach(({ yM }, c) => {
    for (let l = 0; l < along; l++) alongAt[c * along + l] = Math.cos((l * Math.PI * yM) / b);
  });
  const out = new Float64Array(n);
  const wave = new Float64Array(n);
  for (let m = 0; m < across; m++) {
    const lx = (m * Math.PI) / a;
    wave.fill(0);
    for (let l = m === 0 ? 1 : 0; l < along; l++) {
      const ly = (l * Math.PI) / b;
      const weight = ((m === 0 || l === 0 ? 2 : 4) * x[m]! * y[l]!) / (a * b * (lx * lx + ly * ly));
      for (let c = 0; c < n; c++) wave[c]! += weight * alongAt[c * along + l]!;
    }
    for (let c = 0; c < n; c++) {
      out[c]! -= 2 * Math.PI * Math.cos(lx * places[c]!.xM) * wave[c]!;
    }
  }
  return out;
}
