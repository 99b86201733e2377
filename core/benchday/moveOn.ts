import type { Placed } from './conflicts';
import { actMinutes, DAY_MIN, type Act, type BenchDay } from './dayDocument';
import { orderDay } from './orderDay';

/** How an act stands at a moment. */
export type ActState = 'to come' | 'due' | 'under way' | 'over its time' | 'done';

const minutesBetween = (from: string, to: string): number =>
  Math.round((Date.parse(to) - Date.parse(from)) / 60_000);

/** How an act stands. @param nowMin from the beginning of the day */
export function stateOf(act: Act, nowMin: number): ActState {
  if (act.endedAt) return 'done';
  if (act.startedAt) {
    return nowMin > (act.startMin ?? 0) + actMinutes(act) ? 'over its time' : 'under way';
  }
  return act.startMin !== null && act.startMin !== undefined && act.startMin <= nowMin
    ? 'due'
    : 'to come';
}

/** The act that is due next: begun by nobody yet, the earliest in the table. */
export function nextDue({ acts }: Pick<BenchDay, 'acts'>): Act | null {
  const open = acts.filter((a) => !a.startedAt && typeof a.startMin === 'number');
  return open.reduce<Act | null>((a, b) => (a && a.startMin! <= b.startMin! ? a : b), null);
}

/**
 * When the day begins once an act does: as planned; with that act where it comes before the day, or long after it.
 *
 * @param day as it was planned
 * @param now the moment at which the act begins
 */
export function beginsWith({ beginsAt }: Pick<BenchDay, 'beginsAt'>, now: string): string {
  if (!beginsAt) return now;
  const nowMin = minutesBetween(beginsAt, now);
  return nowMin < 0 || nowMin > DAY_MIN ? now : beginsAt;
}

/**
 * Moves the table on by what really happened: what is done stands as long as it took, what is under way until it is over, and what
 * is to come begins no earlier than now, put in order anew.
 *
 * @param day as it was planned
 * @param now the moment
 * @returns the day; itself where nothing moves
 */
export function moveOn(day: BenchDay, now: string): BenchDay {
  if (!day.beginsAt) return day;
  const nowMin = minutesBetween(day.beginsAt, now);
  // a day that is over stays as it was
  if (nowMin > DAY_MIN) return day;
  const begun = day.acts.filter((a) => a.startedAt);
  const fixed = begun.map((act): Placed => {
    const startMin = minutesBetween(day.beginsAt!, act.startedAt!);
    const lasted = act.endedAt ? minutesBetween(act.startedAt!, act.endedAt) : null;
    return { act: lasting(act, lasted ?? Math.max(actMinutes(act), nowMin - startMin)), startMin };
  });
  const open = day.acts.filter((a) => !a.startedAt && typeof a.startMin === 'number');
  // what waits for something that was done waits no longer
  const done = new Set(day.acts.filter((a) => a.endedAt).map((a) => a.id));
  const waiting = open.map((a) => ({ ...a, after: (a.after ?? []).filter((x) => !done.has(x)) }));
  const ordered = orderDay(waiting, day, { fixed, fromMin: Math.max(0, nowMin) });
  const acts = day.acts.map((act) => {
    const at = fixed.find((f) => f.act.id === act.id)?.startMin ?? ordered.startMin[act.id];
    if (at === undefined || at === act.startMin) return act;
    return { ...act, startMin: Math.min(DAY_MIN, Math.max(0, at)) };
  });
  return acts.every((a, i) => a === day.acts[i]) ? day : { ...day, acts };
}

/** An act that took another time: its last phase gives or takes. */
function lasting(act: Act, minutes: number): Act {
  let left = Math.max(1, minutes);
  const phases: Act['phases'] = [];
  act.phases.forEach((p, i) => {
    if (left <= 0) return;
    const own = i === act.phases.length - 1 ? left : Math.min(p.minutes, left);
    phases.push({ ...p, minutes: own });
    left -= own;
  });
  return { ...act, phases };
}
