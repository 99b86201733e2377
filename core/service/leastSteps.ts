import { cautionsOf } from './cautions';
import type { Step } from './openUpLog';

/** What of a step matters for the way to a goal. */
export type WayStep = Pick<Step, 'id' | 'needs' | 'reaches' | 'screws' | 'seconds'> &
  Partial<Pick<Step, 'tools' | 'consumables' | 'cautions' | 'name' | 'act' | 'expectedSeconds'>>;

export interface Way {
  /** Steps in an order in which each comes after what it needs, else as they stand in the log. */
  steps: string[];
  screws: string[];
  tools: string[];
  consumables: string[];
  cautions: string[];
  /** Sum of the logged times; null where none was logged. */
  seconds: number | null;
  /** How many of the steps have a logged time. */
  timed: number;
  /** Every alternative was looked at, so that no way is less; else it is the least that was found. */
  proven: boolean;
}

export type WayFault =
  | { kind: 'no-step'; goal: string }
  | { kind: 'unknown-step'; step: string; needs: string }
  | { kind: 'cycle'; steps: string[] }
  | { kind: 'unreachable'; step: string };

/** The logged time of a step, else what it took on the sibling. */
const timeOf = (s: WayStep): number | undefined => s.seconds ?? s.expectedSeconds;

const alternatives = (need: string | string[]): string[] =>
  typeof need === 'string' ? [need] : need;

/**
 * What is wrong with how steps depend on each other: needs that name no step, and steps that can never be done because they
 * wait for each other.
 *
 * @returns each cycle once, as the steps on it in order, and each other step that waits for one
 */
export function wayFaults(steps: readonly WayStep[]): WayFault[] {
  const byId = new Map(steps.map((s) => [s.id, s]));
  const faults: WayFault[] = [];
  for (const s of steps) {
    for (const need of s.needs) {
      for (const id of alternatives(need)) {
        if (!byId.has(id)) faults.push({ kind: 'unknown-step', step: s.id, needs: id });
      }
    }
  }
  const doable = doableSteps(steps);
  const stuck = new Set(steps.filter((s) => !doable.has(s.id)).map((s) => s.id));
  const onCycle = new Set<string>();
  // whoever follows, from a stuck step, a need that is stuck too comes round at last, or ends at an unknown step
  for (const start of stuck) {
    const path: string[] = [];
    let at: string | undefined = start;
    while (at !== undefined && !path.includes(at)) {
      path.push(at);
      at = byId
        .get(at)!
        .needs.filter((need) => !alternatives(need).some((id) => doable.has(id)))
        .flatMap(alternatives)
        .find((id) => stuck.has(id));
    }
    if (at === undefined) continue;
    const cycle = path.slice(path.indexOf(at));
    if (cycle.some((id) => onCycle.has(id))) continue;
    cycle.forEach((id) => onCycle.add(id));
    faults.push({ kind: 'cycle', steps: cycle });
  }
  for (const id of stuck) if (!onCycle.has(id)) faults.push({ kind: 'unreachable', step: id });
  return faults;
}

/** Steps that can be done at all, one after the other. */
function doableSteps(steps: readonly WayStep[]): Set<string> {
  const done = new Set<string>();
  for (let grew = true; grew;) {
    grew = false;
    for (const s of steps) {
      if (done.has(s.id)) continue;
      if (s.needs.every((need) => alternatives(need).some((id) => done.has(id)))) {
        done.add(s.id);
        grew = true;
      }
    }
  }
  return done;
}

/** Fewer steps first, then fewer screws, then less time. */
type Cost = [number, number, number];
const less = (a: Cost, b: Cost): boolean => {
  for (let i = 0; i < 3; i++) if (a[i] !== b[i]) return a[i]! < b[i]!;
  return false;
};

/** Choices looked at before the best way so far is given; only logs with very many alternatives come near. */
const MAX_LOOKS = 20_000;

/**
 * The least set of steps that reaches a goal, then the least screws, then the least time: each step with all it needs, where of
 * several that would do one is chosen. Found by trying the alternatives, the way so far being a bound.
 *
 * @param steps the log's steps
 * @param goal what is to be reached; several steps may reach it, one is enough
 * @returns the way, or null where no step reaches the goal or none of those can be done
 */
export function leastSteps(steps: readonly WayStep[], goal: string): Way | null {
  const doable = doableSteps(steps);
  const usable = steps.filter((s) => doable.has(s.id));
  const byId = new Map(usable.map((s) => [s.id, s]));
  const ends = usable.filter((s) => s.reaches.includes(goal)).map((s) => s.id);
  if (!ends.length) return null;
  const near = leastCounts(usable);
  const nearest = (a: string, b: string) => near.get(a)! - near.get(b)!;
  let best: { cost: Cost; chosen: Set<string> } | null = null;
  let looks = 0;
  const costOf = (chosen: ReadonlySet<string>): Cost => {
    const screws = new Set<string>();
    let seconds = 0;
    for (const id of chosen) {
      const s = byId.get(id)!;
      for (const x of s.screws) screws.add(x);
      seconds += timeOf(s) ?? 0;
    }
    return [chosen.size, screws.size, seconds];
  };
  const needsOf = (id: string): string[][] =>
    byId.get(id)!.needs.map((need) => alternatives(need).filter((x) => byId.has(x)));
  // needs still open, each a choice; what only one step can meet is taken at once
  const extend = (chosen: ReadonlySet<string>, open: readonly string[][]): void => {
    if (++looks > MAX_LOOKS && best) return;
    const mine = new Set(chosen);
    const choices: string[][] = [];
    const waiting = [...open];
    for (let need = waiting.pop(); need; need = waiting.pop()) {
      if (need.some((id) => mine.has(id))) continue;
      if (need.length > 1) choices.push(need);
      else {
        mine.add(need[0]!);
        waiting.push(...needsOf(need[0]!));
      }
    }
    if (best && !less(costOf(mine), best.cost)) return;
    const rest = choices.filter((need) => !need.some((id) => mine.has(id)));
    if (rest.length) {
      const [first, ...others] = rest.sort((x, y) => x.length - y.length);
      for (const id of [...first!].sort(nearest)) {
        extend(new Set([...mine, id]), [...others, ...needsOf(id)]);
      }
      return;
    }
    const done = new Set(inOrder(usable, mine));
    if (done.size === mine.size) {
      best = { cost: costOf(mine), chosen: mine };
      return;
    }
    // what is left waits for each other: one of them must get what it needs from outside
    const outside = new Set<string>();
    for (const id of mine) {
      if (done.has(id)) continue;
      for (const need of needsOf(id)) {
        if (need.some((x) => done.has(x))) continue;
        for (const x of need) if (!mine.has(x)) outside.add(x);
      }
    }
    for (const id of [...outside].sort(nearest)) extend(new Set([...mine, id]), needsOf(id));
  };
  extend(new Set(), [ends]);
  const found = best as { chosen: Set<string> } | null;
  return found && describeWay(usable, found.chosen, looks <= MAX_LOOKS);
}

/** For each step the least number of steps that any way to it takes: what waits longest counts, not all that waits. */
function leastCounts(steps: readonly WayStep[]): Map<string, number> {
  const least = new Map(steps.map((s) => [s.id, Infinity]));
  for (let changed = true; changed;) {
    changed = false;
    for (const s of steps) {
      const waits = s.needs.map((need) =>
        Math.min(...alternatives(need).map((id) => least.get(id) ?? Infinity)),
      );
      const count = 1 + Math.max(0, ...waits);
      if (count < least.get(s.id)!) {
        least.set(s.id, count);
        changed = true;
      }
    }
  }
  return least;
}

/** Chosen steps in an order in which they can be done, as near to the log's as that allows. */
function inOrder(steps: readonly WayStep[], chosen: ReadonlySet<string>): string[] {
  const left = steps.filter((s) => chosen.has(s.id));
  const done = new Set<string>();
  for (;;) {
    const at = left.findIndex((s) =>
      s.needs.every((need) => alternatives(need).some((id) => done.has(id))),
    );
    if (at < 0) return [...done];
    done.add(left.splice(at, 1)[0]!.id);
  }
}

function describeWay(steps: readonly WayStep[], chosen: ReadonlySet<string>, proven: boolean): Way {
  const order = inOrder(steps, chosen);
  const byId = new Map(steps.map((s) => [s.id, s]));
  const all = order.map((id) => byId.get(id)!);
  const every = (of: (s: WayStep) => readonly string[] | undefined) => [
    ...new Set(all.flatMap((s) => of(s) ?? [])),
  ];
  const times = all.map(timeOf).filter((s) => s !== undefined);
  return {
    steps: order,
    screws: every((s) => s.screws),
    tools: every((s) => s.tools),
    consumables: every((s) => s.consumables),
    cautions: every((s) =>
      cautionsOf({ act: s.act, name: s.name ?? '', cautions: [...(s.cautions ?? [])] }),
    ),
    seconds: times.length ? times.reduce((a, b) => a + b, 0) : null,
    timed: times.length,
    proven,
  };
}
