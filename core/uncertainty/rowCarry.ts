import { maxPowerAlongRay } from '../envelope/boundary';
import { controlGroups, dutyForLevel, speeds, startDuties, type Cap } from '../envelope/fanStates';
import type { Ray } from '../envelope/limitTypes';
import { limitOfCode } from '../envelope/limitNames';
import { lastHitCode } from '../envelope/limits';
import { EXHAUST, JUNCTION, SKIN } from '../envelope/limitVisit';
import { goldenSection } from '../numerics/goldenSection';
import { fanPower, type LinearState } from '../network/steadyState';
import type { MachineModel } from '../network/networkModel';
import { machineLevelDbA } from '../sound/machineLevel';
import { createTemperatureLimits, temperatureCodes } from './limitSlots';
import type { RowEnds } from './rowEnds';
import { CLEARLY, DRAW_TOLERANCE, take, type Found } from './rowFound';
import type { SplitSet } from './centralSplits';
import { createRowSplits, type LookAtSplit, type SplitLook } from './rowSplits';

const SLOWER = 0.95;
/** Where more air carries more, a state in which a fan just starts is passed over this much above its duty. */
const WELL_BEYOND = 1.15;
const SEARCH_STEPS = 11;

/** What one row carries along one ray at each cap. */
export interface RowWatts {
  watts: Float64Array;
  /** What holds it, as `lastHitCode` says it. */
  held: Uint16Array;
  /** Watts of the fans in the state chosen. */
  fanW: Float64Array;
}

/** Working memory of a row, made once. */
export interface RowWork {
  on: LinearState;
  off: LinearState;
  /** Caps from the quietest up, and the common duty of each in this row. */
  order: number[];
  duty: Float64Array;
}

export function createRowWork(on: LinearState, off: LinearState, caps: number): RowWork {
  return {
    on,
    off,
    order: Array.from({ length: caps }, (_, c) => c),
    duty: new Float64Array(caps),
  };
}

/** Finds the common duty of each cap in a row, and the order in which they are louder. */
export function setDuties({ data }: MachineModel, caps: readonly Cap[], work: RowWork): void {
  const full = machineLevelDbA(
    data,
    data.fans.map((f) => f.maxRpm),
  );
  for (let c = 0; c < caps.length; c++) {
    const cap = caps[c]!;
    if (cap === 'off' || full === null) work.duty[c] = 0;
    else if (cap === 'full' || full <= cap) work.duty[c] = 1;
    else work.duty[c] = dutyForLevel(data, cap, full);
  }
  work.order.sort((a, b) => work.duty[a]! - work.duty[b]! || a - b);
}

/**
 * The most that a row carries along some rays at each cap: the best fan state of its own at or below the cap, as `carryOnRay`
 * finds it for one case, to within what draws need. What a quieter cap carries a louder one carries too. Rays are taken at
 * one fan speed after the other, so that the air paths are solved once for all of them.
 *
 * @param rays directions; null is passed over
 * @param central any model of the machine
 * @param sets splits of fans controlled apart that are best at the central values, by cap; a start only
 * @param ends finds where rays end with fans on; null where nothing is known of them beforehand
 * @param work states to solve in, duties from {@link setDuties}
 * @param out by ray, overwritten
 * @param solved told for each cap of the state solved with all fans on its duty, or of the quieter cap whose duty is the same
 * @returns to be called with the model of each row
 */
export function createRowCarry(
  central: MachineModel,
  rays: readonly (Ray | null)[],
  sets: readonly (readonly SplitSet[])[],
  ends: RowEnds | null,
  work: RowWork,
  out: readonly RowWatts[],
  solved?: (c: number, by: LinearState | number) => void,
): (model: MachineModel) => void {
  let model: MachineModel;
  let groups: number[][] = [];
  let starts: number[] = [];
  const founds = rays.map((): Found => ({ watts: -1, held: 0, fanW: 0, top: null }));
  const common = (duty: number) => speeds(model.data, groups, new Array(groups.length).fill(duty));
  const atCapW = new Float64Array(rays.length);
  const atCapHeld = new Uint16Array(rays.length);
  let held = 0;
  let triedOff = false;
  let tried = 0;
  let before = 0;
  let last = 0;
  /** What these speeds, near those of a cap, carry along a ray; what holds it is left in `held`. */
  const solve = (rpms: readonly number[], c: number, r: number): number => {
    const ray = rays[r]!;
    if (ends?.knows(c) && rpms.some((x) => x > 0)) {
      const watts = ends.near(model, rpms, ray, c, r);
      held = ends.held[r]!;
      return watts;
    }
    const state = rpms.some((x) => x > 0) ? work.on : work.off;
    const watts = maxPowerAlongRay(model, rpms, ray, null, state, DRAW_TOLERANCE);
    held = lastHitCode();
    return watts;
  };
  const codes = temperatureCodes(central);
  const seen: SplitLook = ends ?? {
    watts: new Float64Array(rays.length),
    held: new Uint16Array(rays.length),
    limits: rays.map(() => new Float64Array(codes.length)),
  };
  const readLimits = ends ? [] : seen.limits.map((out) => createTemperatureLimits(central, out));
  const lookAtSplit: LookAtSplit = (of, rpms, _, set, which, as) => {
    if (ends) return ends.inSplit(of, rpms, rays, set, which, as);
    for (let r = 0; r < rays.length; r++) {
      if (!which[r]) continue;
      seen.watts[r] = maxPowerAlongRay(of, rpms, rays[r]!, null, work.on, DRAW_TOLERANCE);
      seen.held[r] = lastHitCode();
      readLimits[r]!(of, work.on, rays[r]!);
    }
  };
  const splits = createRowSplits(sets, rays.length, codes, lookAtSplit, seen);
  const tryDuty = (duty: number, c: number): void => {
    const rpms = common(duty);
    for (let r = 0; r < rays.length; r++) {
      if (rays[r]) take(founds[r]!, solve(rpms, c, r), held, fanPower(model, rpms));
    }
  };

  const takeAll = (rpms: readonly number[]): void => {
    const fanW = fanPower(model, rpms);
    for (let r = 0; r < rays.length; r++) {
      if (rays[r]) take(founds[r]!, ends!.watts[r]!, ends!.held[r]!, fanW);
    }
  };

  /** With the fans off, once. */
  const tryOff = (): void => {
    if (triedOff) return;
    triedOff = true;
    if (!ends) return tryDuty(0, 0);
    const still = common(0);
    ends.off(model, still, rays);
    takeAll(still);
  };

  const carryAt = (c: number): void => {
    const duty = work.duty[c]!;
    if (duty === 0) {
      tryOff();
      solved?.(c, work.off);
    } else if (duty === before) solved?.(c, last);
    if (duty > before) {
      const rpms = common(duty);
      const known = ends?.knows(c) ? ends : null;
      const apart = sets[c]!.some((set) => duty < 1 || set.isOpen);
      const split = apart && splits.carry(c, duty, founds);
      if (known && (!split || solved)) {
        known.atCap(model, rpms, rays, c);
        atCapW.set(known.watts);
        atCapHeld.set(known.held);
        solved?.(c, work.on);
      }
      if (split) {
        atCapW.set(splits.watts);
        atCapHeld.set(splits.held);
      }
      last = c;
      // where more air carries more, and much more, neither fans off nor one that just starts can be better
      const byAir =
        known?.isFarAboveOff(c) && rays.every((ray, r) => !ray || isMovedByAir(atCapHeld[r]!));
      if (before === 0 && !byAir) tryOff();
      before = duty;
      // a fan that just starts is a state of its own; the last start below is part of the range
      for (; tried + 1 < starts.length && starts[tried + 1]! < duty; tried++) {
        const start = starts[tried]!;
        if (!known) tryDuty(start, c);
        else if (!byAir || duty < start * WELL_BEYOND) {
          const slow = common(start);
          known.atSpeeds(model, slow, rays, c, atCapW);
          takeAll(slow);
        }
      }
      const fanW = fanPower(model, rpms);
      for (let r = 0; r < rays.length; r++) {
        if (!rays[r]) continue;
        const found = founds[r]!;
        if (split && isMovedByAir(atCapHeld[r]!) && (known || !solved)) continue;
        const there = known && !split;
        const watts = there ? atCapW[r]! : solve(rpms, c, r);
        if (!known) solved?.(c, rpms.some((x) => x > 0) ? work.on : work.off);
        const heldBy = there ? atCapHeld[r]! : held;
        take(found, watts, heldBy, fanW);
        if (!isMovedByAir(heldBy)) lookSlower(found, watts, duty, c, r);
      }
    }
    for (let r = 0; r < rays.length; r++) {
      if (!rays[r]) continue;
      out[r]!.watts[c] = Math.max(0, founds[r]!.watts);
      out[r]!.held[c] = founds[r]!.held;
      out[r]!.fanW[c] = founds[r]!.fanW;
    }
  };

  /** A cooler pipe pumps worse: where a slower state carries more the best of all is sought, once. */
  function lookSlower(found: Found, watts: number, duty: number, c: number, r: number): void {
    const from = lastBelow(starts, duty);
    if (from === null) return;
    const slower = Math.max(from, duty * SLOWER);
    if (!found.top) {
      const rpms = common(slower);
      const look = solve(rpms, c, r);
      if (look <= watts * CLEARLY) return;
      take(found, look, held, fanPower(model, rpms));
      found.top = searchTop(from, 1, c, r);
    }
    const top = found.top.duty <= duty ? found.top : searchTop(from, duty, c, r);
    take(found, top.watts, top.held, top.fanW);
  }

  /** Golden section over duty for the state that carries most. */
  function searchTop(from: number, to: number, c: number, r: number): NonNullable<Found['top']> {
    const best = { duty: from, watts: -1, held: 0, fanW: 0 };
    const at = (duty: number): number => {
      const rpms = common(duty);
      const watts = solve(rpms, c, r);
      if (watts > best.watts) {
        best.duty = duty;
        best.watts = watts;
        best.held = held;
        best.fanW = fanPower(model, rpms);
      }
      return watts;
    };
    goldenSection(at, from, to, SEARCH_STEPS);
    return best;
  }

  return (row) => {
    model = row;
    groups = controlGroups(row.data);
    starts = startDuties(row.data);
    for (const found of founds) {
      found.watts = -1;
      found.held = 0;
      found.fanW = 0;
      found.top = null;
    }
    ends?.begin();
    if (groups.length > 1) splits.begin(row);
    triedOff = false;
    tried = 0;
    before = 0;
    for (const c of work.order) carryAt(c);
  };
}

/** Where one of these limits binds at the loudest state every slower one is held by it sooner. */
function isMovedByAir(held: number): boolean {
  const limit = limitOfCode(held);
  return limit === JUNCTION || limit === SKIN || limit === EXHAUST;
}

function lastBelow(starts: readonly number[], duty: number): number | null {
  let last: number | null = null;
  for (const s of starts) if (s < duty) last = s;
  return last;
}
