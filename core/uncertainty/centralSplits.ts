import { maxPowerAlongRay } from '../envelope/boundary';
import { fanNoise, fillNoise, leastStart, noiseSum, type FanNoise } from '../envelope/fanNoise';
import { controlGroups, speeds, stateForCap, type Cap, type FanState } from '../envelope/fanStates';
import type { Ray } from '../envelope/limitTypes';
import type { MachineModel } from '../network/networkModel';
import { createState, type LinearState } from '../network/steadyState';
import type { CaseData } from '../record/caseData';
import { limitWatts, stateEnds, type CentralEnds, type StateEnds } from './centralEnds';

/**
 * How a limit follows the split of fans controlled apart at the central values: `ln W(x) = lnW + Σ slope·x + ½ Σ bend·x²`, x for
 * each group the logarithm by which it is faster against the others than in the best split.
 */
export interface SplitCurve {
  lnW: number;
  slope: number[];
  bend: number[];
}

/** Rays whose best split is much the same at a cap, so that one solve serves them all. */
export interface SplitSet {
  /** Which rays. */
  of: boolean[];
  /** Duty of each group over the cap's common duty; 0 where it stands still. */
  shares: number[];
  /** Some fan stands still, or is slower though none needs to be: which fans turn is then to be sought. */
  isOpen: boolean;
  /** Groups without which nearly as much is carried, so that a row may do better with one of them stopped. */
  stops: number[];
  /** Where they end in this split; null where it is not known. */
  ends: StateEnds | null;
  /** By ray and code of a limit. */
  curves: ReadonlyMap<number, SplitCurve>[];
}

/** Duty of each group of a state over a common duty; 0 for one that stands still. */
export function sharesOf(data: CaseData, { duties, rpms }: FanState, duty: number): number[] {
  return controlGroups(data).map((group, g) =>
    duty > 0 && group.some((i) => rpms[i]! > 0) ? duties[g]! / duty : 0,
  );
}

/** Best splits this near each other, as logarithms, are one. */
const ALIKE = 0.05;
const MOVED = 0.12;
/** A share from here on is full speed. */
const ALL = 0.99;
/** Carried without a group at the central values, over what is carried with it: from here on a row may do better without. */
const NEARLY = 0.85;
const NEARLY_TOLERANCE = 1e-3;
const TOLERANCE = 1e-5;

/**
 * Rays put together by their best splits at a cap.
 *
 * @param duties of each group over the cap's common duty, by ray; none or all 0 where the fans stand still
 * @param rays null is passed over
 */
export function alikeSplits(
  duties: readonly (readonly number[])[],
  rays: readonly (Ray | null)[],
  groups: number,
): SplitSet[] {
  const sets: SplitSet[] = [];
  rays.forEach((ray, r) => {
    if (!ray) return;
    const own = duties[r]!.some((d) => d > 0) ? duties[r]! : new Array<number>(groups).fill(1);
    const set = sets.find(({ shares }) =>
      shares.every((s, g) =>
        s > 0 && own[g]! > 0 ? Math.abs(Math.log(own[g]! / s)) <= ALIKE : s === own[g],
      ),
    );
    if (set) set.of[r] = true;
    else {
      const of = rays.map((_, k) => k === r);
      const isOpen = own.some((s) => s === 0);
      const curves = rays.map(() => new Map());
      sets.push({ of, shares: [...own], isOpen, stops: [], ends: null, curves });
    }
  });
  return sets;
}

/**
 * Groups of a set without which its rays carry nearly as much.
 *
 * @param model at the central values
 * @param most sum of noise allowed, see `noiseSum`
 */
export function nearStops(
  model: MachineModel,
  noise: FanNoise,
  { shares, of }: Pick<SplitSet, 'shares' | 'of'>,
  rays: readonly (Ray | null)[],
  most: number,
  state: LinearState,
): number[] {
  const duties: number[] = [];
  const watts = (stopped: number): number[] | null => {
    const floors = shares.map((s, g) => (s > 0 && g !== stopped ? leastStart(noise, g) : 0));
    const asked = shares.map((s, g) => (g === stopped ? 0 : s));
    if (asked.every((s) => s === 0) || !fillNoise(noise, asked, most, duties, -1, floors))
      return null;
    const rpms = speeds(model.data, noise.groups, duties);
    return rays.map((ray, r) =>
      ray && of[r] ? maxPowerAlongRay(model, rpms, ray, null, state, NEARLY_TOLERANCE) : 0,
    );
  };
  const all = watts(-1);
  return shares.flatMap((s, g) => {
    const without = s > 0 ? watts(g) : null;
    const isNear = without?.some((w, r) => of[r] && !(w < NEARLY * (all?.[r] ?? 0)));
    return isNear ? [g] : [];
  });
}

/**
 * The best splits at the central values, by cap, with where their rays end and how these ends follow the split.
 *
 * @param model at the central values
 * @param rays null is passed over
 * @param duties best at the central values, by cap and ray, as for {@link alikeSplits}
 * @param ends of the same caps with all fans on one duty
 */
export function centralSplits(
  model: MachineModel,
  caps: readonly Cap[],
  rays: readonly (Ray | null)[],
  duties: readonly (readonly (readonly number[])[])[],
  ends: CentralEnds,
): SplitSet[][] {
  const { data } = model;
  const groups = controlGroups(data);
  if (groups.length < 2) return caps.map(() => []);
  const noise = fanNoise(data, groups);
  const state = createState(model);
  return caps.map((cap, c) => {
    if (cap === 'off') return [];
    const { state: common } = stateForCap(data, cap);
    const duty = common.duties[0]!;
    const all = alikeSplits(duties[c]!, rays, groups.length);
    const most = noiseSum(noise, duty);
    if (duty > 0) {
      for (const set of all) {
        // where a fan stands still all are tried as it is
        if (!set.isOpen) set.stops = nearStops(model, noise, set, rays, most, state);
      }
    }
    // at full speed there is nothing to share out, but a fan may blow against another one
    const isSplit = ({ shares, stops }: SplitSet) =>
      stops.length > 0 || shares.some((s) => s < ALL);
    const sets = duty < 1 ? all : all.filter(isSplit);
    if (duty === 1) for (const set of sets) set.isOpen = true;
    for (const set of sets) {
      const of = rays.map((ray, r) => (set.of[r] ? ray : null));
      if (!(duty > 0)) {
        set.ends = ends.caps[c]!;
        continue;
      }
      const filled: number[] = [];
      const wanted = (moved: number, by: number) =>
        set.shares.map((s, g) => s * duty * (g === moved ? Math.exp(by) : 1));
      const at = (moved: number, by: number): number[] | null => {
        if (!fillNoise(noise, wanted(moved, by), most, filled)) return null;
        return speeds(data, groups, filled);
      };
      const rpms = at(0, 0)!;
      set.ends = stateEnds(model, rpms, of, state);
      if (set.isOpen) continue;
      const look = (speed: readonly number[]) =>
        of.map((ray) => {
          if (!ray) return new Map<number, number>();
          maxPowerAlongRay(model, speed, ray, null, state, TOLERANCE);
          return limitWatts(model, state, ray);
        });
      const start = look(rpms);
      const first = set.shares.findIndex((s) => s > 0);
      set.curves = start.map(
        (limits) =>
          new Map(
            [...limits].map(([code, watts]) => [
              code,
              { lnW: Math.log(watts), slope: groups.map(() => 0), bend: groups.map(() => 0) },
            ]),
          ),
      );
      const moved = (g: number) =>
        Math.log(filled[g]! / filled[first]!) - Math.log(set.shares[g]! / set.shares[first]!);
      for (let g = first + 1; g < groups.length; g++) {
        if (!(set.shares[g]! > 0)) continue;
        const slower = at(g, -MOVED);
        const less = moved(g);
        const faster = at(g, MOVED);
        const more = moved(g);
        // a fan that would stand still is another state
        if (!slower || !faster || !turnsAlike(slower, rpms) || !turnsAlike(faster, rpms)) continue;
        if (!(more - less > MOVED)) continue;
        const atLess = look(slower);
        const atMore = look(faster);
        set.curves.forEach((curves, r) => {
          for (const [code, curve] of curves) {
            const a = atLess[r]!.get(code);
            const b = atMore[r]!.get(code);
            if (!a || !b) continue;
            const below = (Math.log(a) - curve.lnW) / less;
            const above = (Math.log(b) - curve.lnW) / more;
            const bend = (2 * (above - below)) / (more - less);
            curve.bend[g] = bend;
            curve.slope[g] = below - 0.5 * bend * less;
          }
        });
      }
    }
    return sets;
  });
}

function turnsAlike(a: readonly number[], b: readonly number[]): boolean {
  return a.every((x, i) => x > 0 === b[i]! > 0);
}
