import { stepKindOf, factsOfStepKind } from './stepKinds';
import { DEFAULT_RULES, type HouseRules } from './houseRules';
import { isPlaced, type Connector, type OpenUpLog, type Screw, type Step } from './openUpLog';
import { tighteningOrder, type TighteningOrder } from './tighteningOrder';

export interface BackStep {
  /** The step of the log that is undone; null for what comes after the last one, and for what belongs to no step. */
  undoes: string | null;
  /** Name of the check, where it undoes nothing. */
  check: string | null;
  /** Layer of what is out and belongs to no step; null for every other step. */
  loose: string | null;
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
 * tightening, and the connectors, latches, leads and strips to put on again. Whatever is out comes back, also where its step was
 * skipped, is still planned, or where it belongs to no step. The battery goes in last before the cover, whatever the order of the
 * log, unless something covers it. Screws that were lost are left out; those that went into other holes stand with the hole they are
 * for.
 *
 * @param log the log of an opening
 * @param rules the house's rules
 * Source: battery last before the cover, common practice, no source.
 */
export function backTogether(log: OpenUpLog, rules: HouseRules = DEFAULT_RULES): BackStep[] {
  const fed = screwsByHole(log);
  const groups = new Set(log.groups.map((g) => g.id));
  const byId = new Map(log.screws.map((s) => [s.id, s]));
  const present = <T>(x: T | undefined): x is T => x !== undefined;
  const make = (
    about: Pick<BackStep, 'undoes' | 'loose' | 'name'>,
    of: Pick<Step, 'screws' | 'connectors' | 'strips'>,
    plugs: (c: Connector) => boolean,
  ): BackStep => {
    const holes = of.screws
      .map((id) => byId.get(id))
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
      ...about,
      check: null,
      screws: [...byGroup]
        .map(([group, ids]) => ({ group, holes: ids }))
        .sort((x, y) => x.holes.length - y.holes.length),
      tightening: placed.length > 1 ? tighteningOrder(placed, rules.tightening) : null,
      connectors: log.connectors
        .filter((c) => of.connectors.includes(c.id) && plugs(c))
        .sort((x, y) => of.connectors.indexOf(x.id) - of.connectors.indexOf(y.id))
        .map((c) => ({
          id: c.id,
          name: c.name,
          closeLatch: c.release === 'flip-latch' || c.release === 'hold-down-bar',
          lead: c.lead ?? null,
        })),
      strips: log.strips
        .filter((s) => of.strips.includes(s.id) && s.off)
        .map(({ id, name }) => ({ id, name })),
      changed: holes.filter((h) => fed.get(h.id)!.id !== h.id).map((h) => h.id),
    };
  };
  const isOver = (s: Step) => s.state === 'done' || s.state === 'went-wrong';
  const over = log.steps.filter(isOver);
  // what a step that was done took off belongs to it, whatever else mentions it
  const left = (ids: readonly string[], of: 'screws' | 'connectors' | 'strips') =>
    ids.filter((id) => !over.some((s) => s[of].includes(id)));
  const steps = batteryLast(log.steps).flatMap((step) => {
    const back = make(
      { undoes: step.id, loose: null, name: backName(step) },
      isOver(step)
        ? step
        : {
            screws: left(step.screws, 'screws'),
            connectors: left(step.connectors, 'connectors'),
            strips: left(step.strips, 'strips'),
          },
      // what a step that was done was about is looked at, also where nobody said that it was off
      (c) => isOver(step) || c.off,
    );
    const holds = back.screws.length + back.connectors.length + back.strips.length > 0;
    // nothing is put back by cleaning; and by what was never done only what is out all the same
    const undone = isOver(step) && factsOfStepKind(stepKindOf(step)).back !== null;
    return holds || undone ? [{ layer: step.layer, back }] : [];
  });
  for (const layer of looseLayers(log, fed)) {
    const back = make({ undoes: null, loose: layer.id, name: layer.name }, layer, (c) => c.off);
    // with the last of its layer: what lies under a cover is closed by then
    const last = steps.findLastIndex((s) => s.layer === layer.id);
    steps.splice(last + 1, 0, { layer: layer.id, back });
  }
  return [
    ...steps.map(({ back }) => back),
    ...AFTERWARDS.filter((x) => !x.settings || rules.settings === 'check').map(({ id, name }) => ({
      undoes: null,
      check: id,
      loose: null,
      name,
      screws: [],
      tightening: null,
      connectors: [],
      strips: [],
      changed: [],
    })),
  ];
}

/** The screw for each hole: where one was put, that holds; the rest go home as far as their holes are free. */
function screwsByHole(log: OpenUpLog): Map<string, Screw> {
  const holeFor = (s: Screw): string | null => {
    if (s.onArrival === 'missing' || s.back === 'lost') return null;
    return s.back === undefined || s.back === 'own' ? s.id : s.back;
  };
  const fed = new Map<string, Screw>();
  for (const placed of [true, false]) {
    for (const s of log.screws) {
      if (!s.out || (s.back !== undefined) !== placed) continue;
      const hole = holeFor(s);
      if (hole !== null && !fed.has(hole)) fed.set(hole, s);
    }
  }
  return fed;
}

const isBattery = (step: Step) => /^battery/.test(stepKindOf(step));

/**
 * Steps on the way back: the last one first, but the battery's as late as can be, which is before the covers and before what had to
 * come off to get at it.
 */
function batteryLast(steps: readonly Step[]): Step[] {
  const reversed = [...steps].reverse();
  const battery = reversed.filter(isBattery);
  if (!battery.length) return reversed;
  const byId = new Map(steps.map((s) => [s.id, s]));
  const covering = new Set<string>();
  const visit = (step: Step) => {
    for (const id of step.needs.flat()) {
      const need = byId.get(id);
      if (!need || covering.has(id) || isBattery(need)) continue;
      covering.add(id);
      visit(need);
    }
  };
  battery.forEach(visit);
  // what makes safe covers nothing
  const after = (s: Step) =>
    !isBattery(s) &&
    (stepKindOf(s) === 'cover' || (covering.has(s.id) && stepKindOf(s) !== 'make-safe'));
  return [
    ...reversed.filter((s) => !isBattery(s) && !after(s)),
    ...battery,
    ...reversed.filter(after),
  ];
}

/** What is out and belongs to no step, by layer; what has no layer last. */
function looseLayers(log: OpenUpLog, fed: ReadonlyMap<string, Screw>) {
  const owned = (of: 'screws' | 'connectors' | 'strips') =>
    new Set(log.steps.flatMap((s) => s[of]));
  const [screws, connectors, strips] = [owned('screws'), owned('connectors'), owned('strips')];
  const loose = {
    screws: log.screws.filter((s) => fed.has(s.id) && !screws.has(s.id)),
    connectors: log.connectors.filter((c) => c.off && !connectors.has(c.id)),
    strips: log.strips.filter((s) => s.off && !strips.has(s.id)),
  };
  const ids = [
    ...new Set([...loose.screws, ...loose.connectors, ...loose.strips].map((x) => x.layer ?? '')),
  ];
  return ids.map((id) => {
    const of = <T extends { id: string; layer?: string | undefined }>(list: readonly T[]) =>
      list.filter((x) => (x.layer ?? '') === id).map((x) => x.id);
    const layer = log.layers.find((l) => l.id === id)?.name;
    return {
      id,
      name: layer === undefined ? 'What belongs to no step' : `What belongs to no step, ${layer}`,
      screws: of(loose.screws),
      connectors: of(loose.connectors),
      strips: of(loose.strips),
    };
  });
}
