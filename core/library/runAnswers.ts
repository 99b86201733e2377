import { z } from 'zod';
import { isChannel, predictionSchema, runSchema } from '../runs/runDocument';

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
