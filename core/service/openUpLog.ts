import { z } from 'zod';

/** The log of an opening: what was found, in which order it came off, and where it goes back. */

const id = z
  .string('needs a name')
  .min(1, 'needs a name')
  .max(60, 'must be at most 60 characters')
  .regex(/^[^\s.]+$/, 'a name has no spaces or points');
const words = (most = 200) =>
  z.string('must be text').max(most, `must be at most ${most} characters`);
const mm = z
  .number('must be a number')
  .min(0, 'must be at least 0 mm')
  .max(800, 'must be at most 800 mm');
const list = <T extends z.ZodType>(of: T, most: number) => z.array(of).max(most, `at most ${most}`);

/** How the machine lies while a step is done. */
export const POSTURES = ['base-up', 'lid-up', 'lid-at-right-angle', 'standing'] as const;
export const DRIVES = ['cross', 'star', 'pentagon', 'hex', 'slot', 'other'] as const;
/** What covers a screw that is not to be seen at once. */
export const HIDDEN_UNDER = ['foot', 'cover', 'card-dummy', 'seal', 'label'] as const;
/** What was found of a screw before anything was touched. */
export const ON_ARRIVAL = ['there', 'missing', 'stripped', 'not-looked'] as const;
/** What lets a connector go. */
export const RELEASES = [
  'slide-out',
  'pull-tab',
  'by-its-ears',
  'flip-latch',
  'press-on',
  'hold-down-bar',
  'other',
] as const;
export const FIXINGS = [
  'slot',
  'screw',
  'solder',
  'glue',
  'rivet',
  'grommet',
  'pull-strip',
  'clip',
  'other',
] as const;
/** What an upgrade bound rests on. */
export const EVIDENCE = ['maker-says', 'likely', 'tried', 'contradicts'] as const;

/** Part of the machine that comes off as one: base cover, hatch, keyboard, mid-frame … The list is open. */
export const layer = z.looseObject({
  id,
  name: words(80),
  widthMm: mm.optional(),
  depthMm: mm.optional(),
  seenFrom: z.enum(['below', 'above']).default('below'),
});

/** Screws alike in everything; told apart by letter and shape as well as by shade. */
export const screwGroup = z.looseObject({
  id,
  letter: z
    .string()
    .length(1, 'is one letter')
    .regex(/^[A-Z]$/, 'is one letter from A to Z'),
  thread: words(20).optional(),
  lengthMm: z.number('must be a number').positive('must be above 0 mm').max(60).optional(),
  headMm: z.number('must be a number').positive('must be above 0 mm').max(20).optional(),
  drive: z.enum(DRIVES).optional(),
});

export const screw = z.looseObject({
  id,
  layer: id,
  group: id.optional(),
  /** From the layer's upper left corner, as it is seen. */
  xMm: mm,
  yMm: mm,
  /** Number printed beside it. */
  printed: z.number().int().min(1).max(99).optional(),
  captive: z.boolean().optional(),
  hiddenUnder: z.enum(HIDDEN_UNDER).optional(),
  onArrival: z.enum(ON_ARRIVAL).default('there'),
  out: z.boolean().default(false),
  /** Where the screw of this hole went: its own hole, another one's id, or nowhere. */
  back: z.union([z.literal('own'), z.literal('lost'), id]).optional(),
});

export const connector = z.looseObject({
  id,
  layer: id.optional(),
  name: words(80),
  release: z.enum(RELEASES).optional(),
  /** Which lead went where. */
  lead: words(80).optional(),
  off: z.boolean().default(false),
  on: z.boolean().default(false),
  latchClosed: z.boolean().optional(),
});

export const part = z.looseObject({
  id,
  name: words(80),
  layer: id.optional(),
  /** Where it lies on its layer, from the upper left corner as it is seen. */
  place: z.looseObject({ xMm: mm, yMm: mm, widthMm: mm, depthMm: mm }).optional(),
  partNumber: words(80).optional(),
  wattHours: z.number().positive().max(200).optional(),
  volts: z.number().positive().max(60).optional(),
  fixing: z.enum(FIXINGS).optional(),
  /** Replaced alone, or only together with these parts. */
  onlyWith: list(id, 20).default([]),
  consumables: list(words(80), 20).default([]),
  upgrades: list(
    z.looseObject({
      bound: words(200),
      evidence: z.enum(EVIDENCE),
      excludes: list(id, 20).default([]),
    }),
    20,
  ).default([]),
});

export const step = z.looseObject({
  id,
  name: words(120),
  layer: id.optional(),
  posture: z.enum(POSTURES).optional(),
  /** What must be done before: each entry is a step, or several of which one is enough. */
  needs: list(z.union([id, list(id, 10).min(1)]), 20).default([]),
  /** Goals that are reached when this is done. */
  reaches: list(id, 20).default([]),
  screws: list(id, 200).default([]),
  connectors: list(id, 60).default([]),
  tools: list(words(60), 20).default([]),
  consumables: list(words(80), 20).default([]),
  cautions: list(id, 20).default([]),
  seconds: z.number().min(0).max(86_400).optional(),
  state: z.enum(['planned', 'done', 'skipped', 'went-wrong']).default('planned'),
  note: words(2000).optional(),
});

export const openUpLog = z.looseObject({
  format: z.literal('zugluft-openup'),
  formatVersion: z.literal(1),
  layers: list(layer, 40).default([]),
  groups: list(screwGroup, 26).default([]),
  screws: list(screw, 300).default([]),
  connectors: list(connector, 200).default([]),
  parts: list(part, 200).default([]),
  steps: list(step, 400).default([]),
});

export type OpenUpLog = z.infer<typeof openUpLog>;
export type Step = z.infer<typeof step>;
export type Screw = z.infer<typeof screw>;
export type ScrewGroup = z.infer<typeof screwGroup>;
export type Layer = z.infer<typeof layer>;
export type Connector = z.infer<typeof connector>;
export type LoggedPart = z.infer<typeof part>;
