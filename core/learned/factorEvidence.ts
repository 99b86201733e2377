import { EigenvalueDecomposition, inverse, Matrix } from 'ml-matrix';
import type { Calibration } from '../calibration/fitMultipliers';
import { DEFAULTS, type DefaultKey } from '../record/defaults';
import { isDefaultKey } from '../record/labDefaults';

/** What the runs of one machine tell of the factors that machines share, near the most likely ones. */
export interface FactorEvidence {
  /** The default that each factor is an instance of: machines with two kinds of fans have two of one. */
  keys: readonly DefaultKey[];
  /** Precision that the runs alone add, symmetric, in prior deviations; row by row. */
  information: Float64Array;
  /** That precision times where the runs alone would put the factors. */
  weighted: Float64Array;
}

/** Factors of how parts are built in and what they are made of, which one machine tells about the next; sizes are none. */
const LEARNED = [
  /^fans\.(psi|phi|curveExponent|leakage|recirculation)$/,
  /^finStacks\.(nusseltFactor|uaFactor)$/,
  /^heatPipes\.(solderM2KW|bendLoss|wallFactor|wickFactor|limitFactor\..+|wickWmK\..+)$/,
  /^dies\.(interface\.contactM2KW|interface\.ageingPerYear\..+|hotSpotFactor|shareOutside)$/,
  /^noise\.referenceDbA$/,
  /^shell\.(evenness\..+|spotCoefficientWm2K|boardWK|insideAirWm2K)$/,
  /^power\.(restW|restLidShare|restAirShare|fanW)$/,
];
export const LEARNED_FACTORS: readonly DefaultKey[] = (
  Object.keys(DEFAULTS) as DefaultKey[]
).filter((key) => LEARNED.some((x) => x.test(key)));

/** The default that a multiplier of this name stands for; null where it is none that is learned. */
export function learnedKey(name: string): DefaultKey | null {
  if (isDefaultKey(name)) return LEARNED_FACTORS.includes(name) ? name : null;
  const key = name.slice(0, name.lastIndexOf('.'));
  return isDefaultKey(key) && LEARNED_FACTORS.includes(key) ? key : null;
}

/** A factor that the runs leave wider than this, in prior deviations, is not told: its draws only add noise. */
const TOLD = 0.9;

/**
 * What a fit tells of the factors: all else that is uncertain is integrated out. How the factors hang together comes from the normal
 * approximation at the mode, `V = (I + GᵀG)⁻¹` of all multipliers, G the slopes of the readings' deviations there, which has no noise;
 * where each lies and how wide it is comes from the draws of the fit, which bend where the machine does. Of the factors' own block
 * the runs alone add `V_FF⁻¹ − I`, never less than nothing.
 *
 * @param fit under the built-in defaults, so that what was learned before is not counted twice
 * Source: normal approximation at the mode, Gelman et al., Bayesian Data Analysis, ch. 4; from memory.
 */
export function factorEvidence(fit: Calibration): FactorEvidence {
  const { parameters, jacobian, misfit, unexplained } = fit;
  const at = parameters.flatMap((p, i) => (learnedKey(p.name) ? [i] : []));
  const keys = at.map((i) => learnedKey(parameters[i]!.name)!);
  const f = at.length;
  if (f === 0) return { keys, information: new Float64Array(0), weighted: new Float64Array(0) };
  const told = jacobian.transpose().mmul(jacobian);
  // a fit that nothing explains has its deviations widened
  if (unexplained) told.mul(1 / misfit);
  const own = inverse(told.add(Matrix.eye(parameters.length))).selection(at, at);
  const middle = at.map((column, i) => {
    const near = Math.sqrt(own.get(i, i));
    const drawn = near < TOLD ? momentsOf(fit, column) : { mean: fit.z[column]!, deviation: near };
    const factor = drawn.deviation / near;
    for (let j = 0; j < f; j++) {
      own.set(i, j, own.get(i, j) * factor);
      own.set(j, i, own.get(j, i) * factor);
    }
    return drawn.mean;
  });
  return { keys, ...evidenceFrom(own, middle) };
}

/**
 * What was told of factors, from their covariance `V` and middles after it was: `V⁻¹ − I` is added to a prior of N(0, I), never less
 * than nothing.
 *
 * @param covariance symmetric, in prior deviations
 * @param middle in prior deviations
 */
export function evidenceFrom(
  covariance: Matrix,
  middle: readonly number[],
): Omit<FactorEvidence, 'keys'> {
  const f = middle.length;
  const { realEigenvalues, eigenvectorMatrix: e } = new EigenvalueDecomposition(
    inverse(covariance).sub(Matrix.eye(f)),
    { assumeSymmetric: true },
  );
  const more = Matrix.diag(realEigenvalues.map((x) => Math.max(0, x)));
  const information = e.mmul(more).mmul(e.transpose());
  // the prior's own middle is 0
  const weighted = information
    .clone()
    .add(Matrix.eye(f))
    .mmul(Matrix.columnVector([...middle]));
  return {
    information: Float64Array.from(information.to1DArray()),
    weighted: Float64Array.from(weighted.to1DArray()),
  };
}

function momentsOf({ draws: { z, count }, parameters }: Calibration, column: number) {
  const n = parameters.length;
  let sum = 0;
  let squares = 0;
  for (let k = 0; k < count; k++) {
    const x = z[k * n + column]!;
    sum += x;
    squares += x * x;
  }
  const mean = sum / count;
  return { mean, deviation: Math.sqrt(Math.max(1e-6, squares / count - mean * mean)) };
}
