import { z } from 'zod';
import { TIME_FORMATS } from '../logs/logTime';
import { PART_CHANNELS, PLAIN_CHANNELS, type Channel } from '../logs/channelNames';

/** What was done to a machine on the bench: the load, how it was set, where it was heard, which logs were taken. */

const id = z
  .string('needs a name')
  .min(1, 'needs a name')
  .max(60, 'must be at most 60 characters')
  .regex(/^[^\s.]+$/, 'a name has no spaces or points');
const words = (most = 200) =>
  z.string('must be text').max(most, `must be at most ${most} characters`);
const number = (low: number, high: number, unit: string) =>
  z
    .number('must be a number')
    .min(low, `must be at least ${low} ${unit}`.trim())
    .max(high, `must be at most ${high} ${unit}`.trim());
const list = <T extends z.ZodType>(of: T, most: number) => z.array(of).max(most, `at most ${most}`);
const time = z.iso.datetime({ offset: true, error: 'needs a date and a time' });

export const LOAD_KINDS = ['stress', 'game', 'benchmark', 'idle', 'other'] as const;
export const LOADED_DIES = ['cpu', 'gpu', 'both', 'none'] as const;
export const SOURCES = ['mains', 'battery'] as const;
export const LIDS = ['open', 'closed'] as const;
export const MICROPHONE_PLACES = ['operator', 'front', 'side', 'other'] as const;
export const INSTRUMENT_KINDS = [
  'sound-level-meter',
  'microphone',
  'thermometer',
  'wall-meter',
  'tachometer',
  'software',
  'other',
] as const;
export const RUN_USES = ['fit', 'hold-out', 'leave-out'] as const;
export const CHOSEN_BY = ['found', 'person'] as const;

/** Whether a name is that of a channel that a log may hold. */
export const isChannel = (name: string): name is Channel =>
  (PLAIN_CHANNELS as readonly string[]).includes(name) ||
  [...PART_CHANNELS, 'other'].some((p) => name.startsWith(`${p}.`) && name.length > p.length + 1);

const channelSchema = z.looseObject({
  column: words(),
  is: z
    .string('must be a channel')
    .refine(isChannel, { error: 'is no channel that a log may hold' }),
  unit: words(40).optional(),
});

/** What a person said of a log's layout, see `LogMap`. */
export const logLayoutSchema = z.strictObject({
  separator: z.enum([',', ';', '\t', '|'], { error: 'must be , ; | or a tab' }).optional(),
  decimal: z.enum(['.', ','], { error: 'must be . or ,' }).optional(),
  time: z
    .strictObject({
      column: words().optional(),
      format: z
        .enum(TIME_FORMATS, { error: `must be one of ${TIME_FORMATS.join(', ')}` })
        .optional(),
    })
    .optional(),
  channels: list(
    z.strictObject({
      column: words(),
      is: z
        .string('must be a channel')
        .refine(isChannel, { error: 'is no channel that a log may hold' }),
      unit: words(40).optional(),
    }),
    2000,
  ).optional(),
});

export const runLogSchema = z.looseObject({
  id,
  file: words(300),
  kind: z.enum(['csv', 'wav'], { error: 'must be csv or wav' }),
  /** Hash of the log's bytes, under which it is kept. */
  sha256: z
    .string()
    .regex(/^[0-9a-f]{64}$/, 'must be a SHA-256 in hex')
    .optional(),
  offsetS: number(-1e7, 1e7, 's').optional(),
  channels: list(channelSchema, 2000).optional(),
  /** What a person said of it, where that is more than what is found. */
  layout: logLayoutSchema.optional(),
  /** Of a recording: level of a sine of digital full scale, dB. */
  fullScaleDb: number(-200, 300, 'dB').optional(),
  /** Of a recording of a calibrator: the level that this gives, dB; it tells full scale for the others of the run. */
  toneDb: number(60, 140, 'dB').optional(),
});

const band = z.looseObject({ p05: z.number(), p50: z.number(), p95: z.number() });

/** What was foretold before the run, kept as it was. */
export const predictionSchema = z.looseObject({
  madeAt: time,
  /** Revision of the record it stands on. */
  recordRevision: z.number().int().min(0).optional(),
  /** Version of the calibration it stands on; null or absent: none. */
  calibration: z.number().int().min(1).nullable().optional(),
  cap: z.union([z.enum(['off', 'full']), number(-20, 140, 'dB(A)')]),
  on: z.enum(LOADED_DIES).optional(),
  watts: band,
  /** How the median is split. */
  cpuW: z.number().optional(),
  gpuW: z.number().optional(),
  levelDbA: band.nullable().optional(),
  junctionC: z.record(z.string(), band).optional(),
});

export const runSchema = z.looseObject({
  format: z.literal('zugluft-run', { error: 'is no run' }),
  formatVersion: z.literal(1, { error: 'was written by a newer version' }),
  id,
  name: words(120).optional(),
  startedAt: time.nullable().optional(),
  load: z
    .looseObject({
      kind: z.enum(LOAD_KINDS, { error: `must be one of ${LOAD_KINDS.join(', ')}` }),
      on: z.enum(LOADED_DIES, { error: `must be one of ${LOADED_DIES.join(', ')}` }),
      name: words(120).optional(),
      score: number(0, 1e9, '').nullable().optional(),
      framesPerS: number(0, 1e5, '').nullable().optional(),
    })
    .optional(),
  setting: words(60).optional(),
  fanMode: words(60).optional(),
  graphicsMode: words(60).optional(),
  firmware: words(60).optional(),
  source: z.enum(SOURCES, { error: 'must be mains or battery' }).optional(),
  lid: z.enum(LIDS, { error: 'must be open or closed' }).optional(),
  brightnessShare: number(0, 1, '').optional(),
  room: z
    .looseObject({
      temperatureC: number(-20, 60, '°C').optional(),
      altitudeM: number(-500, 6000, 'm').optional(),
    })
    .optional(),
  backgroundDbA: number(-20, 120, 'dB(A)').nullable().optional(),
  microphone: z
    .looseObject({
      distanceM: number(0.05, 10, 'm').optional(),
      place: z
        .enum(MICROPHONE_PLACES, { error: `must be one of ${MICROPHONE_PLACES.join(', ')}` })
        .optional(),
      instrument: words(60).optional(),
    })
    .optional(),
  instruments: list(
    z.looseObject({
      id,
      kind: z.enum(INSTRUMENT_KINDS, { error: `must be one of ${INSTRUMENT_KINDS.join(', ')}` }),
      calibratedOn: z.iso.date({ error: 'needs a date' }).nullable().optional(),
      offset: number(-1000, 1000, '').optional(),
      plusMinus: number(0, 1000, '').optional(),
      checkBeforeDb: number(0, 140, 'dB').nullable().optional(),
      checkAfterDb: number(0, 140, 'dB').nullable().optional(),
    }),
    20,
  ).optional(),
  logs: list(runLogSchema, 20).optional(),
  /** Files of the inbox that are followed while they grow; each becomes a log once it rests. */
  follows: list(words(300), 10).optional(),
  steady: list(
    z
      .looseObject({
        fromS: number(0, 1e8, 's'),
        toS: number(0, 1e8, 's'),
        chosenBy: z.enum(CHOSEN_BY, { error: 'must be found or person' }),
      })
      .refine((w) => w.toS > w.fromS, { error: 'must end after it begins', path: ['toS'] }),
    50,
  ).optional(),
  /** Steps of the bench that were done, and when. */
  checked: z.record(words(40), time).optional(),
  use: z.enum(RUN_USES, { error: `must be one of ${RUN_USES.join(', ')}` }).optional(),
  prediction: predictionSchema.nullable().optional(),
});

/** A run of one state of one unit. */
export type RunDocument = z.infer<typeof runSchema>;

/** The format of a run as a JSON Schema document, for other programs that read or write runs. */
export function runJsonSchema(): string {
  return `${JSON.stringify(z.toJSONSchema(runSchema, { io: 'input' }), null, 2)}\n`;
}

/**
 * Reads a run; unknown fields stay.
 *
 * @returns the run, or each place that cannot be taken
 */
export function parseRun(
  json: unknown,
): { run: RunDocument } | { issues: { path: string; message: string }[] } {
  const read = runSchema.safeParse(json);
  if (read.success) return { run: read.data };
  return {
    issues: read.error.issues
      .slice(0, 100)
      .map((i) => ({ path: i.path.map(String).join('.'), message: i.message })),
  };
}
