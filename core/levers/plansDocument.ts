import { z } from 'zod';

/** Plans of levers for one machine: what is to be done, what was promised of it, how far it is, and what came of it. */

const words = (most: number) =>
  z.string('must be text').max(most, `must be at most ${most} characters`);
const id = words(80).min(1, 'needs a name');
const moment = z.iso.datetime({ offset: true, error: 'needs a date and a time' });
const number = z.number('must be a number');
const gain = z.looseObject({ p05: number, p50: number, p95: number });

/** The most plans of a machine, levers and steps of a plan. */
export const MAX_PLANS = 50;
const MAX_LEVERS = 40;
const MAX_STEPS = 200;
/** Some eleven years without a pause. */
export const MAX_HOURS = 100_000;

export const planSchema = z.looseObject({
  id,
  name: words(120).optional(),
  madeAt: moment,
  /** The record as it stood, and the setting that applied. */
  recordRevision: z.number().int().min(0),
  setting: words(80).nullable().optional(),
  /** Version of the calibration that it was computed on; null: the record alone. */
  calibration: z.number().int().min(1).nullable().optional(),
  /** At which the promise is told: dB(A), `off` or `full`. */
  cap: z.union([z.number().min(0).max(120), z.enum(['off', 'full'])], {
    error: 'must be a level, off or full',
  }),
  levers: z
    .array(
      z.looseObject({
        id,
        name: words(200),
        change: z
          .array(z.looseObject({ path: words(200).min(1), to: z.unknown() }))
          .max(100, 'at most 100'),
        moves: z.enum(['cooling', 'setting']),
      }),
    )
    .min(1, 'needs a lever')
    .max(MAX_LEVERS, `at most ${MAX_LEVERS}`),
  promised: z.looseObject({
    wattsGained: gain,
    dbSaved: gain,
    kelvinSaved: gain,
    chanceNoticeable: number.min(0).max(1),
    tooSmallToFeel: z.boolean(),
  }),
  /** What is done at the bench, in order. */
  steps: z
    .array(
      z.looseObject({
        id: words(120).min(1),
        words: words(400),
        /** Another name of a step of the log, for its cautions and places. */
        step: words(120).optional(),
        cautions: z.array(words(60)).max(40).optional(),
      }),
    )
    .max(MAX_STEPS, `at most ${MAX_STEPS}`),
  /** When each step was done, by its id. */
  checked: z.record(words(120), moment).optional(),
  /** The runs that tell what came of it. */
  runBefore: words(80).nullable().optional(),
  runAfter: words(80).nullable().optional(),
  /** Hours of use since the fins were last clean, before this plan. */
  hoursSince: number
    .min(0, 'must be at least 0')
    .max(MAX_HOURS, `must be at most ${MAX_HOURS}`)
    .nullable()
    .optional(),
  /** The changes were taken into the record. */
  takenAt: moment.nullable().optional(),
});

export const plansSchema = z
  .looseObject({
    format: z.literal('zugluft-plans', { error: 'is no list of plans' }),
    formatVersion: z.literal(1, { error: 'was written by a newer version' }),
    plans: z.array(planSchema).max(MAX_PLANS, `at most ${MAX_PLANS} plans`),
  })
  .superRefine(({ plans }, ctx) => {
    const ids = plans.map((p) => p.id);
    plans.forEach((p, i) => {
      if (ids.indexOf(p.id) !== i)
        ctx.addIssue({ code: 'custom', path: ['plans', i, 'id'], message: 'is taken already' });
    });
  });

export type LeverPlan = z.infer<typeof planSchema>;
export type LeverPlans = z.infer<typeof plansSchema>;

export const NO_PLANS: LeverPlans = { format: 'zugluft-plans', formatVersion: 1, plans: [] };

/** The format of plans as a JSON Schema document, for other programs that read them. */
export function plansJsonSchema(): string {
  return `${JSON.stringify(z.toJSONSchema(plansSchema, { io: 'input' }), null, 2)}\n`;
}
