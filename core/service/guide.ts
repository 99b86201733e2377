import { stepKindOf } from './stepKinds';
import { CAUTIONS, cautionsOf } from './cautions';
import { GOALS } from './goals';
import { DEFAULT_RULES, rulesAt, type HouseRules } from './houseRules';
import { leastSteps } from './leastSteps';
import { backTogether } from './backTogether';
import type { OpenUpLog, ScrewGroup, Step } from './openUpLog';

export interface GuideStep {
  /** The step of the log. */
  id: string;
  name: string;
  posture: string | null;
  /** Screws by group in words, such as `4 × A, M2 × 5 mm, cross`. */
  screws: string[];
  connectors: string[];
  parts: string[];
  cautions: string[];
  rules: string[];
  note: string | null;
  minutes: number | null;
  /** Ids of the photos that belong to it. */
  photos: string[];
}

export interface Guide {
  title: string;
  /** What it leads to. */
  goal: string;
  steps: GuideStep[];
  /** The way back in words. */
  back: string[];
  tools: string[];
  consumables: string[];
  minutes: number | null;
  /** Steps with a time. */
  timed: number;
  /** Cautions of the whole, each once. */
  cautions: string[];
}

const POSTURE_WORDS: Record<string, string> = {
  'base-up': 'base up',
  'lid-up': 'lid up',
  'lid-at-right-angle': 'lid at a right angle',
  standing: 'standing on its edge',
};
export const RELEASE_WORDS: Record<string, string> = {
  'slide-out': 'slides out',
  'pull-tab': 'by its tab',
  'by-its-ears': 'by its ears, never by the wires',
  'flip-latch': 'flip the latch first',
  'press-on': 'pull straight up',
  'hold-down-bar': 'swing its bar up first',
  other: '',
};

/** A group of screws as a reader is told it, with its letter where that does not stand beside it already. */
export function groupWords(group: ScrewGroup | undefined, withLetter = true): string {
  if (!group) return 'not grouped';
  const size = [group.thread, group.lengthMm !== undefined && `${group.lengthMm} mm`]
    .filter(Boolean)
    .join(' × ');
  const head = group.headMm === undefined ? '' : `head ${group.headMm} mm`;
  return [withLetter && group.letter, size, head, group.drive].filter(Boolean).join(', ');
}

function countWords(log: OpenUpLog, ids: readonly string[]): string[] {
  const counts = new Map<string, number>();
  const missing = new Map<string, number>();
  for (const id of ids) {
    const screw = log.screws.find((s) => s.id === id);
    if (!screw) continue;
    const key = screw.group ?? '';
    const into = screw.onArrival === 'missing' ? missing : counts;
    into.set(key, (into.get(key) ?? 0) + 1);
  }
  const words = (key: string) => groupWords(log.groups.find((g) => g.id === key));
  return [
    ...[...counts].map(([key, n]) => `${n} × ${words(key)}`),
    ...[...missing].map(([key, n]) => `${n} × ${words(key)}, missing on this unit`),
  ];
}

/**
 * A log as a guide for readers: the least way to a goal, or all that was done, and the way back.
 *
 * @param log the log of an opening
 * @param about title, goal (null: the whole opening), and which photos belong to each step
 * @param rules the house's rules
 */
export function guideOf(
  log: OpenUpLog,
  about: {
    title: string;
    goal: string | null;
    photosOf: (stepId: string) => readonly string[];
  },
  rules: HouseRules = DEFAULT_RULES,
): Guide {
  const way = about.goal === null ? null : leastSteps(log.steps, about.goal);
  const byId = new Map(log.steps.map((s) => [s.id, s]));
  const steps =
    about.goal === null
      ? log.steps.filter((s) => s.state !== 'skipped')
      : (way?.steps ?? []).map((id) => byId.get(id)!);
  const timeOf = (s: Step) => s.seconds ?? s.expectedSeconds;
  const cautionIds = (s: Step) => [
    ...new Set([...cautionsOf(s), ...rulesAt(stepKindOf(s), rules).cautions]),
  ];
  const times = steps.map(timeOf).filter((t) => t !== undefined);
  const every = (of: (s: Step) => readonly string[]) => [...new Set(steps.flatMap(of))];
  const name = <T extends { id: string; name: string }>(list: readonly T[], id: string) =>
    list.find((x) => x.id === id);
  // the way back of these steps alone, as if each had been done on the reader's machine, where nothing is missing yet
  const taken = new Set(steps.flatMap((s) => s.screws));
  const undone = backTogether(
    {
      ...log,
      screws: log.screws.map((s) => ({
        ...s,
        onArrival: 'there',
        out: taken.has(s.id),
        back: undefined,
      })),
      strips: log.strips.map((s) => ({ ...s, off: true })),
      steps: steps.map((s) => ({ ...s, state: 'done' })),
    },
    rules,
  );
  return {
    title: about.title,
    goal:
      about.goal === null
        ? 'the whole opening'
        : (GOALS.find((g) => g.id === about.goal)?.name ?? about.goal),
    steps: steps.map((s) => ({
      id: s.id,
      name: s.name,
      posture: s.posture ? (POSTURE_WORDS[s.posture] ?? null) : null,
      screws: countWords(log, s.screws),
      connectors: s.connectors.flatMap((id) => {
        const c = name(log.connectors, id);
        if (!c) return [];
        const how = c.release ? RELEASE_WORDS[c.release] : '';
        return [[c.name, how, c.lead && `goes to ${c.lead}`].filter(Boolean).join(', ')];
      }),
      parts: s.parts.flatMap((id) => name(log.parts, id)?.name ?? []),
      cautions: cautionIds(s).map((id) => CAUTIONS[id]),
      rules: rulesAt(stepKindOf(s), rules).words,
      note: s.note?.trim() || null,
      minutes: timeOf(s) === undefined ? null : timeOf(s)! / 60,
      photos: [...about.photosOf(s.id)],
    })),
    back: undone.map((b) => {
      if (b.check) return b.name;
      const parts = [
        ...b.connectors.map(
          (c) =>
            `${c.name} on${c.closeLatch ? ', its latch closed' : ''}${c.lead ? `, to ${c.lead}` : ''}`,
        ),
        ...b.strips.map((s) => `${s.name} back`),
        ...b.screws.map(
          (s) => `${s.holes.length} × ${groupWords(log.groups.find((g) => g.id === s.group))}`,
        ),
      ];
      const how = b.tightening
        ? b.tightening.by === 'printed'
          ? '; tighten by the printed numbers, two rounds'
          : '; tighten crosswise, two rounds'
        : '';
      return `${b.name}${parts.length ? `: ${parts.join('; ')}` : ''}${how}`;
    }),
    tools: every((s) => [...s.tools, ...rulesAt(stepKindOf(s), rules).tools]),
    consumables: every((s) => s.consumables),
    minutes: times.length ? times.reduce((a, b) => a + b, 0) / 60 : null,
    timed: times.length,
    cautions: every(cautionIds).flatMap((id) => (id in CAUTIONS ? [CAUTIONS[id as never]] : [])),
  };
}

/** Words under every guide. */
export const DEFERENCE =
  'Written from one opened unit. Battery and waste rules of the place apply; mains parts are for qualified persons under the local electrical code.';
