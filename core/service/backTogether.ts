import { stepKindOf, factsOfStepKind } from './stepKinds';
import { DEFAULT_RULES, type HouseRules } from './houseRules';
import { isPlaced, type OpenUpLog, type Screw, type Step } from './openUpLog';
import { tighteningOrder, type TighteningOrder } from './tighteningOrder';

export interface BackStep {
  /** The step of the log that is undone; null for what comes after the last one. */
  undoes: string | null;
  /** Name of the check, where it undoes nothing. */
  check: string | null;
  name: string;
  /** Screws by group, few and odd ones first. */
  screws: { group: string | null; holes: string[] }[];
  tightening: TighteningOrder | null;
  connectors: { id: string; name: string; closeLatch: boolean; lead: string | null }[];
  strips: { id: string; name: string }[];
  /** Screws that now belong into another hole than they came from, and what was changed. */
  changed: string[];
}

/** What follows once everything is in its place. Source: common practice, no source. */
export const AFTERWARDS = [
  {
    id: 'first-start',
    name: 'Start it for the first time: after the battery was off this may take minutes.',
    settings: false,
  },
  { id: 'clock', name: 'Check the clock.', settings: true },
  {
    id: 'firmware',
    name: 'Check the firmware’s settings: preset, fan mode, limits.',
    settings: true,
  },
] as const;

/** What a step is called on the way back. */
function backName(step: Step): string {
  const { name, back } = factsOfStepKind(stepKindOf(step));
  return step.name === name && back ? back : `Undo “${step.name}”`;
}

/**
 * The way back: the steps that were done, the last one first, each with the screws that it took out by group, their order of
 * tightening, and the connectors, latches, leads and strips to put on again. Screws that were lost, and steps that were skipped,
 * are left out. Screws that went into other holes stand with the hole they are for.
 *
 * @param log the log of an opening
 * @param rules the house's rules
 */
export function backTogether(log: OpenUpLog, rules: HouseRules = DEFAULT_RULES): BackStep[] {
  const screws = new Map(log.screws.map((s) => [s.id, s]));
  const connectors = new Map(log.connectors.map((c) => [c.id, c]));
  const strips = new Map(log.strips.map((s) => [s.id, s]));
  const groups = new Set(log.groups.map((g) => g.id));
  // where each screw goes: its own hole, or the one it was put into elsewhere
  const holeFor = (s: Screw): string | null => {
    if (s.onArrival === 'missing' || s.back === 'lost') return null;
    return s.back === undefined || s.back === 'own' ? s.id : s.back;
  };
  const fed = new Map<string, Screw>();
  // where one was put, that holds; the rest go home as far as their holes are free
  for (const placed of [true, false]) {
    for (const s of log.screws) {
      if (!s.out || (s.back !== undefined) !== placed) continue;
      const hole = holeFor(s);
      if (hole !== null && !fed.has(hole)) fed.set(hole, s);
    }
  }
  const present = <T>(x: T | undefined): x is T => x !== undefined;
  const back = log.steps
    .filter((s) => s.state === 'done' || s.state === 'went-wrong')
    .reverse()
    .map((step): BackStep => {
      const holes = step.screws
        .map((id) => screws.get(id))
        .filter(present)
        .filter((s) => fed.has(s.id));
      const byGroup = new Map<string | null, string[]>();
      for (const hole of holes) {
        // what goes into the hole counts, which may come from another one
        const own = fed.get(hole.id)!.group;
        const group = own !== undefined && groups.has(own) ? own : null;
        byGroup.set(group, [...(byGroup.get(group) ?? []), hole.id]);
      }
      const placed = holes.filter(isPlaced);
      return {
        undoes: step.id,
        check: null,
        name: backName(step),
        screws: [...byGroup]
          .map(([group, ids]) => ({ group, holes: ids }))
          .sort((a, b) => a.holes.length - b.holes.length),
        tightening: placed.length > 1 ? tighteningOrder(placed, rules.tightening) : null,
        connectors: step.connectors
          .map((id) => connectors.get(id))
          .filter(present)
          .map((c) => ({
            id: c.id,
            name: c.name,
            closeLatch: c.release === 'flip-latch' || c.release === 'hold-down-bar',
            lead: c.lead ?? null,
          })),
        strips: step.strips
          .map((id) => strips.get(id))
          .filter(present)
          .filter((s) => s.off)
          .map(({ id, name }) => ({ id, name })),
        changed: holes.filter((h) => fed.get(h.id)!.id !== h.id).map((h) => h.id),
      };
    })
    // nothing is put back by cleaning
    .filter(
      (b) =>
        b.screws.length ||
        b.connectors.length ||
        b.strips.length ||
        factsOfStepKind(stepKindOf(log.steps.find((s) => s.id === b.undoes)!)).back !== null,
    );
  return [
    ...back,
    ...AFTERWARDS.filter((a) => !a.settings || rules.settings === 'check').map(({ id, name }) => ({
      undoes: null,
      check: id,
      name,
      screws: [],
      tightening: null,
      connectors: [],
      strips: [],
      changed: [],
    })),
  ];
}
