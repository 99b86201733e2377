import { openCase, type CaseRequest } from '../case/openCase';
import type { CaseCalibration } from '../case/calibrated';
import type { Cap } from '../envelope/fanStates';
import { sustainedBands } from '../uncertainty/sustainedBands';
import { SHOWN_DRAWS, SHOWN_SEED } from '../uncertainty/wattsBand';
import { caseCalibration } from './caseCalibration';
import { withoutLearned } from '../record/labDefaults';
import type { CalibrationAnswer } from './calibrationAnswer';
import { fitMultipliers, type Calibration, type FitOptions } from './fitMultipliers';
import { predictRuns } from './holdout';
import { readingsOf, type SteadyRun } from './steadyRun';

/** A multiplier that is neither one of those a bench is expected to tell nor moved this far, in prior deviations, is not worth a line. */
const MOVED = 1;

/**
 * Fits a machine to its runs, foretells those held out, and says what that makes of its watts.
 *
 * @param request the record and what applies to it, without a calibration
 * @param fit steady states that the fit may see, at least one
 * @param heldOut steady states that it may not
 * @param caps at which watts are told before and after
 * @param options of the fit
 * @returns what people read, and the calibration as every computation takes it
 * @throws RangeError where the runs hold no reading, or one that cannot be
 */
export function calibrate(
  request: CaseRequest,
  fit: readonly SteadyRun[],
  heldOut: readonly SteadyRun[],
  caps: readonly Cap[],
  options: FitOptions = {},
): { answer: CalibrationAnswer; calibration: CaseCalibration } {
  const plain = { ...request, calibration: null };
  const open = openCase(unlearned(plain));
  const found = fitMultipliers(open, fit, options);
  const calibration = caseCalibration(found);
  const drawn = { caps, draws: SHOWN_DRAWS, seed: SHOWN_SEED };
  const before = sustainedBands(openCase(plain), drawn);
  const after = sustainedBands(openCase({ ...plain, calibration }), drawn);
  const answer: CalibrationAnswer = {
    ...fitWords(found, fit),
    heldOut: heldOut.length === 0 ? [] : foretold(open, found, heldOut),
    caps: caps.map((cap, i) => ({ cap, before: bandOf(before[i]!), after: bandOf(after[i]!) })),
  };
  return { answer, calibration };
}

/** A request as a fit to a machine's own runs begins from it. */
export const unlearned = (request: CaseRequest): CaseRequest => ({
  ...request,
  lab: { ...request.lab, defaults: withoutLearned(request.lab?.defaults) },
});

const bandOf = ({ p05, p50, p95 }: { p05: number; p50: number; p95: number }) => ({
  p05,
  p50,
  p95,
});

function fitWords(found: Calibration, runs: readonly SteadyRun[]) {
  const readings = readingsOf(runs);
  return {
    multipliers: found.multipliers
      .filter((m) => m.named || m.determined || Math.abs(m.z) > MOVED)
      .map(({ name, z, zRange, deviation, determined, value, prior, low, high }) => ({
        name,
        z,
        zLow: zRange[0],
        zHigh: zRange[1],
        deviation,
        determined,
        value,
        prior,
        low,
        high,
      })),
    directions: found.directions,
    residuals: found.residuals.map((r) => ({
      run: runs[r.run]!.id,
      kind: r.kind,
      part: r.part,
      value: r.value,
      plusMinus: r.plusMinus,
      atMost: r.atMost ?? false,
      predicted: r.predicted,
      inDeviations: r.inDeviations,
    })),
    contradictions: found.contradictions.map(({ run, reading, chance }) => ({
      run: runs[run]!.id,
      kind: reading === null ? null : readings[reading]!.kind,
      part: reading === null ? null : readings[reading]!.part,
      chance,
    })),
    suspicions: found.suspicions.map(({ kind, part, run, text }) => ({
      kind,
      part,
      run: run === null ? null : runs[run]!.id,
      text,
    })),
    misfit: found.misfit,
    unexplained: found.unexplained,
    converged: found.converged,
    effectiveDraws: found.effectiveDraws,
  };
}

const foretold = (
  open: ReturnType<typeof openCase>,
  found: Calibration,
  runs: readonly SteadyRun[],
): CalibrationAnswer['heldOut'] =>
  predictRuns(open, found, runs).map((r) => ({
    run: runs[r.run]!.id,
    kind: r.kind,
    part: r.part,
    value: r.value,
    atMost: r.atMost ?? false,
    predicted: r.predicted,
    inside: r.atMost ? r.predicted.low <= r.value : r.inside,
  }));
