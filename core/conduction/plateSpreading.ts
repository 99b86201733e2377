/** A heated rectangle on a plate, its centre measured from the plate's corner, all in metres. */
export interface PlateSource {
  centreXM: number;
  centreYM: number;
  widthM: number;
  lengthM: number;
}

/** A source is followed by so many waves across its own width; the smallest one by no more than {@link MOST}. */
const WAVES = 5;
const FEWEST = 8;
const MOST = 400;

/**
 * Mean temperature of several rectangular sources on one plate that is cooled evenly on its far side, above the mean of that
 * side, per watt of each: eccentric sources and what one does to another.
 *
 * Fourier series of the plate's temperature, averaged over each source, as long as the smallest source needs; `λ = mπ/a`, `δ = nπ/b`, `β = √(λ² + δ²)`,
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
  let narrowest = Infinity;
  let shortest = Infinity;
  for (let i = 0; i < n; i++) {
    narrowest = Math.min(narrowest, sources[i]!.widthM);
    shortest = Math.min(shortest, sources[i]!.lengthM);
  }
  const across = termsFor(a, narrowest);
  const along = termsFor(b, shortest);
  // mean of cos(λx) and cos(δy) over each source; the first is 1
  if (meanX.length < n * across) meanX = new Float64Array(n * across);
  if (meanY.length < n * along) meanY = new Float64Array(n * along);
  for (let i = 0; i < n; i++) {
    const { centreXM, centreYM, widthM: width, lengthM: length } = sources[i]!;
    cosineMeans(meanX, i * across, across, Math.PI / a, centreXM, width);
    cosineMeans(meanY, i * along, along, Math.PI / b, centreYM, length);
  }
  const out = new Float64Array(n * n).fill(t / (k * a * b));
  for (let m = 0; m < across; m++) {
    // of a source in the middle every second wave has no mean
    if (!isHeard(meanX, n, across, m)) continue;
    const lx = (m * Math.PI) / a;
    for (let l = m === 0 ? 1 : 0; l < along; l++) {
      if (!isHeard(meanY, n, along, l)) continue;
      const dy = (l * Math.PI) / b;
      const beta = Math.sqrt(lx * lx + dy * dy);
      const bt = beta * t;
      // with tanh in place of sinh and cosh nothing overflows; far up it is 1, and by exp it takes half as long
      const th = bt > DEEP ? 1 : 1 - 2 / (Math.exp(2 * bt) + 1);
      const phi = (beta * th + hk) / (beta + hk * th);
      const weight = (m === 0 || l === 0 ? 2 : 4) / (a * b * k * beta * phi);
      for (let i = 0; i < n; i++) {
        const wi = weight * meanX[i * across + m]! * meanY[i * along + l]!;
        for (let j = 0; j <= i; j++) {
          out[i * n + j]! += wi * meanX[j * across + m]! * meanY[j * along + l]!;
        }
      }
    }
  }
  for (let i = 0; i < n; i++) for (let j = 0; j < i; j++) out[j * n + i] = out[i * n + j]!;
  return out;
}

/** Whether the mean of a wave over any source is more than rounding. */
function isHeard(means: Float64Array, sources: number, terms: number, wave: number): boolean {
  for (let i = 0; i < sources; i++) if (Math.abs(means[i * terms + wave]!) > SILENT) return true;
  return false;
}

const SILENT = 1e-9;

/** Working memory. */
let meanX = new Float64Array(0);
let meanY = new Float64Array(0);

/** Where tanh is 1 to a millionth. */
const DEEP = 7;

/** How many terms of a cosine series along a side a source on it needs. */
export function termsFor(sideM: number, sourceM: number): number {
  return Math.min(MOST, Math.max(FEWEST, Math.ceil((WAVES * sideM) / sourceM)));
}

/** Means of `cos(m λ x)` over a source, m from 0, into `count` places of `out` from `at` on. */
export function cosineMeans(
  out: Float64Array,
  at: number,
  count: number,
  lambda: number,
  centreM: number,
  sizeM: number,
): void {
  const half = (lambda * sizeM) / 2;
  // cos(m x) and sin(m y) from their two forerunners: a fifth of the time
  const twiceCos = 2 * Math.cos(lambda * centreM);
  const twiceSin = 2 * Math.cos(half);
  let cos = 1;
  let cosBefore = 0.5 * twiceCos;
  let sin = 0;
  let sinBefore = -Math.sin(half);
  for (let m = 0; m < count; m++) {
    out[at + m] = m * half > 1e-9 ? (cos * sin) / (m * half) : cos;
    const nextCos = twiceCos * cos - cosBefore;
    cosBefore = cos;
    cos = nextCos;
    const nextSin = twiceSin * sin - sinBefore;
    sinBefore = sin;
    sin = nextSin;
  }
}
