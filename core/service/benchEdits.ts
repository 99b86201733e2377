import type { BackStep } from './backTogether';
import { addScrew, editScrew, editStep, fresh } from './logEdits';
import { holeAt, type Place } from './holeAt';
import type { Connector, LoggedPart, OpenUpLog, Screw, Step } from './openUpLog';

/** What the keys of the bench do to a log. Times are given, since the core has no clock. */

const stepOf = (log: OpenUpLog, id: string) => log.steps.find((s) => s.id === id);

/** Screws of a step in the order in which they were logged. */
export function screwsOf(log: OpenUpLog, stepId: string) {
  const byId = new Map(log.screws.map((s) => [s.id, s]));
  return (stepOf(log, stepId)?.screws ?? []).flatMap((id) => byId.get(id) ?? []);
}

/** Where a screw is taken out of. */
function out(log: OpenUpLog, screw: Screw): OpenUpLog {
  // whoever takes it out has found it
  const found = screw.onArrival === 'not-looked' ? { onArrival: 'there' as const } : {};
  return editScrew(log, screw.id, { out: true, back: undefined, ...found });
}

/**
 * One screw of a group is out: where one pointed at a hole that still holds one of it, that; where one pointed beside all holes, one
 * more; where nobody pointed, the next one that the step expects, else one more that is only counted.
 *
 * @param at where it was, or null where nobody pointed
 */
export function takeOne(
  log: OpenUpLog,
  stepId: string,
  letter: string,
  layer: string,
  at: Place | null,
): OpenUpLog {
  const group = log.groups.find((g) => g.letter === letter)?.id;
  const waits = (s: Screw) =>
    group !== undefined && s.group === group && !s.out && s.onArrival !== 'missing';
  const pointed = at && holeAt(log, layer, at);
  if (pointed && waits(pointed)) return out(log, pointed);
  const expected = at ? undefined : screwsOf(log, stepId).find(waits);
  if (expected) return out(log, expected);
  const next = addScrew(log, layer, letter, at, stepId);
  return editScrew(next, next.screws.at(-1)!.id, { out: true });
}

/** The screw that was logged or taken out last in a step. */
export function lastTaken(log: OpenUpLog, stepId: string) {
  return screwsOf(log, stepId)
    .filter((s) => s.out || s.onArrival === 'missing')
    .at(-1);
}

/** A screw that somebody has seen: it was there, so that it cannot have been missing. */
const wasSeen = (s: Screw) => s.out || s.onArrival === 'there' || s.onArrival === 'stripped';

/**
 * A hole was empty when the machine arrived: the one that was pointed at, or, where the finger was beside all holes, one there;
 * where nobody pointed the next one that the step still expects, else one more of the group that is only counted. Pointed at once
 * more, one said to be missing is to be looked at again. A screw that was logged is never turned into a missing one.
 *
 * @param letter of the group that a hole without one belongs to
 * @param at where it was, or null where nobody pointed
 * @returns the log, and in words what was not done
 */
export function markMissing(
  log: OpenUpLog,
  stepId: string,
  letter: string,
  layer: string,
  at: Place | null,
): { log: OpenUpLog; refused: string | null } {
  const pointed = at && holeAt(log, layer, at);
  if (pointed) return missingAt(log, pointed);
  const expected = at
    ? undefined
    : screwsOf(log, stepId).find((s) => !s.out && s.onArrival === 'not-looked');
  if (expected)
    return { log: editScrew(log, expected.id, { onArrival: 'missing' }), refused: null };
  const next = addScrew(log, layer, letter, at, stepId);
  const added = next.screws.at(-1)!.id;
  return { log: editScrew(next, added, { onArrival: 'missing', out: false }), refused: null };
}

/** The same of one hole. */
export function missingAt(log: OpenUpLog, hole: Screw): { log: OpenUpLog; refused: string | null } {
  if (hole.onArrival === 'missing') {
    return { log: editScrew(log, hole.id, { onArrival: 'not-looked' }), refused: null };
  }
  if (wasSeen(hole)) {
    return { log, refused: 'A screw was logged in this hole, so that it was not missing.' };
  }
  const missing = { onArrival: 'missing', out: false, back: undefined } as const;
  return { log: editScrew(log, hole.id, missing), refused: null };
}

/** What covered the last screw of a step, or the one of the hole that was pointed at; or that it is captive. */
export function markHidden(
  log: OpenUpLog,
  stepId: string,
  under: NonNullable<Screw['hiddenUnder']> | 'captive',
  hole?: Screw,
): OpenUpLog {
  const screw = hole ?? lastTaken(log, stepId);
  if (!screw) return log;
  return editScrew(log, screw.id, under === 'captive' ? { captive: true } : { hiddenUnder: under });
}

/** The connector that came off last in a step. */
export function lastUnplugged(log: OpenUpLog, stepId: string): Connector | undefined {
  const ids = stepOf(log, stepId)?.connectors ?? [];
  return ids.flatMap((id) => log.connectors.find((c) => c.id === id && c.off) ?? []).at(-1);
}

/** What the connector that came off last is called, or where its lead goes. */
export function tellConnector(
  log: OpenUpLog,
  stepId: string,
  about: { name: string } | { lead: string },
): OpenUpLog {
  const last = lastUnplugged(log, stepId);
  if (!last) return log;
  return {
    ...log,
    connectors: log.connectors.map((c) => (c.id === last.id ? { ...c, ...about } : c)),
  };
}

/** A connector is off: the next one that the step expects, else one more. */
export function unplugOne(
  log: OpenUpLog,
  stepId: string,
  release: NonNullable<Connector['release']>,
  layer: string,
): OpenUpLog {
  const step = stepOf(log, stepId);
  if (!step) return log;
  const expected = log.connectors.find(
    (c) => step.connectors.includes(c.id) && !c.off && (c.release ?? release) === release,
  );
  if (expected) {
    return {
      ...log,
      connectors: log.connectors.map((c) =>
        c.id === expected.id ? { ...c, release, off: true, on: false } : c,
      ),
    };
  }
  const id = fresh('plug', log.connectors);
  const name = `connector ${log.connectors.length + 1}`;
  return editStep(
    {
      ...log,
      connectors: [...log.connectors, { id, name, layer, release, off: true, on: false }],
    },
    stepId,
    { connectors: [...step.connectors, id] },
  );
}

/** A part is out, and stands in the ledger. */
export function takePart(
  log: OpenUpLog,
  stepId: string,
  kind: NonNullable<LoggedPart['kind']>,
  layer: string,
): OpenUpLog {
  const step = stepOf(log, stepId);
  if (!step) return log;
  const id = fresh('part', log.parts);
  const same = log.parts.filter((p) => p.kind === kind).length;
  const name = `${kind.replace(/-/g, ' ')}${same ? ` ${same + 1}` : ''}`;
  return editStep(
    {
      ...log,
      parts: [...log.parts, { id, name, kind, layer, onlyWith: [], consumables: [], upgrades: [] }],
    },
    stepId,
    { parts: [...step.parts, id] },
  );
}

/** A strip is lifted; what it is for is asked for before. */
export function liftStrip(
  log: OpenUpLog,
  stepId: string,
  purpose: OpenUpLog['strips'][number]['purpose'],
  layer: string,
): OpenUpLog {
  const step = stepOf(log, stepId);
  if (!step) return log;
  const id = fresh('strip', log.strips);
  const name = `strip ${log.strips.length + 1}`;
  return editStep(
    // one of unknown purpose is written down and left
    {
      ...log,
      strips: [...log.strips, { id, name, layer, purpose, off: purpose !== 'unknown', on: false }],
    },
    stepId,
    { strips: [...step.strips, id] },
  );
}

const MAX_DURATION_S = 86_400;

/** The step's clock runs from now on; every other one stands. */
export function startClock(log: OpenUpLog, stepId: string, nowMs: number): OpenUpLog {
  const rest = pauseClocks(log, nowMs);
  return editStep(rest, stepId, { runningSince: new Date(nowMs).toISOString() });
}

/** Every clock stands, and what it ran is added to its step. */
export function pauseClocks(log: OpenUpLog, nowMs: number): OpenUpLog {
  if (!log.steps.some((s) => s.runningSince)) return log;
  return {
    ...log,
    steps: log.steps.map((s) =>
      s.runningSince ? { ...s, seconds: secondsOf(s, nowMs), runningSince: undefined } : s,
    ),
  };
}

/** Time a step has taken until now, s; a clock that was set back counts nothing. */
export function secondsOf(step: Pick<Step, 'seconds' | 'runningSince'>, nowMs: number): number {
  const before = step.seconds ?? 0;
  if (!step.runningSince) return before;
  const ran = Math.max(0, (nowMs - Date.parse(step.runningSince)) / 1000);
  return Math.min(MAX_DURATION_S, Math.round(before + ran));
}

/** A step is over. */
export function endStep(
  log: OpenUpLog,
  stepId: string,
  state: Exclude<Step['state'], 'planned'>,
  nowMs: number,
): OpenUpLog {
  return editStep(pauseClocks(log, nowMs), stepId, { state });
}

const MAX_STAMPS = 50;

/** The time, with a word. */
export function stamp(log: OpenUpLog, stepId: string, words: string, nowMs: number): OpenUpLog {
  const stamps = stepOf(log, stepId)?.stamps ?? [];
  if (stamps.length >= MAX_STAMPS) return log;
  return editStep(log, stepId, {
    stamps: [...stamps, { at: new Date(nowMs).toISOString(), words: words.slice(0, 200) }],
  });
}

/** One more line of the step's note. */
export function addNote(log: OpenUpLog, stepId: string, text: string): OpenUpLog {
  const line = text.trim();
  const before = stepOf(log, stepId)?.note;
  if (!line) return log;
  return editStep(log, stepId, { note: [before, line].filter(Boolean).join('\n').slice(0, 2000) });
}

/** Cautions were read. */
export function acknowledge(log: OpenUpLog, ids: readonly string[]): OpenUpLog {
  const all = [...new Set([...log.acknowledged, ...ids])].slice(0, 60);
  return all.length === log.acknowledged.length ? log : { ...log, acknowledged: all };
}

/** Holes of a step of the way back that still wait for their screw, in the order of tightening. */
export function waitingHoles(log: OpenUpLog, step: BackStep): string[] {
  const all = step.screws.flatMap((s) => s.holes);
  const filled = new Set(
    log.screws.flatMap((s) =>
      s.out && s.back !== undefined ? [s.back === 'own' ? s.id : s.back] : [],
    ),
  );
  const ordered = [
    ...(step.tightening?.order ?? []),
    ...all.filter((id) => !step.tightening?.order.includes(id)),
  ];
  return ordered.filter((id) => !filled.has(id));
}

/** The next screw of a group goes back into its hole. */
export function putBackOne(log: OpenUpLog, step: BackStep, letter: string): OpenUpLog {
  const group = log.groups.find((g) => g.letter === letter)?.id;
  const hole = waitingHoles(log, step).find(
    (id) => (log.screws.find((s) => s.id === id)?.group ?? null) === (group ?? null),
  );
  return hole ? editScrew(log, hole, { back: 'own' }) : log;
}

/** Words for so many of each group, “2 A and 1 B”. */
function groupCounts(log: OpenUpLog, holes: readonly string[]): string {
  const counts = new Map<string, number>();
  for (const id of holes) {
    const group = log.screws.find((s) => s.id === id)?.group;
    const letter = log.groups.find((g) => g.id === group)?.letter ?? '?';
    counts.set(letter, (counts.get(letter) ?? 0) + 1);
  }
  return [...counts].map(([letter, n]) => `${n} ${letter}`).join(' and ');
}

/**
 * What is wrong where a screw of a group is said to go back in a step: another group, or one too many.
 *
 * @returns words, null where such a screw is expected
 */
export function wrongBack(log: OpenUpLog, step: BackStep, letter: string): string | null {
  const group = log.groups.find((g) => g.letter === letter)?.id;
  const of = (holes: readonly string[]) =>
    holes.filter((id) => log.screws.find((s) => s.id === id)?.group === group);
  const waiting = waitingHoles(log, step);
  if (group !== undefined && of(waiting).length) return null;
  const rest = waiting.length
    ? ` ${groupCounts(log, waiting)} still ${waiting.length === 1 ? 'waits' : 'wait'} here.`
    : '';
  if (group === undefined) return `There is no group ${letter}.${rest}`;
  const mine = of(step.screws.flatMap((s) => s.holes)).length;
  return mine
    ? `One ${letter} too many: all ${mine} of this step are back.${rest}`
    : `No ${letter} goes in here.${rest}`;
}

/** A screw goes into another hole than it came from. */
export function putElsewhere(log: OpenUpLog, screwId: string, hole: string): OpenUpLog {
  const screw = log.screws.find((s) => s.id === screwId);
  if (!screw?.out || !log.screws.some((s) => s.id === hole)) return log;
  return editScrew(log, screwId, { back: hole === screwId ? 'own' : hole });
}

/** The next connector of a step of the way back is on, its latch closed. */
export function plugOne(log: OpenUpLog, step: BackStep): OpenUpLog {
  const next = step.connectors.find((c) => !log.connectors.find((x) => x.id === c.id)?.on);
  if (!next) return log;
  return {
    ...log,
    connectors: log.connectors.map((c) =>
      c.id === next.id ? { ...c, on: true, ...(next.closeLatch ? { latchClosed: true } : {}) } : c,
    ),
  };
}

/** What a step of the way back still lacks. */
export function openAt(log: OpenUpLog, step: BackStep) {
  return {
    holes: waitingHoles(log, step),
    connectors: step.connectors.filter((c) => !log.connectors.find((x) => x.id === c.id)?.on),
    strips: step.strips.filter((s) => !log.strips.find((x) => x.id === s.id)?.on),
  };
}

/** By what it is known that what belongs to no step of a layer was put back. */
export const looseCheck = (layer: string) => `loose-${layer}`;

/** A step of the way back is over, whatever it still lacks: the balance names that. Its strips lie in their places. */
export function endBack(log: OpenUpLog, step: BackStep): OpenUpLog {
  if (step.check) {
    return { ...log, checked: [...new Set([...log.checked, step.check])] };
  }
  const mine = new Set(step.strips.map((s) => s.id));
  const next = {
    ...log,
    strips: log.strips.map((s) => (mine.has(s.id) ? { ...s, on: true } : s)),
  };
  if (step.undoes === null) {
    return { ...next, checked: [...new Set([...log.checked, looseCheck(step.loose ?? '')])] };
  }
  return editStep(next, step.undoes, { back: true });
}
