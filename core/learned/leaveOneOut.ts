import { openCase, type CaseRequest } from '../case/openCase';
import type { Cap } from '../envelope/fanStates';
import type { DefaultKey } from '../record/defaults';
import type { LabDefaults } from '../record/resolver';
import { planDraws } from '../uncertainty/drawPlan';
import { COLUMNS, READOUTS, roomForDraws, runDraws } from '../uncertainty/draws';
import { quantileOfSorted } from '../uncertainty/quantile';
import { SHOWN_DRAWS, SHOWN_SEED } from '../uncertainty/wattsBand';
import type { Band3 } from '../verdict/bandWords';
import type { FactorEvidence } from './factorEvidence';
import { learnedDefaults } from './learnedDefaults';
import { fitPopulation } from './populationFit';

/** A machine that taught something: its record without runs, what its runs told, and where it is foretold. */
export interface TaughtBy {
  request: CaseRequest;
  evidence: FactorEvidence;
  cap: Cap;
}

/** Watts foretold of a machine as if it had not been measured: as built in, and by what the others taught. */
export interface LeftOut {
  before: Band3;
  after: Band3;
}

export interface LeaveOneOutOptions {
  draws?: number | undefined;
  /** Told of each machine; false ends it with those. */
  progress?: ((done: number, of: number) => boolean | void) | undefined;
}

/** With more machines than this, several are left out at once: what the others taught is then a little less than it could be. */
const MOST_PARTS = 24;
/** What is learned without some of them is learned in fewer sweeps. */
const SWEEPS = 2000;

/**
 * Foretells each machine at its cap from what all the others taught, its own runs left out.
 *
 * @param machines at least two
 * @param slopes of each machine's watts, in the order of the factors of a population of all of them; empty for a machine that lends none
 * @returns one for each, in their order; fewer where it was ended
 */
export function leaveOneOut(
  machines: readonly TaughtBy[],
  keys: readonly DefaultKey[],
  slopes: readonly (readonly Float64Array[])[],
  { draws = SHOWN_DRAWS, progress }: LeaveOneOutOptions = {},
): LeftOut[] {
  const parts = Math.min(MOST_PARTS, machines.length);
  const learned = new Map<number, LabDefaults>();
  const without = (part: number): LabDefaults => {
    const known = learned.get(part);
    if (known) return known;
    const isOther = (_: unknown, j: number) => j % parts !== part;
    const population = fitPopulation(
      machines.filter(isOther).map((m) => m.evidence),
      { sweeps: SWEEPS },
    );
    // a factor that only those left out have is none of the others'
    const at = population.factors.map((f) => keys.indexOf(f.key));
    const rows = slopes
      .filter(isOther)
      .flat()
      .map((row) => Float64Array.from(at, (k) => row[k]!));
    const found = learnedDefaults(population, rows);
    learned.set(part, found);
    return found;
  };
  const out: LeftOut[] = [];
  for (const [i, { request, cap }] of machines.entries()) {
    out.push({
      before: bandAt(request, {}, cap, draws),
      after: bandAt(request, without(i % parts), cap, draws),
    });
    if (progress?.(i + 1, machines.length) === false) break;
  }
  return out;
}

/** Watts of both dies, or of the only one, without runs and with these defaults. */
function bandAt(request: CaseRequest, defaults: LabDefaults, cap: Cap, draws: number): Band3 {
  const open = openCase({ ...request, calibration: null, lab: { ...request.lab, defaults } });
  const plan = planDraws(open, { caps: [cap], draws, seed: SHOWN_SEED, togetherOnly: true });
  const drawn = roomForDraws(plan, draws);
  runDraws(plan, 0, draws, drawn);
  const readout = plan.rays[READOUTS - 1] ? READOUTS - 1 : plan.rays.findIndex((r) => r !== null);
  const watts = Float64Array.from(
    { length: draws },
    (_, row) => drawn.watts[row * COLUMNS + readout]!,
  ).sort();
  const at = (p: number) => quantileOfSorted(watts, p);
  return { p05: at(0.05), p50: at(0.5), p95: at(0.95) };
}
