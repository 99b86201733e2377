import { z } from 'zod';
import { READING_KINDS } from './steadyRun';

/** What a fit taught of a machine, as it is kept and read. */

const band = z.object({ p05: z.number(), p50: z.number(), p95: z.number() });
const kind = z.enum(READING_KINDS);
const cap = z.union([z.number(), z.literal('off'), z.literal('full')]);

export const calibrationAnswer = z.object({
  multipliers: z.array(
    z.object({
      name: z.string(),
      /** Place of its median in its prior, in prior deviations, with the 5–95 % range. */
      z: z.number(),
      zLow: z.number(),
      zHigh: z.number(),
      /** What is left of the prior's deviation; told by the runs where at most half. */
      deviation: z.number(),
      determined: z.boolean(),
      value: z.number(),
      prior: z.number(),
      low: z.number(),
      high: z.number(),
    }),
  ),
  directions: z.array(
    z.object({
      parts: z.array(z.object({ name: z.string(), weight: z.number() })),
      deviation: z.number(),
    }),
  ),
  residuals: z.array(
    z.object({
      run: z.string(),
      kind,
      part: z.string(),
      value: z.number(),
      plusMinus: z.number(),
      atMost: z.boolean(),
      predicted: z.number(),
      inDeviations: z.number(),
    }),
  ),
  contradictions: z.array(
    z.object({
      run: z.string(),
      kind: kind.nullable(),
      part: z.string().nullable(),
      chance: z.number(),
    }),
  ),
  suspicions: z.array(
    z.object({
      kind: z.string(),
      part: z.string(),
      run: z.string().nullable(),
      text: z.string(),
    }),
  ),
  misfit: z.number(),
  unexplained: z.boolean(),
  converged: z.boolean(),
  effectiveDraws: z.number(),
  /** Readings of runs that the fit did not see, against what it foretells of them. */
  heldOut: z.array(
    z.object({
      run: z.string(),
      kind,
      part: z.string(),
      value: z.number(),
      atMost: z.boolean(),
      predicted: z.object({ value: z.number(), low: z.number(), high: z.number() }),
      inside: z.boolean(),
    }),
  ),
  /** Watts of both dies together by cap, before and after the fit. */
  caps: z.array(z.object({ cap, before: band, after: band })),
});
export type CalibrationAnswer = z.infer<typeof calibrationAnswer>;

/** What became of a run when a fit was asked for. */
export const usedRun = z.object({
  id: z.string(),
  name: z.string(),
  revision: z.number().int(),
  use: z.enum(['fit', 'hold-out', 'leave-out']),
  /** Steady states that were found in it. */
  states: z.number().int(),
  /** Why it could not be used; null where it was. */
  lacks: z.string().nullable(),
});

/** One version of a machine's calibration. */
export const keptCalibration = z.object({
  id: z.uuid(),
  machineId: z.uuid(),
  /** From 1 on. */
  version: z.number().int(),
  recordRevision: z.number().int(),
  inUse: z.boolean(),
  createdAt: z.iso.datetime(),
  runs: z.array(usedRun),
  answer: calibrationAnswer,
});
export type KeptCalibration = z.infer<typeof keptCalibration>;

/** The figures of a version, as every computation takes them. */
export const calibrationFigures = z.object({
  version: z.number().int(),
  recordRevision: z.number().int(),
  createdAt: z.iso.datetime(),
  /** What it stands on, see `caseKeyOf`. */
  caseKey: z.string(),
  /** How many runs it saw. */
  runs: z.number().int(),
  paths: z.array(z.string()),
  values: z.array(z.number()),
  rows: z.array(z.number()),
  count: z.number().int(),
});
export type CalibrationFigures = z.infer<typeof calibrationFigures>;
