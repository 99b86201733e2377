import { plural } from '../record/plural';
import { z } from 'zod';
import type { GoalId } from './goals';
import { leastSteps, type Way } from './leastSteps';
import type { OpenUpLog, LoggedPart } from './openUpLog';

interface Measured {
  value: number | null;
  /** What the value was taken from, or what is missing for it. */
  from: string;
}

interface Criterion {
  id: string;
  name: string;
  unit: string;
  /** Full points at best, none at worst, straight between; built-in figures, which a lab may change. */
  best: number;
  worst: number;
  weight: number;
  measure: (facts: Facts) => Measured;
}

interface Facts {
  log: OpenUpLog;
  way: (goal: GoalId) => Way | null;
}

const none = (from: string): Measured => ({ value: null, from });

/** Steps, screws or minutes of the least way to a goal. */
const ofWay =
  (goal: GoalId, what: 'steps' | 'screws' | 'minutes') =>
  ({ way }: Facts): Measured => {
    const found = way(goal);
    if (!found) return none('no step of the log reaches it');
    if (what === 'minutes') {
      if (found.timed < found.steps.length) {
        return none(
          `${found.timed} of ${plural(found.steps.length, 'step')} ${found.timed === 1 ? 'is' : 'are'} timed`,
        );
      }
      return { value: (found.seconds ?? 0) / 60, from: plural(found.steps.length, 'step') };
    }
    return { value: found[what].length, from: plural(found.steps.length, 'step') };
  };

/** Share of the parts of some kinds for which something is known to hold. */
const shareOf =
  (
    takes: (p: LoggedPart) => boolean,
    holds: (p: LoggedPart) => boolean | undefined,
    what: string,
  ) =>
  ({ log }: Facts): Measured => {
    const mine = log.parts.filter(takes);
    const known = mine.map(holds).filter((x) => x !== undefined);
    if (!known.length) return none(`nothing is said of ${what}`);
    const yes = known.filter(Boolean).length;
    return { value: (100 * yes) / known.length, from: `${yes} of ${known.length} ${what}` };
  };

const isOneOf =
  (...kinds: LoggedPart['kind'][]) =>
  (p: LoggedPart) =>
    kinds.includes(p.kind);

/**
 * What makes a machine easy to service, each measured on the log and the parts ledger. Common practice, no source; figures and
 * weights are ours and a lab's to change.
 */
export const CRITERIA: readonly Criterion[] = [
  of('battery-steps', 'Steps to the battery plug', 'steps', 2, 6, 1, ofWay('battery-off', 'steps')),
  of('swap-minutes', 'Time to swap the battery', 'min', 5, 60, 2, ofWay('swap-battery', 'minutes')),
  of('clean-steps', 'Steps to clean the fans', 'steps', 3, 12, 2, ofWay('clean-fans', 'steps')),
  of('clean-screws', 'Screws to clean the fans', '', 6, 30, 1, ofWay('clean-fans', 'screws')),
  of(
    'renew-steps',
    'Steps to the interface material',
    'steps',
    4,
    15,
    2,
    ofWay('renew-interface', 'steps'),
  ),
  of('jack-steps', 'Steps to the power jack', 'steps', 4, 15, 1, ofWay('power-jack', 'steps')),
  of('screw-kinds', 'Kinds of screws', '', 1, 6, 1, ({ log }) => {
    const used = new Set(log.screws.map((s) => s.group).filter((g) => g !== undefined));
    return used.size
      ? { value: used.size, from: plural(log.screws.length, 'screw') }
      : none('no screw has a group');
  }),
  of('hidden-screws', 'Hidden screws', '', 0, 5, 1, ({ log }) =>
    log.screws.length
      ? {
          value: log.screws.filter((s) => s.hiddenUnder !== undefined).length,
          from: plural(log.screws.length, 'screw'),
        }
      : none('no screw is logged'),
  ),
  of(
    'own-boards',
    'Ports on boards of their own',
    '%',
    100,
    0,
    1,
    shareOf(isOneOf('port', 'power-jack'), (p) => p.ownBoard, 'ports'),
  ),
  of('labels', 'Labelled cables and holes', '%', 100, 0, 0.5, ({ log }) => {
    const known = [...log.connectors, ...log.parts]
      .map((x) => x.labelled)
      .filter((x) => x !== undefined);
    const yes = known.filter(Boolean).length;
    return known.length
      ? { value: (100 * yes) / known.length, from: `${yes} of ${known.length}` }
      : none('nothing is said of labels');
  }),
  of(
    'glued',
    'Parts that are glued or riveted',
    '%',
    0,
    40,
    1,
    shareOf(
      () => true,
      (p) => p.fixing && (p.fixing === 'glue' || p.fixing === 'rivet'),
      'parts',
    ),
  ),
  of(
    'alone',
    'Parts that wear, replaced alone',
    '%',
    100,
    0,
    2,
    shareOf(
      isOneOf('battery', 'fan', 'keyboard', 'power-jack', 'display', 'hinge'),
      (p) => p.alone ?? (p.onlyWith.length ? false : undefined),
      'parts that wear',
    ),
  ),
  of(
    'slots',
    'Memory, storage, wireless in slots',
    '%',
    100,
    0,
    2,
    shareOf(
      isOneOf('memory', 'storage', 'wireless-card'),
      (p) => p.fixing && p.fixing !== 'solder' && p.fixing !== 'glue',
      'cards',
    ),
  ),
];

function of(
  id: string,
  name: string,
  unit: string,
  best: number,
  worst: number,
  weight: number,
  measure: Criterion['measure'],
): Criterion {
  return { id, name, unit, best, worst, weight, measure };
}

const bound = z.number('must be a number').min(0, 'must be at least 0').max(1000, 'at most 1000');
const entry = z
  .object({
    best: bound,
    worst: bound,
    weight: z.number('must be a number').min(0, 'must be at least 0').max(10, 'at most 10'),
  })
  .refine((e) => e.best !== e.worst, {
    path: ['worst'],
    error: 'must differ from the best',
  });

export type RubricEntry = z.infer<typeof entry>;
/** A lab's own figures by criterion; those that are absent are built in. */
export const rubric = z.partialRecord(
  z.enum(CRITERIA.map((c) => c.id) as [string, ...string[]]),
  entry,
);
export type Rubric = z.infer<typeof rubric>;

export const rubricEntry = (own: Rubric, id: string): RubricEntry => {
  const { best, worst, weight } = CRITERIA.find((c) => c.id === id)!;
  return own[id] ?? { best, worst, weight };
};

export interface Judged extends Measured {
  id: string;
  name: string;
  unit: string;
  weight: number;
  /** 0 to 1; null where it cannot be judged yet. */
  share: number | null;
}

export interface ServiceScore {
  criteria: Judged[];
  /** Out of ten, over what could be judged; null where nothing could. */
  computed: number | null;
  /** What it would be with all that is not judged yet at its worst, and at its best. */
  low: number;
  high: number;
  /** Share of the weights that could be judged. */
  judged: number;
  /** The computed one with what the team agreed to. */
  agreed: number | null;
}

/**
 * The service score out of ten: each criterion gives the share (worst − value)/(worst − best) between 0 and 1, their weighted mean
 * times ten is the score. What is not known is left out of it and makes its range.
 *
 * @param log the log of an opening with its ledger
 * @param own the lab's rubric
 */
export function serviceScore(log: OpenUpLog, own: Rubric = {}): ServiceScore {
  const ways = new Map<GoalId, Way | null>();
  const facts: Facts = {
    log,
    way(goal) {
      if (!ways.has(goal)) ways.set(goal, leastSteps(log.steps, goal));
      return ways.get(goal)!;
    },
  };
  const criteria = CRITERIA.map((c): Judged => {
    const { best, worst, weight } = rubricEntry(own, c.id);
    const { value, from } = c.measure(facts);
    const share =
      value === null ? null : Math.min(1, Math.max(0, (worst - value) / (worst - best)));
    return { id: c.id, name: c.name, unit: c.unit, weight, value, from, share };
  });
  const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);
  const all = sum(criteria.map((c) => c.weight));
  const known = criteria.filter((c) => c.share !== null);
  const weighed = sum(known.map((c) => c.weight));
  const points = 10 * sum(known.map((c) => c.weight * c.share!));
  const computed = weighed > 0 ? points / weighed : null;
  const within = (x: number) => Math.min(10, Math.max(0, x));
  return {
    criteria,
    computed,
    low: all > 0 ? points / all : 0,
    high: all > 0 ? (points + 10 * (all - weighed)) / all : 10,
    judged: all > 0 ? weighed / all : 0,
    agreed:
      computed === null || !log.deviation ? computed : within(computed + log.deviation.points),
  };
}
