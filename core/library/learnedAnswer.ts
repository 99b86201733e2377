import { z } from 'zod';
import { DEFAULTS, type DefaultKey } from '../record/defaults';

const band = z.object({ p05: z.number(), p50: z.number(), p95: z.number() });
const range = z.object({ value: z.number(), low: z.number(), high: z.number() });
const cap = z.union([z.number(), z.literal('off'), z.literal('full')]);

const foretelling = z.object({
  /** Machines inside their 5–95 % band. */
  inside: z.int(),
  /** Median of half the band over its middle. */
  halfBand: z.number(),
  /** Root mean square of ln(measured / median). */
  offShare: z.number(),
});

/** The name of a built-in default. */
export const defaultKey = z
  .string()
  .refine((key): key is DefaultKey => Object.hasOwn(DEFAULTS, key), 'is no default');

/** A factor in deviations of its built-in default; the range that is offered, null where it is not told. */
export const learnedFactor = z.object({
  key: defaultKey,
  machines: z.int(),
  mean: z.number(),
  meanDeviation: z.number(),
  between: z.number(),
  deviation: z.number(),
  offered: range.nullable(),
});

/** What the machines of a library teach about the next one. */
export const learnedAnswer = z.object({
  madeAt: z.iso.datetime(),
  /** Machines that taught, each foretold from all others: as built in, and by what they taught. */
  machines: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      kind: z.string(),
      cap,
      measuredW: z.number(),
      before: band,
      after: band,
    }),
  ),
  /** Machines with runs that teach nothing, and why. */
  lacking: z.array(z.object({ id: z.string(), name: z.string(), why: z.string() })),
  factors: z.array(learnedFactor),
  before: foretelling,
  after: foretelling,
  kinds: z.array(
    z.object({
      kind: z.string(),
      machines: z.int(),
      runs: z.int(),
      biasShare: z.number(),
      biasDeviation: z.number().nullable(),
      spreadShare: z.number().nullable(),
      inside: z.int(),
    }),
  ),
});
export type LearnedAnswer = z.infer<typeof learnedAnswer>;
export type Foretelling = z.infer<typeof foretelling>;

/** Fewer machines teach nothing about the next one (common practice, no source). */
export const LEAST_TEACHERS = 5;
