import { maxPowerAlongRay } from '../envelope/boundary';
import { controlGroups, dutyForLevel, speeds, startDuties, type Cap } from '../envelope/fanStates';
import { fillLevel } from '../envelope/fillLevel';
import type { Ray } from '../envelope/limitTypes';
import { limitOfCode } from '../envelope/limitNames';
import { lastHitCode } from '../envelope/limits';
import { EXHAUST, JUNCTION, SKIN } from '../envelope/limitVisit';
import { goldenSection } from '../numerics/goldenSection';
import { fanPower, type LinearState } from '../network/steadyState';
import type { MachineModel } from '../network/networkModel';
import { machineLevelDbA } from '../sound/machineLevel';

/** Watts along a ray that a draw settles to within this share. */
const DRAW_TOLERANCE = 5e-4;
/** A slower state must carry more than this share more, so that the tolerance does not choose. */
const CLEARLY = 1 + 2 * DRAW_TOLERANCE;
const SLOWER = 0.95;
const SEARCH_STEPS = 11;
/** How far a group's duty is moved to see how a split may be bettered. */
const SPLIT_STEP = 0.15;
/** How far a split may move from the start, as a logarithm of duty, and the steps of the search. */
const WIDEST = 0.7;
const SPLIT_STEPS = 6;
const BISECTIONS = 24;

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

/** The best found so far along one ray. */
interface Found {
  watts: number;
  held: number;
  fanW: number;
  /** The best state of the whole range of duty, once it was sought. */
  top: { duty: number; watts: number; held: number; fanW: number } | null;
}

/**
 * The most that a row carries along some rays at each cap: the best fan state of its own at or below the cap, as `carryOnRay`
 * finds it for one case, to within what draws need. What a quieter cap carries a louder one carries too. Rays are taken at
 * one fan speed after the other, so that the air paths are solved once for all of them.
 *
 * @param model of the row
 * @param rays directions; null is passed over
 * @param splits duty of each group over the common duty that is best at the central values, by cap and ray; a start only
 * @param work states to solve in, duties from {@link setDuties}
 * @param out by ray, overwritten
 */
export function rowCarry(
  model: MachineModel,
  rays: readonly (Ray | null)[],
  splits: readonly (readonly (readonly number[])[])[],
  work: RowWork,
  out: readonly RowWatts[],
): void {
  const { data } = model;
  const groups = controlGroups(data);
  const starts = startDuties(data);
  const founds = rays.map((): Found => ({ watts: -1, held: 0, fanW: 0, top: null }));
  const common = (duty: number) => speeds(data, groups, new Array(groups.length).fill(duty));
  const solve = (rpms: readonly number[], ray: Ray): number =>
    maxPowerAlongRay(
      model,
      rpms,
      ray,
      null,
      rpms.some((x) => x > 0) ? work.on : work.off,
      DRAW_TOLERANCE,
    );
  const tryDuty = (duty: number): void => {
    const rpms = common(duty);
    for (let r = 0; r < rays.length; r++) {
      if (rays[r]) take(founds[r]!, solve(rpms, rays[r]!), lastHitCode(), fanPower(model, rpms));
    }
  };

  tryDuty(0);
  let tried = 0;
  let before = 0;
  for (const c of work.order) {
    const duty = work.duty[c]!;
    if (duty > before) {
      before = duty;
      // a fan that just starts is a state of its own; the last start below is part of the range
      while (tried + 1 < starts.length && starts[tried + 1]! < duty) tryDuty(starts[tried++]!);
      const rpms = common(duty);
      const fanW = fanPower(model, rpms);
      for (let r = 0; r < rays.length; r++) {
        const ray = rays[r];
        if (!ray) continue;
        const found = founds[r]!;
        const watts = solve(rpms, ray);
        const held = lastHitCode();
        take(found, watts, held, fanW);
        if (!isMovedByAir(held)) lookSlower(found, watts, duty, ray);
        if (groups.length > 1) {
          trySplits(model, groups, duty, splits[c]![r]!, (s) => solve(s, ray), found);
        }
      }
    }
    for (let r = 0; r < rays.length; r++) {
      if (!rays[r]) continue;
      out[r]!.watts[c] = Math.max(0, founds[r]!.watts);
      out[r]!.held[c] = founds[r]!.held;
      out[r]!.fanW[c] = founds[r]!.fanW;
    }
  }

  /** A cooler pipe pumps worse: where a slower state carries more the best of all is sought, once. */
  function lookSlower(found: Found, watts: number, duty: number, ray: Ray): void {
    const from = lastBelow(starts, duty);
    if (from === null) return;
    const slower = Math.max(from, duty * SLOWER);
    if (!found.top) {
      const rpms = common(slower);
      const look = solve(rpms, ray);
      if (look <= watts * CLEARLY) return;
      take(found, look, lastHitCode(), fanPower(model, rpms));
      found.top = searchTop(from, 1, ray);
    }
    const top = found.top.duty <= duty ? found.top : searchTop(from, duty, ray);
    take(found, top.watts, top.held, top.fanW);
  }

  /** Golden section over duty for the state that carries most. */
  function searchTop(from: number, to: number, ray: Ray): NonNullable<Found['top']> {
    const best = { duty: from, watts: -1, held: 0, fanW: 0 };
    const at = (duty: number): number => {
      const rpms = common(duty);
      const watts = solve(rpms, ray);
      if (watts > best.watts) {
        best.duty = duty;
        best.watts = watts;
        best.held = lastHitCode();
        best.fanW = fanPower(model, rpms);
      }
      return watts;
    };
    goldenSection(at, from, to, SEARCH_STEPS);
    return best;
  }
}

/** Where one of these limits binds at the loudest state every slower one is held by it sooner. */
function isMovedByAir(held: number): boolean {
  const limit = limitOfCode(held);
  return limit === JUNCTION || limit === SKIN || limit === EXHAUST;
}

function take(found: Found, watts: number, held: number, fanW: number): void {
  if (watts <= found.watts * CLEARLY) return;
  found.watts = watts;
  found.held = held;
  found.fanW = fanW;
}

function lastBelow(starts: readonly number[], duty: number): number | null {
  let last: number | null = null;
  for (const s of starts) if (s < duty) last = s;
  return last;
}

/**
 * Fans controlled apart: the split that is best at the central values at this row's level, then each group a step slower and
 * faster with the others taking what level is left, then further the way that helps or to the vertex of the parabola through
 * the three.
 */
function trySplits(
  model: MachineModel,
  groups: number[][],
  duty: number,
  shares: readonly number[],
  solve: (rpms: readonly number[]) => number,
  found: Found,
): void {
  const { data } = model;
  const together = speeds(
    data,
    groups,
    groups.map(() => duty),
  );
  const capDbA = machineLevelDbA(data, together) ?? -Infinity;
  const at = (duties: readonly number[]): number => {
    const rpms = speeds(data, groups, duties);
    const watts = solve(rpms);
    take(found, watts, lastHitCode(), fanPower(model, rpms));
    return watts;
  };
  const filled = (duties: readonly number[], kept: number) =>
    fillLevel(data, groups, duties, kept, capDbA + 1e-9, BISECTIONS);
  let best = shares.map((s) => Math.min(1, s * duty));
  if (best.every((d) => d === 0)) return;
  // as loud as the cap allows in this row
  best = filled(best, -1) ?? best;
  let most = at(best);
  for (let g = 0; g < groups.length; g++) {
    if (!(best[g]! > 0)) continue;
    const from = best;
    const tryAt = (factor: number): { duties: number[]; watts: number } | null => {
      const duties = filled(
        from.map((d, k) => (k === g ? Math.min(1, d * factor) : d)),
        g,
      );
      if (!duties) return null;
      const watts = at(duties);
      if (watts > most) {
        most = watts;
        best = duties;
      }
      return { duties, watts };
    };
    const start = most;
    const down = tryAt(1 - SPLIT_STEP);
    const up = from[g]! < 1 ? tryAt(1 + SPLIT_STEP) : null;
    const way = down && down.watts > start ? -1 : up && up.watts > start ? 1 : 0;
    if (way !== 0) {
      // the best lies further on, often at a kink where another limit takes over
      goldenSection((x) => tryAt(Math.exp(way * x))?.watts ?? -1, 0, WIDEST, SPLIT_STEPS);
    } else if (down && up) {
      const bend = down.watts - 2 * start + up.watts;
      const shift = bend < 0 ? (0.5 * (down.watts - up.watts)) / bend : 0;
      if (Math.abs(shift) > 0.05) tryAt(1 + SPLIT_STEP * Math.min(2, shift));
    }
    // what one of two groups does not take is the other's, unless that turns at full speed already
    if (groups.length === 2 && duty < 1) return;
  }
}
