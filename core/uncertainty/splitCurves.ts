import { goldenSection } from '../numerics/goldenSection';
import type { SplitSet } from './centralSplits';
import { FAR_OFF } from './limitSlots';

/** How a row's limits follow the split of its fans, as far as it was seen; by ray. */
export interface SplitCurves {
  /** Forgets the row before. */
  begin(groups: number): void;
  /** Begins a set of rays at a cap. */
  start(c: number, set: SplitSet): void;
  /** Takes in what a look at a split found: the first look at a set tells how high its limits lie, others how they are tilted. */
  note(r: number, x: readonly number[], watts: number, held: number, limits: Float64Array): void;
  /** Whether it is known how what holds each ray follows a group. */
  isTilted(of: readonly boolean[], held: Uint16Array, g: number): boolean;
  /** Forgets by how much the curves of some rays are tilted by a group. */
  forgetTilt(of: readonly boolean[], g: number): void;
  /** Where the rays of which that is not known should become better, −1 or 1. */
  betterWay(of: readonly boolean[], held: Uint16Array, g: number, from: number): number;
  /**
   * The most a ray should carry in its best split, W, found between bounds for each group after the first; 0 where nothing is
   * known of it yet.
   */
  seekTop(r: number, first: number, least: readonly number[], greatest: readonly number[]): number;
  /** The best split last sought of a ray. */
  topOf(r: number): readonly number[];
}

/** A limit of which the central values say nothing is expected to bend like most. */
const USUAL_BEND = -0.5;
/** No curve is taken to be straighter than this, or its top would lie anywhere. */
const LEAST_BEND = -0.05;
/** Splits must lie this far apart to tell a tilt. */
const APART = 0.05;
const STEPS = 16;
/** Limits that lie further beyond the lowest than this, as logarithms, are not reached by any split near it. */
const BEYOND = 0.7;
/** A limit is expected to within this at the next cap, as a logarithm. */
const SURPRISE = 0.1;
/** Places for limits other than those of temperature. */
const FURTHER = 16;

/**
 * Room for the curves of a machine's rays: `ln W = lnW + offset + Σ (slope + tilt) x + ½ Σ bend x²` for each limit, of which
 * offset and tilt are the row's own.
 *
 * @param rays how many
 * @param temperatures codes of the limits that every look tells of
 */
export function createSplitCurves(rays: number, temperatures: readonly number[]): SplitCurves {
  /** Places of limits by code; those beyond the temperatures are added as they are met. */
  const codes = [...temperatures];
  const places = temperatures.length + FURTHER;
  let groups = 0;
  let cap = -1;
  let set: SplitSet | null = null;
  let central: CentralCurves | null = null;
  const centralOf = new Map<SplitSet, CentralCurves>();
  /** By ray and place. */
  const offset = new Float64Array(rays * places);
  /** The cap at which a limit was seen last, −1 for none. */
  const seenAt = new Int32Array(rays * places);
  /** The first look of this set at this cap: ln W. */
  const firstLn = new Float64Array(rays * places);
  const firstX: number[] = [];
  /** By ray, place and group. */
  let tilt = new Float64Array(0);
  let tilted = new Uint8Array(0);
  /** By ray: whether it was looked at, where its top was sought last, and whether something was noted since. */
  const noted = new Uint8Array(rays);
  const stale = new Uint8Array(rays);
  const topW = new Float64Array(rays);
  const tops = Array.from({ length: rays }, (): number[] => []);
  /** Curves over one group while its top is sought: height at 0, slope, half the bend. */
  const height = new Float64Array(places);
  const rise = new Float64Array(places);
  const half = new Float64Array(places);
  let count = 0;

  const placeOf = (code: number): number => {
    const there = codes.indexOf(code);
    if (there >= 0 || codes.length === places) return there;
    codes.push(code);
    if (set && central)
      for (let r = 0; r < rays; r++) central.learn(set, r, codes.length - 1, code);
    return codes.length - 1;
  };
  /** How high a limit lies in a split, but for one of the groups. */
  const heightAt = (at: number, x: readonly number[], but: number): number => {
    const { lnW, slope, bend } = central!;
    let ln = lnW[at]!;
    for (let g = 0; g < groups; g++) {
      const by = x[g]!;
      if (by === 0 || g === but) continue;
      const k = at * groups + g;
      ln += by * (slope[k]! + tilt[k]! + 0.5 * bend[k]! * by);
    }
    return ln;
  };
  const lowestAt = (x: number): number => {
    let least = Infinity;
    for (let k = 0; k < count; k++) {
      const ln = height[k]! + x * (rise[k]! + half[k]! * x);
      if (ln < least) least = ln;
    }
    return least;
  };
  /**
   * Gathers a ray's curves over one group, others staying, but those far beyond the lowest: of limits seen at this cap, or at
   * another one and known at the central values.
   */
  const gather = (r: number, x: readonly number[], g: number): void => {
    const { isKnown, slope, bend } = central!;
    count = 0;
    let least = Infinity;
    for (let i = 0; i < codes.length; i++) {
      const at = r * places + i;
      const seen = seenAt[at]!;
      if (seen !== cap && (seen < 0 || !isKnown[at])) continue;
      const ln = offset[at]! + heightAt(at, x, g);
      if (ln > least + BEYOND) continue;
      if (ln < least) least = ln;
      const k = at * groups + g;
      height[count] = ln;
      rise[count] = slope[k]! + tilt[k]!;
      half[count] = 0.5 * bend[k]!;
      count++;
    }
  };
  /** The top of the lowest of the gathered curves. */
  const climb = (from: number, least: number, greatest: number): number => {
    // as a rule the limit that is lowest stays it up to its own top
    let binds = 0;
    let lowest = Infinity;
    for (let k = 0; k < count; k++) {
      const ln = height[k]! + from * (rise[k]! + half[k]! * from);
      if (ln < lowest) {
        lowest = ln;
        binds = k;
      }
    }
    const vertex = Math.min(greatest, Math.max(least, (-0.5 * rise[binds]!) / half[binds]!));
    const there = height[binds]! + vertex * (rise[binds]! + half[binds]! * vertex);
    if (lowestAt(vertex) >= there - 1e-9) return vertex;
    const [a, b] = goldenSection(lowestAt, least, greatest, STEPS);
    return 0.5 * (a + b);
  };
  /** The tilt by a group, where a look lies apart from the first in that one alone. */
  const learn = (at: number, x: readonly number[], by: number): void => {
    let moved = -1;
    for (let g = 0; g < groups; g++) {
      const apart = Math.abs(x[g]! - firstX[g]!);
      if (apart < 1e-9) continue;
      if (moved >= 0 || apart < APART) return;
      moved = g;
    }
    if (moved < 0) return;
    const a = firstX[moved]!;
    const b = x[moved]!;
    const k = at * groups + moved;
    tilt[k] = by / (b - a) - 0.5 * central!.bend[k]! * (a + b) - central!.slope[k]!;
    tilted[k] = 1;
  };
  /** Where a first look finds a limit far from where it should lie, what was learned at other caps does not hold here. */
  const doubtTilt = (r: number, i: number, x: readonly number[], ln: number): void => {
    const at = r * places + i;
    if (seenAt[at]! < 0 || !central!.isKnown[at]) return;
    if (Math.abs(ln - offset[at]! - heightAt(at, x, -1)) < SURPRISE) return;
    const from = r * places * groups;
    tilt.fill(0, from, from + places * groups);
    tilted.fill(0, from, from + places * groups);
    seenAt.fill(-1, r * places, (r + 1) * places);
  };

  return {
    begin(count) {
      groups = count;
      if (tilt.length !== rays * places * groups) {
        tilt = new Float64Array(rays * places * groups);
        tilted = new Uint8Array(rays * places * groups);
      }
      tilt.fill(0);
      tilted.fill(0);
      seenAt.fill(-1);
    },
    start(c, of) {
      cap = c;
      set = of;
      const there = centralOf.get(of);
      central = there ?? centralCurves(rays, places, groups);
      if (!there) centralOf.set(of, central);
      for (let i = central.length(); i < codes.length; i++) {
        for (let r = 0; r < rays; r++) central.learn(of, r, i, codes[i]!);
      }
      noted.fill(0);
      stale.fill(1);
      firstLn.fill(NaN);
    },
    note(r, x, watts, held, limits) {
      if (!(watts > 0)) return;
      stale[r] = 1;
      const binds = placeOf(held);
      const isFirst = !noted[r];
      if (isFirst && binds >= 0) doubtTilt(r, binds, x, Math.log(watts));
      for (let i = 0; i < codes.length; i++) {
        const at = i === binds ? watts : i < limits.length ? limits[i]! : 0;
        const k = r * places + i;
        if (!(at > 0) || at > watts * FAR_OFF) {
          // what an earlier cap told of it holds no more
          if (at > 0) seenAt[k] = -1;
          continue;
        }
        const ln = Math.log(at);
        if (!isFirst) {
          const before = firstLn[k]!;
          if (before === before) learn(k, x, ln - before);
        } else firstLn[k] = ln;
        offset[k] = ln - heightAt(k, x, -1);
        seenAt[k] = cap;
      }
      if (isFirst) for (let g = 0; g < groups; g++) firstX[g] = x[g]!;
      noted[r] = 1;
    },
    isTilted(of, held, g) {
      for (let r = 0; r < rays; r++) {
        if (!of[r] || !noted[r]) continue;
        const i = placeOf(held[r]!);
        if (i >= 0 && !tilted[(r * places + i) * groups + g]) return false;
      }
      return true;
    },
    forgetTilt(of, g) {
      for (let r = 0; r < rays; r++) {
        for (let i = 0; of[r] && i < codes.length; i++) tilted[(r * places + i) * groups + g] = 0;
      }
    },
    betterWay(of, held, g, from) {
      for (let r = 0; r < rays; r++) {
        const i = of[r] ? placeOf(held[r]!) : -1;
        const k = (r * places + i) * groups + g;
        if (i < 0 || tilted[k]) continue;
        return central!.slope[k]! + tilt[k]! + central!.bend[k]! * from < 0 ? -1 : 1;
      }
      return 1;
    },
    seekTop(r, first, least, greatest) {
      if (!stale[r]) return topW[r]!;
      const top = tops[r]!;
      for (let g = 0; g < groups; g++) top[g] = 0;
      const { shares } = set!;
      let movable = 0;
      for (let g = first + 1; g < groups; g++) if (shares[g]! > 0) movable++;
      let ln = -Infinity;
      for (let pass = 0; pass < (movable > 1 ? 2 : 1); pass++) {
        for (let g = first + 1; g < groups; g++) {
          if (!(shares[g]! > 0)) continue;
          gather(r, top, g);
          if (count === 0) return 0;
          top[g] = climb(top[g]!, least[g]!, greatest[g]!);
          ln = lowestAt(top[g]!);
        }
      }
      stale[r] = 0;
      topW[r] = Math.exp(ln);
      return topW[r]!;
    },
    topOf: (r) => tops[r]!,
  };
}

/** Curves of a set at the central values laid out by ray, place and group. */
interface CentralCurves {
  lnW: Float64Array;
  isKnown: Uint8Array;
  slope: Float64Array;
  bend: Float64Array;
  /** How many places are filled. */
  length(): number;
  /** Fills the place of a limit. */
  learn(set: SplitSet, r: number, i: number, code: number): void;
}

function centralCurves(rays: number, places: number, groups: number): CentralCurves {
  const lnW = new Float64Array(rays * places);
  const isKnown = new Uint8Array(rays * places);
  const slope = new Float64Array(rays * places * groups);
  const bend = new Float64Array(rays * places * groups);
  let filled = 0;
  return {
    lnW,
    isKnown,
    slope,
    bend,
    length: () => filled,
    learn(set, r, i, code) {
      filled = Math.max(filled, i + 1);
      const curve = set.curves[r]!.get(code);
      const at = r * places + i;
      isKnown[at] = curve ? 1 : 0;
      lnW[at] = curve?.lnW ?? 0;
      for (let g = 0; g < groups; g++) {
        slope[at * groups + g] = curve?.slope[g] ?? 0;
        bend[at * groups + g] = Math.min(LEAST_BEND, curve?.bend[g] || USUAL_BEND);
      }
    },
  };
}
