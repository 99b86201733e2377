import { openCase, type CaseRequest, type OpenCase } from '../case/openCase';
import { capsOf, MAX_CAP_DBA, MIN_CAP_DBA } from '../case/laboratory';
import type { Cap } from '../envelope/fanStates';
import { whereReached } from '../numerics/monotoneCubic';
import { planDraws, type DrawPlan } from '../uncertainty/drawPlan';
import { COLUMNS, READOUTS, roomForDraws, runDraws, type Drawn } from '../uncertainty/draws';
import { noticeable, type Noticeable } from '../service/labSettings';
import { quantileOfSorted } from '../uncertainty/quantile';
import { applyChanges } from './applyChanges';
import { drawQuieter, onlyCaps, quieterDraws, type QuieterDraws } from './quieterDraws';
import { calibrationAfter } from './calibrationAfter';
import type { Change, Lever, Moves } from './lever';
import { namedDraws } from '../uncertainty/namedDraws';
import {
  junctionAt,
  nearestDie,
  roomForJunctions,
  type RowJunctions,
} from '../uncertainty/rowJunctions';

/** Median and 5–95 % of a difference over the draws. */
export interface Gain {
  p05: number;
  p50: number;
  p95: number;
}

/** What a lever brings at a cap. */
export interface LeverGain {
  cap: Cap;
  /** Of both dies in their ratio, or of the only one; `central` is the difference of the central solutions. */
  wattsGained: Gain & { central: number };
  /** At the watts of before. */
  dbSaved: Gain;
  /** Of the die nearest to its limit, at the watts and level of before. */
  kelvinSaved: Gain;
  /** Share of the draws in which one of the three is noticed. */
  chanceNoticeable: number;
  /** The band of the watts reaches zero, or it is noticed in fewer than half of the draws. */
  tooSmallToFeel: boolean;
}

/** What somebody notices; a laboratory's own. */
export type Threshold = Noticeable;
export const THRESHOLD: Threshold = noticeable.parse({});

export interface GainOptions {
  /** At which gains are told. */
  caps: readonly Cap[];
  draws?: number | undefined;
  seed?: number | undefined;
  threshold?: Threshold | undefined;
}

/** A machine with all its draws: what changes are held against. */
export interface DrawnMachine {
  open: OpenCase;
  plan: DrawPlan;
  drawn: Drawn;
  /** At levels so far below those asked for that few rows need them. */
  quieter: QuieterDraws;
  junctions: RowJunctions;
  central: readonly number[];
  centralSet: readonly number[];
}

const DRAWS = 400;
/** Levels between which the level for some watts is read off lie no farther apart than this, and reach so far beyond the caps, dB. */
const APART_DB = 5;
const BEYOND_DB = [4, 8] as const;
const TOGETHER = 2;
const NOTICED = 0.5;
/** Fewer watts than any reading shows. */
const ZERO_W = 0.05;

/** Caps at which draws are made: those asked for, the laboratory's, what lies between them, and some beyond them. */
function gridOf(open: OpenCase, caps: readonly Cap[]): Cap[] {
  const known = [...caps, ...capsOf(open.lab)].filter((c): c is number => typeof c === 'number');
  const least = Math.min(...known);
  const most = Math.max(...known);
  const all = [
    ...known,
    ...BEYOND_DB.flatMap((d) => [
      Math.max(MIN_CAP_DBA, least - d),
      Math.min(MAX_CAP_DBA, most + d),
    ]),
  ].sort((x, y) => x - y);
  const levels = all.flatMap((level, i) => {
    const next = all[i + 1];
    if (next === undefined) return [level];
    const pieces = Math.max(1, Math.ceil((next - level) / APART_DB));
    return Array.from({ length: pieces }, (_, k) => level + ((next - level) * k) / pieces);
  });
  const ends = (cap: 'off' | 'full') => (caps.includes(cap) ? [cap] : []);
  return [...ends('off'), ...new Set(levels), ...ends('full')];
}

/** Below this level few rows need a level drawn; where no level is asked for all are needed. */
function quietBelow(caps: readonly Cap[]): number {
  const levels = caps.filter((c): c is number => typeof c === 'number');
  return levels.length > 0 ? Math.min(...levels) - BEYOND_DB[0] : -Infinity;
}

/** The readout whose watts are told: both dies, or the only one. */
const readoutOf = ({ model }: OpenCase): number =>
  model.hasCpu && model.hasGpu ? TOGETHER : model.hasCpu ? 0 : 1;

/**
 * Makes all draws of a machine, by the names of what is uncertain.
 *
 * @param request record and what applies to it
 * @param options caps, draws, seed
 * @param ratio in which both dies are loaded; that of the setting by default
 */
export function drawMachine(
  request: CaseRequest,
  options: GainOptions,
  ratio = request.ratio,
): DrawnMachine {
  const open = openCase({ ...request, ...(ratio ? { ratio } : {}) });
  const { draws = DRAWS, seed = 1, caps } = options;
  const asked = {
    draws,
    caps: gridOf(open, caps),
    seed,
    togetherOnly: true,
    drawn: false as const,
  };
  const all = namedDraws(planDraws(open, asked), seed);
  const least = quietBelow(caps);
  const isQuieter = (cap: Cap) => typeof cap === 'number' && cap < least;
  const plan = onlyCaps(all, (cap) => !isQuieter(cap));
  const quieter = quieterDraws(onlyCaps(all, isQuieter));
  const drawn = roomForDraws(plan, draws);
  const junctions = roomForJunctions(plan);
  runDraws(plan, 0, draws, drawn, junctions);
  const middle = centralOf(plan);
  return { open, plan, drawn, quieter, junctions, central: middle.carried, centralSet: middle.set };
}

/** Watts of the central solution at each cap of a plan: one draw in which nothing is drawn. */
function centralOf(plan: DrawPlan): { carried: number[]; set: number[] } {
  // what a calibration moved stands at its fit
  const fitted = plan.calibrated.flatMap(({ name, at }) => {
    const value = plan.open.standIns?.get(name);
    return value === undefined ? [] : [{ value, at }];
  });
  const one: DrawPlan = {
    ...plan,
    draws: 1,
    columns: [],
    calibrated: [],
    given: [...plan.given, ...fitted],
    u: new Float64Array(0),
  };
  const drawn = roomForDraws(one, 1);
  runDraws(one, 0, 1, drawn);
  const r = readoutOf(plan.open);
  return {
    carried: plan.caps.map((_, c) => drawn.watts[c * COLUMNS + r]!),
    set: plan.caps.map((_, c) => drawn.watts[c * COLUMNS + r + READOUTS]!),
  };
}

/** The same machine after changes, in the same ratio. */
export function drawChanged(
  before: DrawnMachine,
  changes: readonly Change[],
  options: GainOptions,
): DrawnMachine {
  const { request, ratio } = before.open;
  const changed = applyChanges(request.record, changes, request.setting);
  const calibration =
    request.calibration &&
    calibrationAfter(
      request.calibration,
      changes.map((c) => c.path),
    );
  return drawMachine({ ...request, ...changed, calibration }, options, { ...ratio });
}

/**
 * What changes bring, as differences over common draws.
 *
 * @param before the machine
 * @param after the machine after them
 * @param moves whether the watts are those the cooling carries, or those of the machine as set
 * @param options caps, threshold
 */
export function gainsBetween(
  before: DrawnMachine,
  after: DrawnMachine,
  moves: Moves,
  options: GainOptions,
): LeverGain[] {
  const { caps, threshold = THRESHOLD } = options;
  const draws = before.plan.draws;
  const column = readoutOf(before.open) + (moves === 'setting' ? READOUTS : 0);
  const kelvin = kelvinSaved(before, after, caps, column);
  drawWhereNeeded(before, before, caps, column);
  drawWhereNeeded(after, before, caps, column);
  const levelBefore = levelReader(before, column);
  const levelAfter = levelReader(after, column);
  return caps.map((cap, k) => {
    const at = before.plan.caps.indexOf(cap);
    const watts = new Float64Array(draws);
    const db = new Float64Array(draws);
    for (let row = 0; row < draws; row++) {
      const own = wattsAt(before, row, at, column);
      watts[row] = wattsAt(after, row, after.plan.caps.indexOf(cap), column) - own;
      db[row] = levelBefore(row, own) - levelAfter(row, own);
    }
    const kelvins = kelvin[k]!;
    let noticed = 0;
    for (let row = 0; row < draws; row++) {
      const isWarm = kelvins[row]! >= threshold.kelvin;
      if (watts[row]! >= threshold.watts || db[row]! >= threshold.db || isWarm) noticed++;
    }
    const middle = (m: DrawnMachine) => (moves === 'setting' ? m.centralSet : m.central);
    const wattsGained = {
      central: middle(after)[after.plan.caps.indexOf(cap)]! - middle(before)[at]!,
      ...gainOf(watts),
    };
    const chanceNoticeable = noticed / draws;
    return {
      cap,
      wattsGained,
      dbSaved: gainOf(db),
      kelvinSaved: gainOf(kelvins),
      chanceNoticeable,
      tooSmallToFeel: wattsGained.p05 < ZERO_W || chanceNoticeable < NOTICED,
    };
  });
}

/** What a change of a machine brings. */
export const gainsOfChange = (
  before: DrawnMachine,
  { change, moves }: Pick<Lever, 'change' | 'moves'>,
  options: GainOptions,
): LeverGain[] => gainsBetween(before, drawChanged(before, change, options), moves, options);

function gainOf(values: Float64Array): Gain {
  if (values.length === 0) return { p05: 0, p50: 0, p95: 0 };
  const sorted = Float64Array.from(values).sort();
  const at = (p: number) => quantileOfSorted(sorted, p);
  return { p05: at(0.05), p50: at(0.5), p95: at(0.95) };
}

const wattsAt = ({ plan, drawn }: DrawnMachine, row: number, cap: number, column: number) =>
  drawn.watts[(row * plan.caps.length + cap) * COLUMNS + column]!;

/** Numeric caps of a plan with their places, rising. */
const levelsOf = ({ caps }: DrawPlan): { dbA: number; at: number }[] =>
  caps.flatMap((c, at) => (typeof c === 'number' ? [{ dbA: c, at }] : []));

/** Draws the quieter levels of a machine in the rows in which it holds the watts of before at its least level already. */
function drawWhereNeeded(
  machine: DrawnMachine,
  before: DrawnMachine,
  caps: readonly Cap[],
  column: number,
): void {
  const [least] = levelsOf(machine.plan);
  if (!least) return;
  const places = caps.map((cap) => before.plan.caps.indexOf(cap));
  drawQuieter(machine.quieter, (row) => {
    const has = wattsAt(machine, row, least.at, column);
    return places.some((at) => wattsAt(before, row, at, column) <= has);
  });
}

/** The least level that holds some watts, dB(A), by row; between the levels drawn along a smooth curve, and within them. */
function levelReader(
  machine: DrawnMachine,
  column: number,
): (row: number, watts: number) => number {
  const { plan, quieter } = machine;
  const quiet = levelsOf(quieter.plan);
  const levels = levelsOf(plan);
  const dbA = levels.map((l) => l.dbA);
  const allDbA = [...quiet.map((l) => l.dbA), ...dbA];
  const has = new Float64Array(levels.length);
  const allHas = new Float64Array(allDbA.length);
  return (row, watts) => {
    for (let i = 0; i < has.length; i++) has[i] = wattsAt(machine, row, levels[i]!.at, column);
    if (!quieter.made[row]) return whereReached(dbA, has, watts);
    for (let i = 0; i < quiet.length; i++) {
      const at = (row * quiet.length + i) * COLUMNS + column;
      // what a quieter level carries a louder one carries too
      allHas[i] = Math.min(quieter.drawn.watts[at]!, has[0]!);
    }
    for (let i = 0; i < has.length; i++) allHas[quiet.length + i] = has[i]!;
    return whereReached(allDbA, allHas, watts);
  };
}

/** By cap: how much cooler the die nearest to its limit is in each draw, at the watts and fans of before. */
function kelvinSaved(
  before: DrawnMachine,
  after: DrawnMachine,
  caps: readonly Cap[],
  column: number,
): Float64Array[] {
  return caps.map((cap) => {
    const atBefore = before.plan.caps.indexOf(cap);
    const atAfter = after.plan.caps.indexOf(cap);
    return Float64Array.from({ length: before.plan.draws }, (_, row) => {
      const own = row * before.plan.caps.length + atBefore;
      const watts = wattsAt(before, row, atBefore, column);
      const die = nearestDie(before.junctions, own, watts);
      const place = row * after.plan.caps.length + atAfter;
      return (
        junctionAt(before.junctions, own, die, watts) -
        junctionAt(after.junctions, place, die, watts)
      );
    });
  });
}
