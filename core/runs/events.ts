import type { Log } from '../logs/readLog';
import { filled, valuesOf, type DieName } from './channels';
import type { Stretch } from './powerStretches';
import type { PowerDrop, Segment } from './segments';
import { firstAt } from './steadyWindow';

/** What a record says of the limits that a log may show. */
export interface RunLimits {
  junctionC: Readonly<Partial<Record<DieName, number>>>;
  /** Of the setting: what each die is held to. */
  sustainedW: Readonly<Partial<Record<DieName, number>>>;
  skinC: number | null;
  adapterW: number | null;
  /** Full speed of each fan by its id. */
  fanRpm: Readonly<Record<string, number>>;
}

export const RUN_EVENT_KINDS = [
  'short-limit-ends',
  'later-limit',
  'junction',
  'skin',
  'adapter',
  'fans',
  'throttle-junction',
  'throttle-power',
  'throttle-unknown',
  'log-gap',
  'clock-jump',
] as const;

export interface RunEvent {
  atS: number;
  kind: (typeof RUN_EVENT_KINDS)[number];
  part: string;
}

/** Within this of its limit a die is held by it, K: sensors tell whole kelvins (common practice, no source). */
const AT_LIMIT_K = 1.5;
/** A die that stays within this of its hottest while its power falls is held there, K. */
const AT_CEILING_K = 1;
/** For so long it must stay, s. */
const STAYS_S = 10;
/** Watts within this share of a limit are held by it. */
const AT_POWER = 0.03;
/** Share of a fall by which the levels before and after it may change. */
const STEP_ROOM = 0.15;
const FULL_SPEED = 0.97;

/**
 * What the firmware did, told from powers, temperatures and speeds; without limits the cause of throttling is not known.
 *
 * @param log the log
 * @param segments of it
 * @param drops of its powers
 * @param limits from a record; null without one
 */
export function eventsOf(
  log: Pick<Log, 'timeS' | 'columns' | 'gaps' | 'clockJumps'>,
  segments: readonly Segment[],
  drops: readonly PowerDrop[],
  limits: RunLimits | null,
): RunEvent[] {
  const { timeS } = log;
  const events: RunEvent[] = [
    ...log.gaps.map((g): RunEvent => ({ atS: g.fromS, kind: 'log-gap', part: 'log' })),
    ...log.clockJumps.map((c): RunEvent => ({ atS: c.atS, kind: 'clock-jump', part: 'log' })),
  ];
  const loaded = segments.filter((s) => ['short', 'sustained', 'later', 'ramp'].includes(s.kind));
  const isLoaded = (i: number) => loaded.some((s) => i >= s.from && i < s.to);

  for (const part of ['cpu', 'gpu'] as const) {
    const values = valuesOf(log, `${part}C`);
    const held = values
      ? heldAt(filled(values), timeS, limits?.junctionC[part] ?? null, isLoaded)
      : null;
    const powers = valuesOf(log, `${part}PowerW`);
    for (const d of drops.filter((x) => x.part === part)) {
      const throttles = held !== null && held.holds(d.at) && !isStep(powers, timeS, d);
      if (throttles) {
        if (!limits) events.push({ atS: d.atS, kind: 'throttle-unknown', part });
      } else {
        const kind = d.kind === 'short' ? 'short-limit-ends' : 'later-limit';
        events.push({ atS: d.atS, kind, part });
      }
    }
    if (limits && held && held.first !== null) {
      events.push({ atS: timeS[held.first]!, kind: 'throttle-junction', part });
    }
    const limitW = limits?.sustainedW[part];
    if (powers && limitW !== undefined) {
      const at = loaded.find(
        (s) => s.kind !== 'ramp' && Math.abs(meanOf(powers, s) / limitW - 1) <= AT_POWER,
      );
      if (at) events.push({ atS: at.fromS, kind: 'throttle-power', part });
    }
  }
  if (limits) events.push(...reached(log, limits, isLoaded));
  return events.sort((a, b) => a.atS - b.atS);
}

/** Where a die is held at its limit, or without a known one at its hottest while its power has fallen. */
function heldAt(
  temperatureC: Float64Array,
  timeS: Float64Array,
  limitC: number | null,
  isLoaded: (i: number) => boolean,
): { first: number | null; holds: (i: number) => boolean } {
  const n = timeS.length;
  let hottest = -Infinity;
  for (let i = 0; i < n; i++) hottest = Math.max(hottest, temperatureC[i]!);
  const least = limitC === null ? hottest - AT_CEILING_K : limitC - AT_LIMIT_K;
  /** Stays there for a while from a sample on. */
  const holds = (from: number) => {
    for (let i = from; i < n && timeS[i]! - timeS[from]! <= STAYS_S; i++) {
      if (temperatureC[i]! < least) return false;
    }
    return timeS[n - 1]! - timeS[from]! >= STAYS_S;
  };
  let first: number | null = null;
  if (limitC !== null) {
    for (let i = 0; i < n && first === null; i++) {
      if (temperatureC[i]! >= least && isLoaded(i) && holds(i)) first = i;
    }
  }
  return { first, holds };
}

/** Firmware steps from one level to another; a die that is held at its limit gives way little by little. */
function isStep(
  powers: Float64Array | undefined,
  timeS: Float64Array,
  { atS, fromW, toW }: PowerDrop,
): boolean {
  const over = (fromS: number, toS: number) =>
    powers ? meanOf(powers, { from: firstAt(timeS, fromS), to: firstAt(timeS, toS) }) : NaN;
  const room = STEP_ROOM * (fromW - toW);
  const level = (near: number, far: number) => !(Math.abs(near - far) > room);
  return (
    level(over(atS - 8, atS - 2), over(atS - 30, atS - 15)) &&
    level(over(atS + 3, atS + 13), over(atS + 30, atS + 60))
  );
}

function reached(
  log: Pick<Log, 'timeS' | 'columns'>,
  limits: RunLimits,
  isLoaded: (i: number) => boolean,
): RunEvent[] {
  const { timeS } = log;
  const out: RunEvent[] = [];
  const first = (is: string, least: number, kind: RunEvent['kind'], part: string) => {
    const at = valuesOf(log, is)?.findIndex((x, i) => x >= least && isLoaded(i)) ?? -1;
    if (at >= 0) out.push({ atS: timeS[at]!, kind, part });
  };
  if (limits.skinC !== null) first('skinC', limits.skinC - 0.5, 'skin', 'skin');
  if (limits.adapterW !== null) first('wallW', limits.adapterW, 'adapter', 'adapter');
  for (const [id, rpm] of Object.entries(limits.fanRpm)) {
    first(`fanRpm.${id}`, FULL_SPEED * rpm, 'fans', id);
  }
  return out;
}

function meanOf(x: Float64Array, { from, to }: Stretch): number {
  let sum = 0;
  let count = 0;
  for (let i = from; i < to; i++) {
    if (!Number.isFinite(x[i]!)) continue;
    sum += x[i]!;
    count++;
  }
  return count > 0 ? sum / count : NaN;
}
