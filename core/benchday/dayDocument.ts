import { z } from 'zod';

/** A day on the bench: what is to be done with which machines, with whose hands, in which room, with what. */

const id = z
  .string('needs a name')
  .min(1, 'needs a name')
  .max(60, 'must be at most 60 characters')
  .regex(/^[^\s.]+$/, 'a name has no spaces or points');
const words = (most = 200) =>
  z.string('must be text').max(most, `must be at most ${most} characters`);
/** Longest act, min: a day. */
export const DAY_MIN = 24 * 60;
const minutes = z
  .number('must be a number')
  .int('must be whole minutes')
  .min(0, 'must be at least 0 min')
  .max(DAY_MIN, 'must be at most a day');
const moment = z.iso.datetime({ offset: true, error: 'needs a date and a time' });

/**
 * What a stretch of an act needs of the room: `alone`, nothing else may make a sound in it; `beside`, it makes one; `none`, it is
 * quiet and minds nothing.
 */
export const ROOM_NEEDS = ['alone', 'beside', 'none'] as const;
export const ACT_KINDS = ['opening', 'run', 'other'] as const;

export const phaseSchema = z.looseObject({
  name: words(60),
  minutes: minutes.min(1, 'must last at least a minute'),
  /** Somebody works at it all the time. */
  hands: z.boolean(),
  room: z.enum(ROOM_NEEDS, { error: `must be one of ${ROOM_NEEDS.join(', ')}` }),
  instruments: z.array(id).max(10, 'at most 10').optional(),
});

export const actSchema = z.looseObject({
  id,
  kind: z.enum(ACT_KINDS, { error: `must be one of ${ACT_KINDS.join(', ')}` }),
  /** What is worked on: nothing else happens to it meanwhile. */
  machine: id,
  machineName: words(200).optional(),
  /** The run that is made, where it is one. */
  run: words(60).optional(),
  name: words(200),
  phases: z.array(phaseSchema).min(1, 'needs a phase').max(10, 'at most 10'),
  /** Acts that have to be over before. */
  after: z.array(id).max(20, 'at most 20').optional(),
  /** From the beginning of the day; null: not in the table yet. */
  startMin: minutes.nullable().optional(),
  startedAt: moment.nullable().optional(),
  endedAt: moment.nullable().optional(),
});

export const MAX_ACTS = 100;

export const daySchema = z
  .looseObject({
    format: z.literal('zugluft-day', { error: 'is no bench day' }),
    formatVersion: z.literal(1, { error: 'was written by a newer version' }),
    beginsAt: moment.nullable().optional(),
    /** People at the bench. */
    hands: z
      .number('must be a number')
      .int()
      .min(1, 'must be at least 1')
      .max(8, 'must be at most 8'),
    /** Of each instrument, how many there are; of those not named, one. */
    instruments: z
      .array(
        z.looseObject({
          id,
          count: z.number().int().min(1, 'must be at least 1').max(20, 'at most 20'),
        }),
      )
      .max(20, 'at most 20')
      .optional(),
    acts: z.array(actSchema).max(MAX_ACTS, `at most ${MAX_ACTS}`),
  })
  .superRefine(({ acts }, ctx) => {
    const ids = acts.map((a) => a.id);
    acts.forEach((a, i) => {
      if (ids.indexOf(a.id) !== i)
        ctx.addIssue({ code: 'custom', path: ['acts', i, 'id'], message: 'is taken already' });
    });
  });

export type BenchDay = z.infer<typeof daySchema>;
export type Act = BenchDay['acts'][number];
export type Phase = Act['phases'][number];

export const emptyDay = (): BenchDay => ({
  format: 'zugluft-day',
  formatVersion: 1,
  hands: 1,
  acts: [],
});

/** How long an act takes, min. */
export const actMinutes = ({ phases }: Pick<Act, 'phases'>): number =>
  phases.reduce((a, p) => a + p.minutes, 0);
