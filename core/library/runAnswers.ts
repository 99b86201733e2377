import { z } from 'zod';
import {
  CHOSEN_BY,
  isChannel,
  logLayoutSchema,
  predictionSchema,
  RUN_USES,
  runSchema,
} from '../runs/runDocument';

/** Logs that a run holds at most, and bytes of one. */
export const MAX_RUNS = 200;
export const MAX_LOG_MB = 2000;

/** A run as it is kept. */
export const keptRun = z.object({
  id: z.uuid(),
  machineId: z.uuid(),
  revision: z.number().int(),
  run: runSchema,
  /** What was foretold before it; written by the program alone. */
  prediction: predictionSchema.nullable(),
  putAsideAt: z.iso.datetime().nullable(),
  createdAt: z.iso.datetime(),
});
export type KeptRun = z.infer<typeof keptRun>;

/** What was understood of a log that came in. */
export const takenLog = z.object({
  sha256: z.string(),
  bytes: z.number(),
  file: z.string(),
  kind: z.enum(['csv', 'wav']),
  rows: z.number(),
  durationS: z.number(),
  stepS: z.number(),
  channels: z.array(
    z.object({ column: z.string(), is: z.string().refine(isChannel), unit: z.string() }),
  ),
  problems: z.array(z.object({ row: z.number(), column: z.string(), message: z.string() })),
  /** First row of figures, by column. */
  sample: z.array(z.string()),
  /** What a person said of such a log, now or before; null where nobody has looked at one yet. */
  layout: logLayoutSchema.nullable().default(null),
});
export type TakenLog = z.infer<typeof takenLog>;

/** What loggers wrote into the folder that is watched. */
export const inbox = z.object({
  folder: z.string(),
  files: z.array(z.object({ name: z.string(), bytes: z.number(), changedAt: z.iso.datetime() })),
  /** Files beyond those told. */
  more: z.number(),
});
export type Inbox = z.infer<typeof inbox>;

/** Least and greatest of a channel in each of some equal stretches of time; null where it is silent. */
export const series = z.object({
  fromS: z.number(),
  toS: z.number(),
  lastS: z.number(),
  channels: z.record(
    z.string(),
    z.object({ least: z.array(z.number().nullable()), most: z.array(z.number().nullable()) }),
  ),
});
export type Series = z.infer<typeof series>;

const steadyMean = z.object({
  mean: z.number(),
  se: z.number(),
  plusMinus: z.number(),
  upperBound: z.boolean().optional(),
});

/** One steady state of a run: means by channel. */
export const runSteady = z.object({
  fromS: z.number(),
  toS: z.number(),
  chosenBy: z.enum(CHOSEN_BY),
  kind: z.string(),
  means: z.record(z.string(), steadyMean),
});
export type RunSteady = z.infer<typeof runSteady>;

/** What each run of a machine sustained. */
export const steadyOfRuns = z.object({
  items: z.array(
    z.object({
      id: z.uuid(),
      name: z.string(),
      on: z.string(),
      setting: z.string().nullable(),
      /** Score and frame rate of its load; null where neither is known. */
      done: z
        .object({
          load: z.string(),
          score: z.number().nullable(),
          framesPerS: z.number().nullable(),
        })
        .nullable(),
      use: z.enum(RUN_USES),
      states: z.array(runSteady),
      /** Why there is none; null where there is. */
      lacks: z.string().nullable(),
    }),
  ),
});
export type SteadyOfRuns = z.infer<typeof steadyOfRuns>;

/** What is usual for the watts of each run that tells a score or a frame rate. */
export const usualOfRuns = z.object({
  items: z.array(
    z.object({
      run: z.uuid(),
      unit: z.enum(['points', 'frames/s']),
      usual: z.discriminatedUnion('refused', [
        z.object({ refused: z.literal(true), machines: z.int(), needs: z.int() }),
        z.object({
          refused: z.literal(false),
          machines: z.int(),
          p05: z.number(),
          p50: z.number(),
          p95: z.number(),
        }),
      ]),
    }),
  ),
});
export type UsualOfRuns = z.infer<typeof usualOfRuns>;

/** A sweep of fan speeds as the runs of a machine gave it. */
export const fanSweepAnswer = z.object({
  points: z.array(
    z.object({
      rpm: z.record(z.string(), z.number()),
      dbA: z.number(),
      plusMinus: z.number(),
      upperBound: z.boolean(),
      heardS: z.number(),
      runs: z.array(z.string()),
    }),
  ),
  law: z.object({ dbPerDecade: z.number(), scatterDb: z.number() }).nullable(),
  lacks: z.string().nullable(),
});
export type FanSweepAnswer = z.infer<typeof fanSweepAnswer>;

/** What would bring a run that lies outside its band back into it. */
export const whyOutsideAnswer = z.object({
  moved: z.array(
    z.object({ name: z.string(), z: z.number(), value: z.number(), prior: z.number() }),
  ),
  suspicions: z.array(z.string()),
  apart: z.array(z.object({ kind: z.string(), part: z.string(), inDeviations: z.number() })),
});
export type WhyOutsideAnswer = z.infer<typeof whyOutsideAnswer>;

/** A run of the library against what its record foretells. */
export const runResidual = z.object({
  id: z.uuid(),
  machineId: z.uuid(),
  /** Maker, model and variant. */
  machine: z.string(),
  name: z.string(),
  on: z.string(),
  use: z.enum(RUN_USES),
  /** Null where nothing is steady, or nothing can be foretold. */
  against: z
    .object({
      cap: z.union([z.number(), z.enum(['off', 'full'])]),
      measuredW: z.number(),
      p05: z.number(),
      p50: z.number(),
      p95: z.number(),
      inBand: z.boolean(),
      /** The setting held the watts: the cooling carries at least as much. */
      held: z.boolean(),
    })
    .nullable(),
  /** Why there is none; null where there is. */
  lacks: z.string().nullable(),
});
export type RunResidual = z.infer<typeof runResidual>;

export const residualPage = z.object({
  items: z.array(runResidual),
  total: z.int(),
  page: z.int(),
  pageSize: z.int(),
});
export type ResidualPage = z.infer<typeof residualPage>;
