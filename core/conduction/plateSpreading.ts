/** A heated rectangle on a plate, its centre measured from the plate's corner, all in metres. */
export interface PlateSource {
  centreXM: number;
  centreYM: number;
  widthM: number;
  lengthM: number;
}

const TERMS = 40;

/**
 * Mean temperature of several rectangular sources on one plate that is cooled evenly on its far side, above the mean of that
 * side, per watt of each: eccentric sources and what one does to another.
 *
 * Fourier series of the plate's temperature, averaged over each source; `λ = mπ/a`, `δ = nπ/b`, `β = √(λ² + δ²)`,
 * `φ(ζ) = (ζ sinh ζt + (h/k) cosh ζt)/(ζ cosh ζt + (h/k) sinh ζt)`. The uniform term keeps only the plate's own `t/(kA)`;
 * `1/(hA)` belongs to what cools it.
 *
 * @param sources inside the plate
 * @param widthM, lengthM plate sides a and b
 * @param thicknessM plate thickness t
 * @param conductivityWmK plate conductivity k
 * @param hWm2K effective coefficient on the cooled side h, > 0
 * @returns symmetric matrix in K/W, row-major; an entry between two sources may be below zero, since it is taken from the mean
 * Source: Muzychka, Culham & Yovanovich, Thermal spreading resistance of eccentric heat sources on rectangular flux channels,
 * J. Electronic Packaging 125 (2003) 178–185; from memory.
 */
export function plateSpreading(
  sources: readonly PlateSource[],
  widthM: number,
  lengthM: number,
  thicknessM: number,
  conductivityWmK: number,
  hWm2K: number,
): Float64Array {
  const n = sources.length;
  const a = widthM;
  const b = lengthM;
  const t = thicknessM;
  const k = conductivityWmK;
  const hk = hWm2K / k;
  const phi = (zeta: number) => {
    // with tanh in place of sinh and cosh nothing overflows
    const th = Math.tanh(zeta * t);
    return (zeta * th + hk) / (zeta + hk * th);
  };
  // mean of cos(λx) and cos(δy) over each source
  const meanX = new Float64Array(n * TERMS);
  const meanY = new Float64Array(n * TERMS);
  sources.forEach((s, i) => {
    for (let m = 0; m < TERMS; m++) {
      const lx = ((m + 1) * Math.PI) / a;
      const ly = ((m + 1) * Math.PI) / b;
      const cx = (lx * s.widthM) / 2;
      const cy = (ly * s.lengthM) / 2;
      meanX[i * TERMS + m] = (Math.cos(lx * s.centreXM) * Math.sin(cx)) / cx;
      meanY[i * TERMS + m] = (Math.cos(ly * s.centreYM) * Math.sin(cy)) / cy;
    }
  });
  const out = new Float64Array(n * n);
  const add = (
    weight: number,
    x: Float64Array | null,
    m: number,
    y: Float64Array | null,
    l: number,
  ) => {
    for (let i = 0; i < n; i++) {
      const wi = (x ? x[i * TERMS + m]! : 1) * (y ? y[i * TERMS + l]! : 1);
      for (let j = 0; j < n; j++) {
        const wj = (x ? x[j * TERMS + m]! : 1) * (y ? y[j * TERMS + l]! : 1);
        out[i * n + j]! += weight * wi * wj;
      }
    }
  };
  add(t / (k * a * b), null, 0, null, 0);
  for (let m = 0; m < TERMS; m++) {
    const lx = ((m + 1) * Math.PI) / a;
    const ly = ((m + 1) * Math.PI) / b;
    add(2 / (a * b * k * lx * phi(lx)), meanX, m, null, 0);
    add(2 / (a * b * k * ly * phi(ly)), null, 0, meanY, m);
    for (let l = 0; l < TERMS; l++) {
      const dy = ((l + 1) * Math.PI) / b;
      const beta = Math.sqrt(lx * lx + dy * dy);
      add(4 / (a * b * k * beta * phi(beta)), meanX, m, meanY, l);
    }
  }
  return out;
}
