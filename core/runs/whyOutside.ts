import { fitMultipliers } from '../calibration/fitMultipliers';
import type { SteadyRun } from '../calibration/steadyRun';
import { openCase, type CaseRequest } from '../case/openCase';

/** What would bring a run that lies outside its band back into it. */
export interface WhyOutside {
  /** Figures that would have to be otherwise, the one moved furthest first. */
  moved: { name: string; z: number; value: number; prior: number }[];
  /** What may be otherwise than was recorded, in words. */
  suspicions: string[];
  /** Readings that even then stay apart. */
  apart: { kind: string; part: string; inDeviations: number }[];
}

const DRAWS = 200;
/** Less than this many prior deviations is no reason. */
const LEAST_Z = 0.4;
const MOST = 5;
/** A reading further off than this is not explained. */
const APART = 2.5;

/**
 * Fits the machine to this run alone and tells which figures that moves: what the run would have one believe.
 *
 * @param request record and what applies to it; a calibration is left aside
 * @param run one steady state
 * @throws RangeError where it holds no reading
 */
export function whyOutside(request: CaseRequest, run: SteadyRun): WhyOutside {
  const open = openCase({ ...request, calibration: null });
  const fit = fitMultipliers(open, [run], { draws: DRAWS });
  return {
    moved: fit.multipliers
      .filter((m) => Math.abs(m.z) >= LEAST_Z)
      .sort((a, b) => Math.abs(b.z) - Math.abs(a.z))
      .slice(0, MOST)
      .map(({ name, z, value, prior }) => ({ name, z, value, prior })),
    suspicions: fit.suspicions.map((s) => s.text),
    apart: fit.residuals
      .filter((r) => Math.abs(r.inDeviations) > APART)
      .map(({ kind, part, inDeviations }) => ({ kind, part, inDeviations })),
  };
}
