import { factsOfStepKind, guessStepKind } from './stepKinds';
import {
  step as stepShape,
  type StepKind,
  type Layer,
  type OpenUpLog,
  type Screw,
  type Step,
} from './openUpLog';

const DEFAULT_LAYER = { id: 'base', name: 'base cover', seenFrom: 'below' as const };

/** An id that no other has: the stem with the next free number. */
export const fresh = (stem: string, taken: readonly { id: string }[]): string => {
  for (let n = taken.length + 1; ; n++) {
    if (!taken.some((x) => x.id === `${stem}${n}`)) return `${stem}${n}`;
  }
};

/** The group of a letter, made where there is none yet. */
export function withGroup(log: OpenUpLog, letter: string): OpenUpLog {
  if (log.groups.some((g) => g.letter === letter)) return log;
  return { ...log, groups: [...log.groups, { id: fresh('group', log.groups), letter }] };
}

/** What is known of a kind of screw. */
export function editGroup(
  log: OpenUpLog,
  id: string,
  change: Partial<OpenUpLog['groups'][number]>,
): OpenUpLog {
  return { ...log, groups: log.groups.map((g) => (g.id === id ? { ...g, ...change } : g)) };
}

/** The first layer, made with the shell's outline where there is none yet. */
export function withLayer(
  log: OpenUpLog,
  outline: { widthMm: number; depthMm: number },
): OpenUpLog {
  return log.layers.length ? log : { ...log, layers: [{ ...DEFAULT_LAYER, ...outline }] };
}

/** One more layer, as large as the first; the list is open, since machines differ. */
export function addLayer(log: OpenUpLog, name: string): OpenUpLog {
  const { widthMm, depthMm } = log.layers[0] ?? {};
  const id = fresh('layer', log.layers);
  return {
    ...log,
    layers: [...log.layers, { id, name, widthMm, depthMm, seenFrom: 'below' as const }],
  };
}

export function editLayer(log: OpenUpLog, id: string, change: Partial<Layer>): OpenUpLog {
  return { ...log, layers: log.layers.map((l) => (l.id === id ? { ...l, ...change } : l)) };
}

/** Removes a layer on which no hole is logged; what was said to be on it is on none. */
export function removeLayer(log: OpenUpLog, id: string): OpenUpLog {
  if (log.layers.length < 2 || log.screws.some((s) => s.layer === id)) return log;
  const off = <T extends { layer?: string | undefined }>(list: readonly T[]): T[] =>
    list.map((x) => (x.layer === id ? { ...x, layer: undefined } : x));
  return {
    ...log,
    layers: log.layers.filter((l) => l.id !== id),
    connectors: off(log.connectors),
    parts: off(log.parts),
    strips: off(log.strips),
    steps: off(log.steps),
  };
}

/** A hole where a screw was found, of a group, taken out in a step; without a place where it was only counted. */
export function addScrew(
  log: OpenUpLog,
  layer: string,
  letter: string,
  at: { xMm: number; yMm: number } | null,
  stepId: string | undefined,
): OpenUpLog {
  const next = withGroup(log, letter);
  const id = fresh('s', next.screws);
  const group = next.groups.find((g) => g.letter === letter)!.id;
  const screw: Screw = {
    id,
    layer,
    group,
    ...(at ? { xMm: Math.round(at.xMm), yMm: Math.round(at.yMm) } : {}),
    onArrival: 'there',
    out: false,
  };
  return {
    ...next,
    screws: [...next.screws, screw],
    steps: next.steps.map((s) => (s.id === stepId ? { ...s, screws: [...s.screws, id] } : s)),
  };
}

export function removeScrew(log: OpenUpLog, id: string): OpenUpLog {
  return {
    ...log,
    screws: log.screws
      .filter((s) => s.id !== id)
      .map((s) => (s.back === id ? { ...s, back: undefined } : s)),
    steps: log.steps.map((s) => ({ ...s, screws: s.screws.filter((x) => x !== id) })),
  };
}

export function editScrew(log: OpenUpLog, id: string, change: Partial<Screw>): OpenUpLog {
  return { ...log, screws: log.screws.map((s) => (s.id === id ? { ...s, ...change } : s)) };
}

/** What one key does to a screw: in its hole → taken out → put back → in its hole as if never touched. */
export function turnScrew(log: OpenUpLog, id: string): OpenUpLog {
  const s = log.screws.find((x) => x.id === id);
  if (!s || s.onArrival === 'missing') return log;
  if (!s.out) {
    // whoever takes it out has found it
    const found = s.onArrival === 'not-looked' ? { onArrival: 'there' as const } : {};
    return editScrew(log, id, { out: true, back: undefined, ...found });
  }
  if (s.back === undefined) return editScrew(log, id, { back: 'own' });
  return editScrew(log, id, { out: false, back: undefined });
}

/**
 * A step at the end, or after another one where it was remembered late; it needs the one before it, and reaches what its name
 * says.
 *
 * @param after the step it follows; null puts it first
 */
export function addStep(
  log: OpenUpLog,
  name: string,
  after?: string | null,
  about: { act?: StepKind; state?: Step['state'] } = {},
): OpenUpLog {
  const at =
    after === undefined ? log.steps.length : log.steps.findIndex((s) => s.id === after) + 1;
  const before = log.steps[at - 1];
  const id = fresh('step', log.steps);
  const act = about.act ?? guessStepKind(name);
  const facts = factsOfStepKind(act);
  const step: Step = stepShape.parse({
    id,
    name,
    act,
    needs: before ? [before.id] : [],
    reaches: facts.reaches,
    tools: facts.tools,
    consumables: facts.consumables,
    ...(before?.layer ? { layer: before.layer } : {}),
    ...(before?.posture ? { posture: before.posture } : {}),
    state: about.state ?? 'done',
  });
  const steps = [...log.steps.slice(0, at), step, ...log.steps.slice(at)].map((s) =>
    // what followed the one before now follows the new one
    s.id !== id && before && log.steps.indexOf(s) === at
      ? { ...s, needs: s.needs.map((n) => (n === before.id ? id : n)) }
      : s,
  );
  return { ...log, steps };
}

export function editStep(log: OpenUpLog, id: string, change: Partial<Step>): OpenUpLog {
  return { ...log, steps: log.steps.map((s) => (s.id === id ? { ...s, ...change } : s)) };
}

/** Removes a step; what needed it needs what it needed. */
export function removeStep(log: OpenUpLog, id: string): OpenUpLog {
  const gone = log.steps.find((s) => s.id === id);
  if (!gone) return log;
  const without = (need: string | string[]): (string | string[])[] => {
    if (need === id) return gone.needs;
    if (typeof need === 'string') return [need];
    const rest = need.filter((x) => x !== id);
    return rest.length ? [rest] : gone.needs;
  };
  return {
    ...log,
    steps: log.steps
      .filter((s) => s.id !== id)
      .map((s) => ({ ...s, needs: [...new Set(s.needs.flatMap(without))].slice(0, 20) })),
  };
}
