import { fanNoise, fillNoise, leastStart, noiseSum, type FanNoise } from '../envelope/fanNoise';
import { controlGroups, speeds } from '../envelope/fanStates';
import { fanPower } from '../network/steadyState';
import type { MachineModel } from '../network/networkModel';
import type { SplitSet } from './centralSplits';
import { DRAW_TOLERANCE, take, type Found } from './rowFound';
import { createSplitCurves } from './splitCurves';
import { createTurningSearch } from './turningSearch';

/** What a look at a split leaves, by ray. */
export interface SplitLook {
  watts: Float64Array;
  /** What holds it, as `lastHitCode` says it. */
  held: Uint16Array;
  /** Where the limits of temperature lie, W, by their places in `temperatureCodes`; 0 where a ray does not meet them. */
  limits: Float64Array[];
}

/** What a look is for: the first at a set and cap, one to the side of it, or one at what should be a top. */
export type SplitLookFor = 'first' | 'step' | 'top';

/**
 * Finds where some rays of a set end at given speeds and leaves it in a {@link SplitLook}.
 */
export type LookAtSplit = (
  model: MachineModel,
  rpms: readonly number[],
  c: number,
  set: SplitSet,
  of: readonly boolean[],
  as: SplitLookFor,
) => void;

/** The best splits of a row. */
export interface RowSplits {
  /** Forgets the row before. */
  begin(model: MachineModel): void;
  /**
   * Takes the best split of each ray at a cap, given the common duty that is as loud.
   *
   * @returns false where the common duty may be better: the cap is too quiet for all fans that should turn, or one stands still
   *   in the best split of the central values
   */
  carry(c: number, duty: number, founds: readonly Found[]): boolean;
  /** By ray, what the last cap's best split carries, and what holds it. */
  watts: Float64Array;
  held: Uint16Array;
}

/** How far a group's duty is moved to see what the split does, as a logarithm. */
const STEP = 0.12;
/** How far a split may lie from the central one. */
const WIDEST = 0.7;
/** What is foretold to be left to the top may be off by a quarter: it is taken in where that is within the tolerance. */
const TAKEN_IN = 4 * DRAW_TOLERANCE;
const ROUNDS = 3;
/** Rays with their best splits this near are looked at together. */
const NEAR = 0.08;
/** A tilt is believed up to this far from the central split; beyond it is looked at anew at each cap. */
const FAR = 0.16;
/** A duty this near to what was asked for is that. */
const ALIKE = 0.01;

/**
 * Seeks the best split of fans controlled apart in each row. A limit follows the split in a row much as at the central values,
 * but higher or lower, and tilted: how high is seen from one look, the tilt from a second, which holds for the other caps of
 * the row too. The top of the lowest of these curves is looked at; what is then still left to it is known.
 *
 * @param sets by cap; with none there is nothing to split
 * @param codes of the limits of temperature, see `temperatureCodes`
 * @param look finds where rays end
 * @param seen what it leaves
 */
export function createRowSplits(
  sets: readonly (readonly SplitSet[])[],
  rays: number,
  codes: readonly number[],
  look: LookAtSplit,
  seen: SplitLook,
): RowSplits {
  let model: MachineModel;
  let groups: number[][] = [];
  let noise: FanNoise;
  let most = 0;
  const watts = new Float64Array(rays);
  const held = new Uint16Array(rays);
  const fanW = new Float64Array(rays);
  const far = new Float64Array(rays);
  const wants: boolean[] = new Array<boolean>(rays).fill(false);
  const curves = createSplitCurves(rays, codes);
  const turning = createTurningSearch(rays);
  let first = 0;
  /** Every group stopped, one at a time, and none. */
  let anyStopped: number[] = [];
  const duties: number[] = [];
  const asked: number[] = [];
  const floors: number[] = [];
  /** The split that is looked at, the first of this set and cap, and how far each group may go. */
  const x: number[] = [];
  const from: number[] = [];
  const least: number[] = [];
  const greatest: number[] = [];

  /**
   * The duties of a split as loud as the cap allows, no fan stopped that turns in the best one; `x` becomes what came out. False
   * where the cap is too quiet for all of them.
   */
  const setDuties = ({ shares }: SplitSet): boolean => {
    for (let g = 0; g < groups.length; g++) {
      asked[g] = shares[g]! * Math.exp(g === first ? 0 : x[g]!);
    }
    if (!fillNoise(noise, asked, most, duties, -1, floors)) return false;
    for (let g = first + 1; g < groups.length; g++) {
      if (!(shares[g]! > 0)) continue;
      const came = Math.log(duties[g]! / duties[first]!) - Math.log(shares[g]! / shares[first]!);
      if (came > x[g]! + ALIKE) least[g] = came;
      if (came < x[g]! - ALIKE) greatest[g] = came;
      x[g] = came;
    }
    return true;
  };

  const lookAt = (
    c: number,
    set: SplitSet,
    of: readonly boolean[],
    as: SplitLookFor,
    founds: readonly Found[],
  ): boolean => {
    if (!setDuties(set)) return false;
    takeLook(c, set, duties, of, as, founds);
    for (let r = 0; r < rays; r++) {
      if (of[r]) curves.note(r, x, seen.watts[r]!, seen.held[r]!, seen.limits[r]!);
    }
    return true;
  };

  const takeLook = (
    c: number,
    set: SplitSet,
    split: readonly number[],
    of: readonly boolean[],
    as: SplitLookFor,
    founds: readonly Found[],
  ): void => {
    const rpms = speeds(model.data, groups, split);
    look(model, rpms, c, set, of, as);
    const power = fanPower(model, rpms);
    for (let r = 0; r < rays; r++) {
      if (!of[r]) continue;
      take(founds[r]!, seen.watts[r]!, seen.held[r]!, power);
      if (!(seen.watts[r]! > watts[r]!)) continue;
      watts[r] = seen.watts[r]!;
      held[r] = seen.held[r]!;
      fanW[r] = power;
    }
  };

  /** Seeks which fans turn, where that is not as at the central values. */
  const seekTurning = (
    c: number,
    set: SplitSet,
    stops: readonly number[],
    as: SplitLookFor,
    founds: readonly Found[],
  ): void => {
    turning(noise, most, set.shares, set.of, stops, watts, (tried, of) => {
      takeLook(c, set, tried, of, as, founds);
      as = 'top';
      return seen.watts;
    });
  };

  /** The split in which some rays should be best before a first look, on the mean. */
  const expect = (of: readonly boolean[]): void => {
    let n = 0;
    for (let r = 0; r < rays; r++) {
      if (!of[r] || !(curves.seekTop(r, first, least, greatest) > 0)) continue;
      const top = curves.topOf(r);
      n++;
      for (let g = first + 1; g < groups.length; g++) x[g] = x[g]! + (top[g]! - x[g]!) / n;
    }
  };

  /** The best split of one ray, and which others have theirs nearby. */
  const chooseAlike = (best: number, of: readonly boolean[]): void => {
    const top = curves.topOf(best);
    for (let g = 0; g < groups.length; g++) x[g] = top[g]!;
    for (let r = 0; r < rays; r++) {
      wants[r] = of[r]! && watts[r]! > 0;
      const other = curves.topOf(r);
      for (let g = first + 1; wants[r] && g < groups.length; g++) {
        wants[r] = Math.abs(other[g]! - top[g]!) <= NEAR;
      }
    }
  };

  /** Where the best split is expected, and, if that is far off, at the central one too; `from` is the better of them. */
  const lookFirst = (c: number, set: SplitSet, founds: readonly Found[]): boolean => {
    const isFar = x.some((by) => Math.abs(by) > FAR);
    if (!lookAt(c, set, set.of, 'first', founds)) return false;
    for (let g = 0; g < groups.length; g++) from[g] = x[g]!;
    if (!isFar) return true;
    for (let r = 0; r < rays; r++) far[r] = seen.watts[r]!;
    x.fill(0);
    if (!lookAt(c, set, set.of, 'step', founds)) return true;
    let gain = 0;
    for (let r = 0; r < rays; r++) {
      if (set.of[r] && far[r]! > 0) gain += seen.watts[r]! / far[r]! - 1;
    }
    if (gain > 0) for (let g = 0; g < groups.length; g++) from[g] = x[g]!;
    return true;
  };

  const carrySet = (c: number, set: SplitSet, founds: readonly Found[]): boolean => {
    const { shares, of } = set;
    first = shares.findIndex((s) => s > 0);
    for (let g = 0; g < groups.length; g++) {
      floors[g] = shares[g]! > 0 ? leastStart(noise, g) : 0;
      least[g] = -WIDEST;
      greatest[g] = WIDEST;
      x[g] = 0;
    }
    for (let r = 0; r < rays; r++) if (of[r]) watts[r] = held[r] = 0;
    if (set.isOpen) {
      seekTurning(c, set, anyStopped, 'first', founds);
      return false;
    }
    curves.start(c, set);
    expect(of);
    if (!lookFirst(c, set, founds)) {
      seekTurning(c, set, anyStopped, 'first', founds);
      return false;
    }
    for (let g = first + 1; g < groups.length; g++) {
      if (!(shares[g]! > 0)) continue;
      if (Math.abs(from[g]!) > FAR) curves.forgetTilt(of, g);
      for (let side = 0, way = 0; side < 2 && !curves.isTilted(of, held, g); side++) {
        for (let k = 0; k < groups.length; k++) x[k] = from[k]!;
        // towards where it should be better, and away from full speed
        if (side === 0) way = curves.betterWay(of, held, g, from[g]!);
        else way = -way;
        if (side === 0 && duties[g]! * Math.exp(way * STEP) > 1) way = -1;
        x[g] = Math.min(greatest[g]!, Math.max(least[g]!, from[g]! + way * STEP));
        if (Math.abs(x[g]! - from[g]!) > ALIKE) lookAt(c, set, of, 'step', founds);
      }
    }
    for (let round = 0; round < ROUNDS; round++) {
      let mostGain = 1 + TAKEN_IN;
      let best = -1;
      for (let r = 0; r < rays; r++) {
        if (!of[r] || !(watts[r]! > 0)) continue;
        const gain = curves.seekTop(r, first, least, greatest) / watts[r]!;
        if (gain <= mostGain) continue;
        mostGain = gain;
        best = r;
      }
      if (best < 0) break;
      chooseAlike(best, of);
      lookAt(c, set, wants, 'top', founds);
    }
    for (let r = 0; r < rays; r++) {
      if (!of[r] || !(watts[r]! > 0)) continue;
      const top = curves.seekTop(r, first, least, greatest);
      if (top > watts[r]! && top <= watts[r]! * (1 + TAKEN_IN)) watts[r] = top;
      take(founds[r]!, watts[r]!, held[r]!, fanW[r]!);
    }
    if (set.stops.length > 0) seekTurning(c, set, set.stops, 'top', founds);
    return true;
  };

  return {
    watts,
    held,
    begin(row) {
      model = row;
      groups = controlGroups(row.data);
      noise = fanNoise(row.data, groups);
      if (anyStopped.length === 0) anyStopped = [-1, ...groups.keys()];
      curves.begin(groups.length);
    },
    carry(c, duty, founds) {
      most = noiseSum(noise, duty);
      let all = true;
      for (const set of sets[c]!) all = (duty < 1 || set.isOpen) && carrySet(c, set, founds) && all;
      return all;
    },
  };
}
