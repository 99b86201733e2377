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
  const a = widthM;
  const b = lengthM;
  const across = termsFor(a, die.widthM);
  const along = termsFor(b, die.lengthM);
  const x = new Float64Array(across);
  const y = new Float64Array(along);
  cosineMeans(x, Math.PI / a, die.centreXM, die.widthM);
  cosineMeans(y, Math.PI / b, die.centreYM, die.lengthM);
  // pressure in the four corners and in the middle of the die, from one and the same terms
  const corners = [0, 0, 0, 0];
  let middle = 0;
  for (let m = 0; m < across; m++) {
    const lx = (m * Math.PI) / a;
    const atX = Math.cos(lx * die.centreXM);
    for (let l = m === 0 ? 1 : 0; l < along; l++) {
      const ly = (l * Math.PI) / b;
      const weight = ((m === 0 || l === 0 ? 2 : 4) * x[m]! * y[l]!) / (a * b * (lx * lx + ly * ly));
      middle -= weight * atX * Math.cos(ly * die.centreYM);
      const signX = m % 2 ? -1 : 1;
      const signY = l % 2 ? -1 : 1;
      corners[0]! -= weight;
      corners[1]! -= weight * signX;
      corners[2]! -= weight * signY;
      corners[3]! -= weight * signX * signY;
    }
  }
  return Math.max(0, 2 * Math.PI * (Math.max(...corners) - middle));
}
