import type { Matrix } from 'ml-matrix';
import { findMode, logEvidence, slopesAt, type Mode, type Residuals } from './findMode';
import type { Reading } from './steadyRun';

/** How often a run is not what its sheet says, and a single instrument not where it should be (common practice, no source). */
const BAD_RUN = 0.05;
const BAD_READING = 0.02;
/** What is bad is off by so many of its deviations, or by as many as reach it from where nothing is known yet. */
const BAD_SPREAD = 10;
const REACHED = 0.5;
/** An explanation less likely than this over the best one is left out: log of the ratio. */
const FAR_BELOW = 4;
const MOST_BAD_SHARE = 0.25;
const MOST_STEPS = 3;

/** One account of the readings: which runs and readings are taken as bad, and the most likely multipliers then. */
export interface Explanation {
  badRuns: readonly number[];
  badReadings: readonly number[];
  /** Deviation of each reading over its own; what a bad bound says is nothing: ∞. */
  spread: Float64Array;
  /** Log of how likely it is to be so before anything is read, and of the widths of what is bad. */
  logPrior: number;
  mode: Mode;
  /** Log of prior and evidence together. */
  logEvidence: number;
}

/**
 * Accounts for readings: all of them, and where that is hard to believe also without single runs or readings, as far as that
 * explains more than it costs. A run or reading that contradicts the others thereby cannot drag them.
 *
 * @param residuals deviations of the readings at z
 * @param readings what was read
 * @param n number of unknowns
 * @param hard from which cost on others are sought
 * @returns the best one first, those much less likely left out; `plain` takes every reading at its word
 * Source: errors of two kinds as in Box & Tiao 1968, “A Bayesian approach to some outlier problems”; from memory.
 */
export function explain(
  residuals: Residuals,
  readings: readonly Reading[],
  n: number,
  hard: number,
): { explanations: Explanation[]; plain: Mode } {
  const zero = new Float64Array(n);
  const wide = Float64Array.from(residuals(zero), (r, i) =>
    readings[i]!.atMost ? Infinity : Math.max(BAD_SPREAD, REACHED * Math.abs(r)),
  );
  const all: readonly Counted[] = readings.map(({ run }, i) => ({ run, wide: wide[i]! }));
  const middle: Start = { z: zero, jacobian: slopesAt(residuals, zero), spread: null };
  const first = accountFor(residuals, all, { badRuns: [], badReadings: [] }, [middle], true);
  const runs = new Set(readings.map((r) => r.run)).size;
  const mostRuns = Math.max(1, Math.floor((runs - 1) / 2));
  const mostReadings = Math.max(1, Math.floor(MOST_BAD_SHARE * readings.length));
  const tried = [first];
  let best = first;
  for (let step = 0; step < MOST_STEPS && best.mode.cost > hard; step++) {
    const further = branches(best, readings, mostRuns, mostReadings).map((bad) =>
      accountFor(residuals, all, bad, [startAt(best), middle], false),
    );
    tried.push(...further);
    const found = further.reduce((a, b) => (b.logEvidence > a.logEvidence ? b : a), best);
    if (found === best) break;
    best = found;
  }
  const top = Math.max(...tried.map((x) => x.logEvidence));
  const explanations = tried
    .filter((x) => x.logEvidence > top - FAR_BELOW)
    .map((x) => (x === first ? x : accountFor(residuals, all, x, [startAt(x)], true)))
    .sort((a, b) => b.logEvidence - a.logEvidence);
  return { explanations, plain: first.mode };
}

type Bad = Pick<Explanation, 'badRuns' | 'badReadings'>;

/** One run or reading more that is taken as bad. */
function branches(
  { badRuns, badReadings, mode }: Explanation,
  readings: readonly Reading[],
  mostRuns: number,
  mostReadings: number,
): Bad[] {
  const out: Bad[] = [];
  const open = [...new Set(readings.map((r) => r.run))].filter((k) => !badRuns.includes(k));
  if (badRuns.length < mostRuns) {
    for (const k of open) {
      const within = badReadings.filter((i) => readings[i]!.run !== k);
      out.push({ badRuns: [...badRuns, k], badReadings: within });
    }
  }
  if (badReadings.length < mostReadings) {
    readings.forEach((r, i) => {
      const alone = readings.filter((x) => x.run === r.run).length === 1;
      if (alone || badRuns.includes(r.run) || badReadings.includes(i)) return;
      // one that is well met cannot be what is wrong
      if (Math.abs(mode.r[i]!) < 0.5) return;
      out.push({ badRuns, badReadings: [...badReadings, i] });
    });
  }
  return out;
}

/** Where a search begins, with the derivative there of residuals as an explanation counts them; null: as they are. */
interface Start {
  z: Float64Array;
  jacobian: Matrix;
  spread: Float64Array | null;
}

const startAt = ({ mode, spread }: Explanation): Start => ({
  z: mode.z,
  jacobian: mode.jacobian,
  spread,
});

/** A derivative as another explanation counts the readings. */
function recounted({ jacobian, spread: from }: Start, spread: Float64Array): Matrix {
  const out = jacobian.clone();
  spread.forEach((s, i) => {
    const factor = s === Infinity ? 0 : (from?.[i] ?? 1) / s;
    for (let j = 0; j < out.columns; j++) out.set(i, j, out.get(i, j) * factor);
  });
  return out;
}

/** A reading as an explanation counts it: its run, and how wide it is where it is bad; a bad bound says nothing. */
interface Counted {
  run: number;
  wide: number;
}

function spreadOf(readings: readonly Counted[], { badRuns, badReadings }: Bad): Float64Array {
  return Float64Array.from(readings, ({ run, wide }, i) =>
    badRuns.includes(run) || badReadings.includes(i) ? wide : 1,
  );
}

/** Residuals as an explanation counts them. */
export function counted(residuals: Residuals, spread: Float64Array): Residuals {
  const out = new Float64Array(spread.length);
  return (z) => {
    const r = residuals(z);
    for (let i = 0; i < out.length; i++) out[i] = r[i]! / spread[i]!;
    return out;
  };
}

function accountFor(
  residuals: Residuals,
  readings: readonly Counted[],
  { badRuns, badReadings }: Bad,
  starts: readonly Start[],
  fresh: boolean,
): Explanation {
  const spread = spreadOf(readings, { badRuns, badReadings });
  let logPrior =
    badRuns.length * Math.log(BAD_RUN / (1 - BAD_RUN)) +
    badReadings.length * Math.log(BAD_READING / (1 - BAD_READING));
  for (const s of spread) if (Number.isFinite(s)) logPrior -= Math.log(s);
  const mode = starts
    .map((start) =>
      findMode(
        counted(residuals, spread),
        { z: start.z, jacobian: recounted(start, spread) },
        fresh,
      ),
    )
    .reduce((a, b) => (b.cost < a.cost ? b : a));
  return {
    badRuns,
    badReadings,
    spread,
    logPrior,
    mode,
    logEvidence: logPrior + logEvidence(mode),
  };
}
