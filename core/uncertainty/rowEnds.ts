import { keepFlows, stillAir } from '../airflow/airSystem';
import type { SplitSet } from './centralSplits';
import { centralFlows, stepFlows, whichTurn } from './expectedFlows';
import type { SplitLookFor } from './rowSplits';
import { createTemperatureLimits, FAR_OFF, temperatureCodes } from './limitSlots';
import { maxPowerAlongRay } from '../envelope/boundary';
import { firstLimit, lastHitCode } from '../envelope/limits';
import type { Ray } from '../envelope/limitTypes';
import type { MachineModel } from '../network/networkModel';
import { solveInto, type LinearState } from '../network/steadyState';
import {
  moveAlong,
  readTemperatures,
  temperatureCount,
  writeTemperatures,
  type CentralEnds,
  type StateEnds,
} from './centralEnds';

/** What the shares of the central values say of a row may be off by this part: as a rule half of it, in one of ten more. */
const DOUBT = 0.15;
/** The same with the fans off, where shell and air follow more steeply. */
const STILL_DOUBT = 0.4;
/** What a kelvin does to a limit of which nothing is known, as a share of its watts: more than to any that is. */
const UNKNOWN_PER_K = 3e-3;
/** A step to the side tells which way a limit goes: its ends may be off by this many times as much. */
const STEP_ROUGHER = 4;
/** Solves of one end before the bounded search takes over. */
const MAX_SOLVES = 6;
/** Fans off carry this share at most where they need not be looked at. */
const FAR_BELOW = 0.7;
/** Below this rise over the room a row’s is not told by its ratio. */
const LEAST_RISE_K = 1;
/** Where the fits of properties hold, °C. */
const LEAST_C = -20;
const MOST_C = 150;

/** Where one row's rays end with its fans on, found from where they end at the central values. */
export interface RowEnds {
  /** What the last look along a ray found: W, and what holds it as `lastHitCode` says it. */
  watts: Float64Array;
  held: Uint16Array;
  /** By ray, where the last look found the limits of temperature, W, by their places in `temperatureCodes`. */
  limits: Float64Array[];
  /** How often a network was solved since this was made, but for the bounded search. */
  solves(): number;
  /** Whether the central values say that fans off carry far less than some cap does, along each ray. */
  isFarAboveOff(c: number): boolean;
  /** Whether something is known of a cap with fans on. */
  knows(c: number): boolean;
  /** Forgets the row before. */
  begin(): void;
  /** All rays at once with the fans off; before any cap. */
  off(model: MachineModel, rpms: readonly number[], rays: readonly (Ray | null)[]): void;
  /** All rays at once, with all fans on the duty of a cap. */
  atCap(
    model: MachineModel,
    rpms: readonly number[],
    rays: readonly (Ray | null)[],
    c: number,
  ): void;
  /** All rays at other speeds, after that cap; one that surely carries no more than `enough` is not looked at closely. */
  atSpeeds(
    model: MachineModel,
    rpms: readonly number[],
    rays: readonly (Ray | null)[],
    c: number,
    enough: Float64Array,
  ): void;
  /**
   * Some rays at once in a split of a cap's level between fans controlled apart.
   *
   * @param set those rays, and where they end in the best split at the central values
   * @param of which of them are looked at
   * @param as what the look is for
   */
  inSplit(
    model: MachineModel,
    rpms: readonly number[],
    rays: readonly (Ray | null)[],
    set: SplitSet,
    of: readonly boolean[],
    as: SplitLookFor,
  ): void;
  /** One ray at other speeds, after that cap. */
  near(model: MachineModel, rpms: readonly number[], ray: Ray, c: number, r: number): number;
}

/**
 * Finds the ends of a row's rays. A solve holds for the temperatures at which its properties were taken. These are expected to
 * lie as far from the central ones as at the row's last cap, and are much the same for all rays at one fan speed, so that one
 * solve serves all; what the difference to the temperatures found does is known from the central values and taken in. Only
 * where that could be off by more than the tolerance a ray is solved at temperatures of its own.
 *
 * @param central a model at the central values
 * @param ends from `centralEnds`
 * @param work states to solve in
 * @param tolerance share of the watts by which an end may be off
 */
export function createRowEnds(
  central: MachineModel,
  ends: CentralEnds,
  rays: number,
  work: { on: LinearState; off: LinearState },
  tolerance: number,
): RowEnds {
  const count = temperatureCount(central);
  const centralRoomC = central.data.room.temperatureC;
  const room = () => Array.from({ length: rays }, () => new Float64Array(count));
  /** Where each ray ended at the last cap, and which that was. */
  const own = room();
  const other = room();
  const lastOf: (StateEnds | null)[] = Array.from({ length: rays }, () => null);
  /** The state whose flows were found last. */
  let last: StateEnds | null = null;
  let state = work.on;
  let solves = 0;
  const taken = new Float64Array(count);
  const elsewhere = new Float64Array(count);
  const watts = new Float64Array(rays);
  const held = new Uint16Array(rays);
  /** What the last look moved the watts by at most, and by how much that may be off. */
  const most = new Float64Array(rays);
  const doubt = new Float64Array(rays);
  const codes = temperatureCodes(central);
  const limits = Array.from({ length: rays }, () => new Float64Array(codes.length));
  const readLimits = limits.map((out) => createTemperatureLimits(central, out));
  /** By what share an end may be off now. */
  let within = tolerance;
  /** Whether limits of temperature are read too: where there is a split to find. */
  let reading = false;
  /** Rays that need a solve of their own. */
  const isOpen = new Uint8Array(rays);
  const masked: (Ray | null)[] = Array.from({ length: rays }, () => null);
  const atLast = stillAir(central.air);
  /** Which fans turned there, and in the state's flows; unknown before a row's first cap. */
  let atLastTurn = -1;
  let flowsTurn = -1;

  /** Solves with properties at these temperatures. */
  const solveAt = (model: MachineModel, rpms: readonly number[], at: Float64Array): void => {
    solves++;
    for (let i = 0; i < count; i++) taken[i] = at[i]!;
    writeTemperatures(at, state.at);
    solveInto(model, rpms, state);
  };

  /** Where all limits of temperature lie along a ray by what is solved, moved as far as its temperatures are off. */
  const readAll = (
    model: MachineModel,
    ray: Ray,
    central: StateEnds,
    r: number,
    found: Float64Array,
  ): void => {
    readLimits[r]!(model, state, ray);
    const of = limits[r]!;
    const perPlace = sharesByPlace(central)[r]!;
    const nearby = watts[r]! * FAR_OFF;
    for (let l = 0; l < codes.length; l++) {
      const perK = perPlace[l];
      if (!perK || !(of[l]! < nearby)) continue;
      let moved = 0;
      for (let i = 0; i < count; i++) moved += perK[i]! * (found[i]! - taken[i]!);
      of[l] = Math.max(0, of[l]! * (1 + moved));
    }
  };
  const byPlace = new Map<StateEnds, (Float64Array | undefined)[][]>();
  const sharesByPlace = (central: StateEnds) => {
    const known = byPlace.get(central);
    if (known) return known;
    const made = central.shares.map((of) => codes.map((code) => of.get(code)));
    byPlace.set(central, made);
    return made;
  };

  /** Where a ray ends by what is solved, and its temperatures there. */
  const look = (
    model: MachineModel,
    ray: Ray,
    central: StateEnds,
    r: number,
    found: Float64Array,
  ) => {
    const limitW = firstLimit(model, state, null, ray);
    const code = lastHitCode();
    moveAlong(model, state, ray, limitW);
    readTemperatures(state.at, found);
    const perK = central.shares[r]!.get(code);
    let moved = 0;
    let sum = 0;
    for (let i = 0; i < count; i++) {
      const kelvin = found[i]! - taken[i]!;
      const share = perK ? perK[i]! * kelvin : UNKNOWN_PER_K * kelvin;
      moved += share;
      sum += Math.abs(share);
    }
    most[r] = sum;
    doubt[r] = perK ? (state === work.off ? STILL_DOUBT : DOUBT) * sum : sum;
    watts[r] = perK ? Math.max(0, limitW * (1 + moved)) : limitW;
    held[r] = code;
    if (reading && doubt[r]! <= within) readAll(model, ray, central, r, found);
  };

  /** Solves at the temperatures that were found until they stand still. */
  const settle = (
    model: MachineModel,
    rpms: readonly number[],
    ray: Ray,
    central: StateEnds,
    r: number,
    found: Float64Array,
  ): void => {
    for (let k = 0; k < MAX_SOLVES; k++) {
      if (doubt[r]! <= within) return;
      solveAt(model, rpms, found);
      look(model, ray, central, r, found);
    }
    watts[r] = maxPowerAlongRay(model, rpms, ray, null, state, tolerance);
    held[r] = lastHitCode();
    if (reading) readLimits[r]!(model, state, ray);
    moveAlong(model, state, ray, watts[r]!);
    readTemperatures(state.at, found);
  };

  /** Where the rays should end at a state of the fans, on the mean of all: as much warmer than the room as the last ones were. */
  const expect = (
    to: StateEnds,
    wanted: readonly (Ray | null)[],
    roomC: number,
    anew = false,
  ): void => {
    elsewhere.fill(0);
    let n = 0;
    for (let r = 0; r < rays; r++) {
      const at = to.temperatures[r];
      if (!wanted[r] || !at) continue;
      const before = anew ? null : lastOf[r]?.temperatures[r];
      for (let i = 0; i < count; i++) {
        const rise = at[i]! - centralRoomC;
        if (!before) elsewhere[i]! += roomC + rise;
        else {
          const centralRise = before[i]! - centralRoomC;
          const ownRise = own[r]![i]! - roomC;
          const apart =
            centralRise > LEAST_RISE_K
              ? (ownRise * rise) / centralRise
              : ownRise + rise - centralRise;
          elsewhere[i]! += roomC + apart;
        }
      }
      n++;
    }
    for (let i = 0; i < count; i++) {
      elsewhere[i] = Math.min(MOST_C, Math.max(LEAST_C, elsewhere[i]! / n));
    }
  };

  const meanOf = (
    temperatures: readonly Float64Array[],
    of: ArrayLike<unknown>,
    out: Float64Array,
  ): void => {
    out.fill(0);
    let n = 0;
    for (let r = 0; r < rays; r++) {
      if (!of[r]) continue;
      for (let i = 0; i < count; i++) out[i]! += temperatures[r]![i]!;
      n++;
    }
    for (let i = 0; i < count; i++) out[i]! /= n;
  };

  /** By what share an end would be off were it looked at from a solve at `elsewhere`. */
  const expectedDoubt = (central: StateEnds, r: number, found: Float64Array): number => {
    const perK = central.shares[r]!.get(held[r]!);
    if (!perK) return Infinity;
    let sum = 0;
    for (let i = 0; i < count; i++) sum += Math.abs(perK[i]! * (found[i]! - elsewhere[i]!));
    return (state === work.off ? STILL_DOUBT : DOUBT) * sum;
  };

  /** Sets where the air is sought from: near the last cap, else as at the central values with the same fans turning. */
  const expectFlows = (rpms: readonly number[], to?: StateEnds): void => {
    const { flows } = state;
    const turn = whichTurn(rpms);
    let rpmSum = 0;
    for (let i = 0; i < rpms.length; i++) rpmSum += rpms[i]!;
    if (to && to.turn === turn && last?.turn === turn && atLastTurn === turn) {
      stepFlows(last.flows, to.flows, atLast, flows, rpmSum);
    } else if (to?.turn === turn) stepFlows(null, to.flows, atLast, flows, rpmSum);
    else if (turn !== flowsTurn && turn > 0) {
      stepFlows(null, centralFlows(central, ends.airByTurn, turn), atLast, flows, rpmSum);
    }
    flowsTurn = turn;
  };

  /** All rays from one solve where they are expected, then each on its own where it needs that and may carry more than enough. */
  const together = (
    model: MachineModel,
    rpms: readonly number[],
    wanted: readonly (Ray | null)[],
    central: StateEnds,
    found: readonly Float64Array[],
    enough?: Float64Array,
  ): void => {
    solveAt(model, rpms, elsewhere);
    let open = 0;
    for (let r = 0; r < rays; r++) {
      isOpen[r] = 0;
      if (!wanted[r]) continue;
      look(model, wanted[r]!, central, r, found[r]!);
      if (doubt[r]! <= within || (enough && watts[r]! * (1 + 2 * most[r]!) < enough[r]!)) continue;
      isOpen[r] = 1;
      open++;
    }
    if (open > 1) againTogether(model, rpms, wanted, central, found);
    for (let r = 0; r < rays; r++) {
      if (isOpen[r]) settle(model, rpms, wanted[r]!, central, r, found[r]!);
    }
  };

  /** A second solve for those rays that were all expected elsewhere, where it should be near enough to two of them. */
  const againTogether = (
    model: MachineModel,
    rpms: readonly number[],
    wanted: readonly (Ray | null)[],
    central: StateEnds,
    found: readonly Float64Array[],
  ): void => {
    meanOf(found, isOpen, elsewhere);
    let near = 0;
    for (let r = 0; r < rays; r++) {
      if (isOpen[r] && expectedDoubt(central, r, found[r]!) <= within) near++;
    }
    if (near < 2) return;
    solveAt(model, rpms, elsewhere);
    for (let r = 0; r < rays; r++) {
      if (isOpen[r]) look(model, wanted[r]!, central, r, found[r]!);
    }
  };

  return {
    watts,
    held,
    limits,
    solves: () => solves,
    knows: (c) => Boolean(ends.caps[c]),
    isFarAboveOff: (c) => {
      const cap = ends.caps[c]!;
      return cap.watts.every((w, r) => w === 0 || ends.off.watts[r]! < FAR_BELOW * w);
    },
    begin() {
      last = null;
      lastOf.fill(null);
      atLastTurn = -1;
      flowsTurn = -1;
    },
    off(model, rpms, wanted) {
      state = work.off;
      expect(ends.off, wanted, model.data.room.temperatureC, true);
      together(model, rpms, wanted, ends.off, other);
      state = work.on;
    },
    atCap(model, rpms, wanted, c) {
      const cap = ends.caps[c]!;
      expect(cap, wanted, model.data.room.temperatureC);
      expectFlows(rpms, cap);
      together(model, rpms, wanted, cap, own);
      keepFlows(state.flows, atLast);
      atLastTurn = flowsTurn;
      last = cap;
      lastOf.fill(cap);
    },
    inSplit(model, rpms, wanted, set, of, as) {
      const to = set.ends!;
      for (let r = 0; r < rays; r++) masked[r] = of[r] ? wanted[r]! : null;
      if (as === 'first') {
        expect(to, masked, model.data.room.temperatureC);
        expectFlows(rpms, to);
      } else {
        meanOf(own, masked, elsewhere);
        expectFlows(rpms);
      }
      reading = true;
      if (as === 'step') within = STEP_ROUGHER * tolerance;
      together(model, rpms, masked, to, own);
      within = tolerance;
      reading = false;
      if (as !== 'first') return;
      keepFlows(state.flows, atLast);
      atLastTurn = flowsTurn;
      last = to;
      for (let r = 0; r < rays; r++) if (of[r]) lastOf[r] = to;
    },
    atSpeeds(model, rpms, wanted, c, enough) {
      const cap = ends.caps[c]!;
      meanOf(own, wanted, elsewhere);
      expectFlows(rpms);
      together(model, rpms, wanted, cap, other, enough);
      // the next cap is like the last one, not like this
      keepFlows(atLast, state.flows);
      flowsTurn = atLastTurn;
    },
    near(model, rpms, ray, c, r) {
      const cap = ends.caps[c]!;
      expectFlows(rpms);
      solveAt(model, rpms, own[r]!);
      look(model, ray, cap, r, elsewhere);
      settle(model, rpms, ray, cap, r, elsewhere);
      return watts[r]!;
    },
  };
}
