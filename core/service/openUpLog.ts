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
export const CONNECTOR_KINDS = [
  'plug',
  'ribbon',
  'antenna-lead',
  'board-to-board',
  'ring',
  'other',
] as const;
export const PART_KINDS = [
  'battery',
  'fan',
  'heat-sink',
  'memory',
  'storage',
  'wireless-card',
  'coin-cell',
  'speaker',
  'port',
  'power-jack',
  'display',
  'bezel',
  'hinge',
  'keyboard',
  'touchpad',
  'board',
  'other',
] as const;
/** What a strip is for; one of unknown purpose stays where it is. */
export const STRIP_PURPOSES = ['duct-seal', 'shielding-film', 'cable-hold', 'unknown'] as const;
/** What is done in a step: it brings the cautions, tools and house rules. */
export const STEP_KINDS = [
  'make-safe',
  'cover',
  'battery',
  'battery-out',
  'plugs',
  'leads',
  'card',
  'strip',
  'clean',
  'fan-out',
  'sink',
  'renew',
  'pads',
  'layer',
  'jack',
  'board',
  'other',
] as const;
/** What an upgrade bound rests on. */
export const EVIDENCE = ['maker-says', 'likely', 'tried', 'contradicts'] as const;

export const STEP_STATES = ['planned', 'done', 'skipped', 'went-wrong'] as const;

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
  /** From the layer's upper left corner, as it is seen; a screw that was only counted has no place yet. */
  xMm: mm.optional(),
  yMm: mm.optional(),
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
  kind: z.enum(CONNECTOR_KINDS).optional(),
  release: z.enum(RELEASES).optional(),
  /** A printed label says where it goes. */
  labelled: z.boolean().optional(),
  /** Which lead went where. */
  lead: words(80).optional(),
  off: z.boolean().default(false),
  on: z.boolean().default(false),
  latchClosed: z.boolean().optional(),
});

export const part = z.looseObject({
  id,
  name: words(80),
  kind: z.enum(PART_KINDS).optional(),
  layer: id.optional(),
  /** Where it lies on its layer, from the upper left corner as it is seen. */
  place: z.looseObject({ xMm: mm, yMm: mm, widthMm: mm, depthMm: mm }).optional(),
  partNumber: words(80).optional(),
  wattHours: z.number().positive().max(200).optional(),
  volts: z.number().positive().max(60).optional(),
  fixing: z.enum(FIXINGS).optional(),
  /** It can be replaced by itself. */
  alone: z.boolean().optional(),
  /** A port on a small board of its own, not on the main one. */
  ownBoard: z.boolean().optional(),
  labelled: z.boolean().optional(),
  /** Else it comes only together with these parts. */
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

export const strip = z.looseObject({
  id,
  name: words(80),
  layer: id.optional(),
  purpose: z.enum(STRIP_PURPOSES).default('unknown'),
  off: z.boolean().default(false),
  on: z.boolean().default(false),
});

/** A moment, such as `2026-03-02T10:11:12.000Z`. */
const moment = z.iso.datetime('is no time');

export const step = z.looseObject({
  id,
  name: words(120),
  act: z.enum(STEP_KINDS).optional(),
  layer: id.optional(),
  posture: z.enum(POSTURES).optional(),
  /** What must be done before: each entry is a step, or several of which one is enough. */
  needs: list(z.union([id, list(id, 10).min(1)]), 20).default([]),
  /** Goals that are reached when this is done. */
  reaches: list(id, 20).default([]),
  screws: list(id, 200).default([]),
  connectors: list(id, 60).default([]),
  parts: list(id, 60).default([]),
  strips: list(id, 40).default([]),
  tools: list(words(60), 20).default([]),
  consumables: list(words(80), 20).default([]),
  cautions: list(id, 20).default([]),
  /** Time taken, without pauses. */
  seconds: z.number().min(0).max(86_400).optional(),
  /** What it took on the machine that the log was taken over from. */
  expectedSeconds: z.number().min(0).max(86_400).optional(),
  /** The clock runs since then. */
  runningSince: moment.optional(),
  stamps: list(z.looseObject({ at: moment, words: words(200) }), 50).default([]),
  state: z.enum(STEP_STATES).default('planned'),
  /** What was said of it on the way back. */
  back: z.boolean().default(false),
  note: words(2000).optional(),
});

const logShape = z.looseObject({
  format: z.literal('zugluft-openup'),
  formatVersion: z.literal(1),
  layers: list(layer, 40).default([]),
  groups: list(screwGroup, 26).default([]),
  screws: list(screw, 300).default([]),
  connectors: list(connector, 200).default([]),
  parts: list(part, 200).default([]),
  strips: list(strip, 100).default([]),
  steps: list(step, 400).default([]),
  /** Cautions that were read; none is asked for twice. */
  acknowledged: list(id, 60).default([]),
  /** Checks after the last screw that were made. */
  checked: list(id, 20).default([]),
  /** The machine whose log this one was begun from. */
  templateOf: words(300).optional(),
  /** What a team agreed to give or take from the computed service score. */
  deviation: z
    .looseObject({
      points: z
        .number('must be a number')
        .min(-5, 'must be at least -5')
        .max(5, 'must be at most 5'),
      reason: z.string().trim().min(1, 'needs a reason').max(1000, 'at most 1000 characters'),
      agreedBy: words(200).default(''),
    })
    .optional(),
});

/** Words that mean no hole where a screw went. */
const NO_HOLES = ['own', 'lost'];

/** What each thing is called is its own: what leads to it must lead to one. */
export const openUpLog = logShape.superRefine((log, ctx) => {
  const refuse = (path: (string | number)[], message: string) =>
    ctx.addIssue({ code: 'custom', path, message });
  const each = (
    list: readonly string[],
    path: (i: number) => (string | number)[],
    what: string,
  ) => {
    const seen = new Set<string>();
    list.forEach((name, i) => {
      if (seen.has(name)) refuse(path(i), `the ${what} “${name}” is taken already`);
      seen.add(name);
    });
  };
  for (const list of [
    'layers',
    'groups',
    'screws',
    'connectors',
    'parts',
    'strips',
    'steps',
  ] as const) {
    each(
      log[list].map((x) => x.id),
      (i) => [list, i, 'id'],
      'name',
    );
  }
  each(
    log.groups.map((g) => g.letter),
    (i) => ['groups', i, 'letter'],
    'letter',
  );
  log.screws.forEach((s, i) => {
    if (NO_HOLES.includes(s.id)) refuse(['screws', i, 'id'], `“${s.id}” is no name for a screw`);
  });
  log.steps.forEach((step, k) => {
    for (const list of ['screws', 'connectors', 'parts', 'strips'] as const) {
      each(step[list], (i) => ['steps', k, list, i], 'name');
    }
  });
});

export type OpenUpLog = z.infer<typeof openUpLog>;
export type Step = z.infer<typeof step>;
export type Screw = z.infer<typeof screw>;
export type ScrewGroup = z.infer<typeof screwGroup>;
export type Layer = z.infer<typeof layer>;
export type Connector = z.infer<typeof connector>;
export type LoggedPart = z.infer<typeof part>;
export type LoggedStrip = z.infer<typeof strip>;
export type StepKind = (typeof STEP_KINDS)[number];
/** A screw whose hole is known. */
export type PlacedScrew = Screw & { xMm: number; yMm: number };

export const isPlaced = (s: Screw): s is PlacedScrew => s.xMm !== undefined && s.yMm !== undefined;

/** A log in which nothing was written yet. */
export const EMPTY_LOG: OpenUpLog = openUpLog.parse({ format: 'zugluft-openup', formatVersion: 1 });

/** What the format does not take of a log, in words with its place; null where it takes all. */
export function firstFault(log: unknown): string | null {
  const first = openUpLog.safeParse(log).error?.issues[0];
  return first ? `${first.path.join('.')} ${first.message}` : null;
}

/**
 * A log as it was kept, also by an earlier version of this program: what the format has gained since then is filled in.
 *
 * @returns null where it is no log
 */
export function readOpenUpLog(kept: unknown): OpenUpLog | null {
  return openUpLog.safeParse(kept).data ?? null;
}
