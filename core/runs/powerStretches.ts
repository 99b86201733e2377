import { changePoints } from '../logs/changePoints';

/** Samples of a log between two changes of power; `to` is the sample after the last. */
export interface Stretch {
  from: number;
  to: number;
}

/** Bins over which changes are sought first; near each found one it is done again with single samples. */
const MOST_BINS = 2000;
/** Bins beside a change that are looked at again. */
const LOOK_AGAIN = 4;
/** Penalty of a change, in `p ln n`. */
const PENALTY = 3;
/** Powers nearer than this share of the most, or than so many watts, are one level (common practice, no source). */
const ONE_LEVEL = { share: 0.03, watts: 1 };
/** A change must stand out by so many standard errors. */
const STANDS_OUT = 4;
/** What returns to where it was within this time is no level of its own, s. */
const BLIP_S = 10;

/** Deviation of a series about its levels, from its steps, which levels leave alone. */
function noiseOf(x: Float64Array): number {
  const steps = new Float64Array(Math.max(0, x.length - 1));
  for (let i = 1; i < x.length; i++) steps[i - 1] = Math.abs(x[i]! - x[i - 1]!);
  steps.sort();
  const median = steps[Math.floor(steps.length / 2)] ?? 0;
  return median / (0.6745 * Math.SQRT2);
}

function binned(x: Float64Array, from: number, to: number, size: number): Float64Array {
  const out = new Float64Array(Math.ceil((to - from) / size));
  for (let b = 0; b < out.length; b++) {
    const end = Math.min(to, from + (b + 1) * size);
    let sum = 0;
    for (let i = from + b * size; i < end; i++) sum += x[i]!;
    out[b] = sum / (end - from - b * size);
  }
  return out;
}

/** Changes between two samples, as first samples of what begins there. */
function changesIn(
  powers: readonly Float64Array[],
  from: number,
  to: number,
): { at: number[]; size: number } {
  const size = Math.max(1, Math.ceil((to - from) / MOST_BINS));
  const series = powers.map((x) => {
    const bins = binned(x, from, to, size);
    const most = bins.reduce((a, b) => Math.max(a, Math.abs(b)), 0);
    // readings of few digits have no noise of their own
    const sd = Math.max(noiseOf(bins), 0.005 * most, 0.05);
    return bins.map((b) => b / sd);
  });
  const n = series[0]!.length;
  if (n < 4) return { at: [], size };
  const penalty = PENALTY * series.length * Math.log(n);
  return { at: changePoints(series, penalty, 2).map((b) => from + b * size), size };
}

/**
 * Cuts a log where the level of a die's power changes: exact penalised search over means, then stretches joined that differ by
 * less than what counts as another level, or than chance, and those that return to where they were.
 *
 * @param powers of the dies, without holes
 * @param timeS of each sample
 */
export function powerStretches(powers: readonly Float64Array[], timeS: Float64Array): Stretch[] {
  const n = timeS.length;
  if (powers.length === 0 || n === 0) return n === 0 ? [] : [{ from: 0, to: n }];
  const coarse = changesIn(powers, 0, n);
  const cuts = new Set<number>();
  if (coarse.size === 1) coarse.at.forEach((at) => cuts.add(at));
  else {
    for (const at of coarse.at) {
      const near = LOOK_AGAIN * coarse.size;
      changesIn(powers, Math.max(0, at - near), Math.min(n, at + near)).at.forEach((x) =>
        cuts.add(x),
      );
    }
  }
  const edges = [0, ...[...cuts].sort((a, b) => a - b), n];
  const stretches = edges.slice(1).map((to, k) => ({ from: edges[k]!, to }));
  return joinAlike(stretches, powers, timeS);
}

interface Level extends Stretch {
  mean: number[];
  /** Standard error of each mean. */
  se: number[];
}

function joinAlike(
  stretches: Stretch[],
  powers: readonly Float64Array[],
  timeS: Float64Array,
): Stretch[] {
  const most = powers.map((x) => x.reduce((a, b) => Math.max(a, b), 0));
  const same = most.map((m) => Math.max(ONE_LEVEL.share * m, ONE_LEVEL.watts));
  const levelOf = ({ from, to }: Stretch): Level => {
    const mean: number[] = [];
    const se: number[] = [];
    for (const x of powers) {
      const bins = binned(x, from, to, Math.max(1, Math.ceil((to - from) / 20)));
      const m = x.subarray(from, to).reduce((a, b) => a + b, 0) / (to - from);
      const spread = bins.reduce((sum, b) => sum + (b - m) ** 2, 0);
      mean.push(m);
      se.push(bins.length > 4 ? Math.sqrt(spread / (bins.length - 1) / bins.length) : 0);
    }
    return { from, to, mean, se };
  };
  /** How clearly two levels differ: above 1 they are two. */
  const apart = (a: Level, b: Level) =>
    Math.max(
      ...powers.map((_, p) => {
        const by = Math.abs(a.mean[p]! - b.mean[p]!);
        const chance = STANDS_OUT * Math.hypot(a.se[p]!, b.se[p]!);
        return by / Math.max(same[p]!, chance);
      }),
    );
  const lasts = (s: Stretch) => (timeS[s.to] ?? timeS[timeS.length - 1]!) - timeS[s.from]!;
  const levels = stretches.map(levelOf);
  for (;;) {
    let best = { k: -1, by: 1, width: 1 };
    for (let k = 0; k + 1 < levels.length; k++) {
      const by = apart(levels[k]!, levels[k + 1]!);
      if (by < best.by) best = { k, by, width: 2 };
      const beyond = levels[k + 2];
      if (!beyond || lasts(levels[k + 1]!) > BLIP_S) continue;
      // neighbours that last longer than what lies between them
      const shorter = Math.min(lasts(levels[k]!), lasts(beyond));
      if (shorter <= lasts(levels[k + 1]!)) continue;
      const around = apart(levels[k]!, beyond);
      if (around < best.by) best = { k, by: around, width: 3 };
    }
    if (best.k < 0) break;
    const end = levels[best.k + best.width - 1]!.to;
    levels.splice(best.k, best.width, levelOf({ from: levels[best.k]!.from, to: end }));
  }
  return levels.map(({ from, to }) => ({ from, to }));
}
