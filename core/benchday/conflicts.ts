import { actMinutes, type Act, type BenchDay, type Phase } from './dayDocument';

/** An act at its place in the table. */
export interface Placed {
  act: Act;
  startMin: number;
}

/** Two acts that cannot be as they stand, and why. */
export interface Conflict {
  acts: [string, string];
  why: 'machine' | 'hands' | 'room' | 'instrument' | 'order';
  /** The instrument, where there are too few. */
  what?: string;
}

type Bounds = Pick<BenchDay, 'hands' | 'instruments'>;

interface Stretch {
  from: number;
  to: number;
  phase: Phase;
}

/** Stretches of an act in the day. */
export function stretchesOf({ act, startMin }: Placed): Stretch[] {
  let at = startMin;
  return act.phases.map((phase) => {
    const from = at;
    at += phase.minutes;
    return { from, to: at, phase };
  });
}

const meet = (a: Stretch, b: Stretch) => a.from < b.to && b.from < a.to;
const loudBeside = (a: Phase, b: Phase) =>
  (a.room === 'alone' && b.room !== 'none') || (b.room === 'alone' && a.room !== 'none');

/** How many there are of an instrument. */
export const countOf = ({ instruments }: Bounds, id: string): number =>
  instruments?.find((i) => i.id === id)?.count ?? 1;

/**
 * Everything in a table that cannot be: a machine in two acts, more work than hands, a sound beside a noise run, too few instruments,
 * an act before one that has to be over.
 *
 * @param placed acts in the table
 * @param bounds hands and instruments there are
 */
export function conflictsOf(placed: readonly Placed[], bounds: Bounds): Conflict[] {
  const out: Conflict[] = [];
  placed.forEach((a, i) => {
    for (const b of placed.slice(i + 1)) out.push(...between(a, b));
  });
  const stretches = placed.flatMap((p) => stretchesOf(p).map((s) => ({ ...s, id: p.act.id })));
  const crowd = (
    of: (phase: Phase) => boolean,
    most: number,
    why: 'hands' | 'instrument',
    what?: string,
  ) => {
    const own = stretches.filter((s) => of(s.phase));
    for (const s of own) {
      // the most at once is reached where one begins
      const now = own.filter((o) => o.from <= s.from && s.from < o.to);
      const other = now.find((o) => o !== s && o.id !== s.id);
      if (now.length > most && other) {
        out.push({ acts: [other.id, s.id], why, ...(what === undefined ? {} : { what }) });
      }
    }
  };
  crowd((p) => p.hands, bounds.hands, 'hands');
  const used = new Set(stretches.flatMap((s) => s.phase.instruments ?? []));
  for (const id of used) {
    crowd((p) => (p.instruments ?? []).includes(id), countOf(bounds, id), 'instrument', id);
  }
  return out;
}

function between(a: Placed, b: Placed): Conflict[] {
  const acts: [string, string] = [a.act.id, b.act.id];
  const out: Conflict[] = [];
  const overlap =
    a.startMin < b.startMin + actMinutes(b.act) && b.startMin < a.startMin + actMinutes(a.act);
  if (overlap && a.act.machine === b.act.machine) out.push({ acts, why: 'machine' });
  if (overlap) {
    const own = stretchesOf(a);
    const other = stretchesOf(b);
    if (own.some((s) => other.some((o) => meet(s, o) && loudBeside(s.phase, o.phase)))) {
      out.push({ acts, why: 'room' });
    }
  }
  const before = (first: Placed, then: Placed) =>
    then.act.after?.includes(first.act.id) &&
    then.startMin < first.startMin + actMinutes(first.act);
  if (before(a, b)) out.push({ acts, why: 'order' });
  if (before(b, a)) out.push({ acts: [b.act.id, a.act.id], why: 'order' });
  return out;
}

/**
 * Whether an act may begin at a moment beside those that are placed.
 *
 * @param act the act
 * @param startMin when
 * @param placed others, which fit beside each other
 * @param bounds hands and instruments there are
 */
export function fits(
  act: Act,
  startMin: number,
  placed: readonly Placed[],
  bounds: Bounds,
): boolean {
  const own: Placed = { act, startMin };
  const endMin = startMin + actMinutes(act);
  const near = placed.filter(
    (p) => p.startMin < endMin && startMin < p.startMin + actMinutes(p.act),
  );
  for (const p of placed) {
    if (act.after?.includes(p.act.id) && startMin < p.startMin + actMinutes(p.act)) return false;
    if (p.act.after?.includes(act.id) && p.startMin < endMin) return false;
  }
  if (near.length === 0) return true;
  if (near.some((p) => between(own, p).length > 0)) return false;
  const mine = stretchesOf(own);
  const theirs = near.flatMap(stretchesOf);
  const enough = (of: (phase: Phase) => boolean, most: number): boolean => {
    const all = [...mine, ...theirs].filter((s) => of(s.phase));
    if (all.length <= most) return true;
    return all.every((s) => all.filter((o) => o.from <= s.from && s.from < o.to).length <= most);
  };
  if (mine.some((s) => s.phase.hands) && !enough((p) => p.hands, bounds.hands)) return false;
  const used = new Set(mine.flatMap((s) => s.phase.instruments ?? []));
  return [...used].every((id) =>
    enough((p) => (p.instruments ?? []).includes(id), countOf(bounds, id)),
  );
}
