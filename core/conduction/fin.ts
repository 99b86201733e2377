import { besselJ0 } from './bessel';

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

/** A fin with heat entering over the middle of its edge, prepared for many coefficients. */
export interface SpreadingFin {
  thicknessM: number;
  conductivityWmK: number;
  /** From the joint to the insulated tip or mirror plane. */
  lengthM: number;
  /** Whether the contact is as wide as the fin is deep, so that nothing spreads and the modes say nothing. */
  isEven: boolean;
  modes: Modes;
}

interface Modes {
  /** Wave numbers squared of the modes that follow the coefficient, and what each adds to the three sums. */
  k2: Float64Array;
  even: Float64Array;
  mixed: Float64Array;
  edged: Float64Array;
  /** Sums of all finer modes, which no coefficient moves. */
  fineEven: number;
  fineMixed: number;
  fineEdged: number;
}

/** Modes coarse enough for the coefficient to matter, and those summed one by one beyond. */
const FOLLOWED = 6;
const SUMMED = 40;
/** Beyond this tanh is 1. */
const DEEP = 6;

/** Room for {@link spreadingFin}. */
export function createSpreadingFin(): SpreadingFin {
  const zeros = () => new Float64Array(FOLLOWED);
  const modes: Modes = {
    k2: zeros(),
    even: zeros(),
    mixed: zeros(),
    edged: zeros(),
    fineEven: 0,
    fineMixed: 0,
    fineEdged: 0,
  };
  return { thicknessM: 0, conductivityWmK: 0, lengthM: 0, isEven: true, modes };
}

/**
 * Prepares the spreading of heat inside a fin from a contact narrower than the fin is deep. What enters is a mixture of an even
 * stream and one that crowds at the contact's edges as under an isothermal strip; both are cosine series over half the depth.
 *
 * @param fin the fin's size, material and on how many sides it is joined
 * @param contactDepthM width of all pipes or the plate under the fin, measured along the air's way, > 0
 * @param out where given, overwritten and returned, for inner loops
 */
export function spreadingFin(
  fin: FinRow,
  contactDepthM: number,
  out: SpreadingFin = createSpreadingFin(),
): SpreadingFin {
  const halfDepthM = fin.depthM / 2;
  const lengthM = fin.joined === 'both-sides' ? fin.heightM / 2 : fin.heightM;
  out.thicknessM = fin.thicknessM;
  out.conductivityWmK = fin.conductivityWmK;
  out.lengthM = lengthM;
  const half = Math.min(contactDepthM / 2, halfDepthM);
  out.isEven = half >= halfDepthM * (1 - 1e-9);
  if (out.isEven) return out;
  const { modes } = out;
  modes.fineEven = 0;
  modes.fineMixed = 0;
  modes.fineEdged = 0;
  // sin(n x) from its two forerunners: a fifth of the time of a sine
  const angle = (Math.PI * half) / halfDepthM;
  const twice = 2 * Math.cos(angle);
  let sine = Math.sin(angle);
  let before = 0;
  for (let n = 1; n <= SUMMED; n++) {
    const k = (n * Math.PI) / halfDepthM;
    const even = sine / (n * angle);
    const edged = besselJ0(n * angle);
    if (n <= FOLLOWED) {
      modes.k2[n - 1] = k * k;
      modes.even[n - 1] = even * even;
      modes.mixed[n - 1] = even * edged;
      modes.edged[n - 1] = edged * edged;
    } else {
      const deep = k * lengthM;
      const depth = 1 / (deep > DEEP ? k : k * Math.tanh(deep));
      modes.fineEven += even * even * depth;
      modes.fineMixed += even * edged * depth;
      modes.fineEdged += edged * edged * depth;
    }
    const next = twice * sine - before;
    before = sine;
    sine = next;
  }
  // the rest of the series by the mean of its waves: J0² goes as 1/(π k a), the mixed term as 0.28 (k a)^−1.5
  const beyond = SUMMED + 0.5;
  const step = Math.PI / halfDepthM;
  modes.fineEdged += 1 / (Math.PI * half * step * step * beyond);
  modes.fineMixed += (0.2821 / 1.5) * half ** -1.5 * step ** -2.5 * beyond ** -1.5;
  modes.fineEven += 1 / (4 * half * half * step ** 3 * beyond * beyond);
  return out;
}

/**
 * Efficiency of a stack's fins, heat entering over the contact: two-dimensional conduction in the fin,
 * `η = 1/(2 h a R)`, `R = (A₀₀ A₁₁ − A₀₁²)/(A₀₀ + A₁₁ − 2 A₀₁)` from the two streams' sums over the modes,
 * `A = Σ c² (2 − δ)/(k t L λ tanh λH)`, `λ² = 2h/(k t) + (nπ/L)²`.
 *
 * @param fin prepared by {@link spreadingFin}
 * @param hWm2K heat transfer coefficient on both faces
 * @returns 0…1; `tanh(mH)/(mH)` where the contact is as wide as the fin is deep
 * Source: separation of variables; the least resistance of trial streams (Thomson’s principle); checked against two-dimensional
 * finite differences to 3 %.
 */
export function stackFinEfficiency(fin: SpreadingFin, hWm2K: number): number {
  const { lengthM, modes } = fin;
  if (fin.isEven) return finEfficiency(lengthM, fin.thicknessM, fin.conductivityWmK, hWm2K);
  const m2 = (2 * hWm2K) / (fin.conductivityWmK * fin.thicknessM);
  const m = Math.sqrt(m2);
  const mean = 1 / (m * Math.tanh(m * lengthM));
  let even = modes.fineEven;
  let mixed = modes.fineMixed;
  let edged = modes.fineEdged;
  for (let n = 0; n < FOLLOWED; n++) {
    const lambda = Math.sqrt(m2 + modes.k2[n]!);
    const deep = lambda * lengthM;
    const depth = 1 / (deep > DEEP ? lambda : lambda * Math.tanh(deep));
    even += modes.even[n]! * depth;
    mixed += modes.mixed[n]! * depth;
    edged += modes.edged[n]! * depth;
  }
  const a = mean + 2 * even;
  const b = mean + 2 * edged;
  const c = mean + 2 * mixed;
  const least = (a * b - c * c) / (a + b - 2 * c);
  // a share below 0 or above 1 is no mixture: then the better of both
  const between = (b - c) * (a - c) > 0;
  const resistance = between ? least : Math.min(a, b);
  return 1 / (resistance * m2 * lengthM);
}
