import { z } from 'zod';
import {
  choice,
  choiceSchema,
  idSchema,
  known,
  list,
  mustNum,
  num,
  text,
  textSchema,
  wordList,
} from './field';
import { die, fan, finStack, heatPipe, pad, plate, setting, strip, vent } from './partSchema';

export const SHELL_MATERIALS = ['aluminium', 'magnesium', 'plastic', 'mixed'] as const;

const ADJUSTABLE = ['preset', 'power-limits', 'fan-speed', 'voltage'] as const;

const id = idSchema();
const mapPlace = z.looseObject({
  xMm: mustNum('from the left', { min: 0, max: 800, unit: 'mm' }),
  yMm: mustNum('from the rear', { min: 0, max: 600, unit: 'mm' }),
});

const identity = z.looseObject({
  maker: text('maker'),
  model: text('model'),
  modelCode: text('model code'),
  /** Label, firmware, box … */
  modelCodeFrom: text('code read from', 200, { name: 'where the model code stands' }),
  variant: text('variant'),
  firmware: text('firmware'),
  /** Texts that were copied from a sibling and not read off this one yet, by their field. */
  assumed: wordList('assumed from a sibling', textSchema(40), 10, {
    name: 'what of its identity is assumed',
  }),
  year: num('year', { min: 1980, max: 2100, whole: true }, { measured: 'label' }),
});

/** What the machine stands on: feet, or a rubber strip along the rear, the front, or both. */
export const FEET = ['feet', 'rear-strip', 'front-strip', 'two-strips'] as const;
export type Feet = (typeof FEET)[number];

const shell = z.looseObject({
  widthMm: num('width', { min: 100, max: 800, unit: 'mm' }, { name: 'shell width' }),
  depthMm: num('depth', { min: 80, max: 600, unit: 'mm' }, { name: 'shell depth' }),
  thicknessMm: num('thickness', { min: 4, max: 100, unit: 'mm' }, { name: 'shell thickness' }),
  massKg: num('mass', { min: 0.1, max: 15, unit: 'kg' }),
  footHeightMm: num('height of the feet', { min: 0, max: 60, unit: 'mm' }, { name: 'foot height' }),
  feet: choice('feet or strips', FEET),
  skinLimitC: num('skin limit', { min: 25, max: 90, unit: '°C' }),
  exhaustLimitC: num('exhaust limit', { min: 30, max: 120, unit: '°C' }),
  material: choice('material', SHELL_MATERIALS, { name: 'shell material' }),
  finish: choice('finish', ['painted', 'bare', 'coated'], { name: 'shell finish' }),
});

const power = z.looseObject({
  source: choice('runs on', ['mains', 'battery'], { name: 'power source' }),
  adapterW: num('adapter', { min: 5, max: 1000, unit: 'W' }, { measured: 'label' }),
  restW: num('rest of the machine', { min: 0, max: 200, unit: 'W' }, { measured: 'log' }),
  adjustable: wordList('the owner may set', choiceSchema(ADJUSTABLE), 10, {
    name: 'what the owner may set',
    options: ADJUSTABLE,
  }),
});

const noise = z.looseObject({
  sweep: list(
    z.looseObject({
      rpm: known(z.record(id, mustNum('speed', { min: 0, max: 30000, unit: 'rpm' })), {
        title: 'speeds',
        refersTo: { lists: ['fans'], as: 'keys' },
      }),
      dbA: mustNum('level', { min: 0, max: 120, unit: 'dB(A)' }),
    }),
    200,
  ).optional(),
  backgroundDbA: num(
    'background',
    { min: 0, max: 100, unit: 'dB(A)' },
    { name: 'background level' },
  ),
  distanceM: num(
    'distance',
    { min: 0.05, max: 10, unit: 'm' },
    { name: 'microphone distance', measured: 'by-eye' },
  ),
});

const room = z.looseObject({
  temperatureC: num(
    'temperature',
    { min: -10, max: 50, unit: '°C' },
    { name: 'room temperature', measured: 'thermometer' },
  ),
  altitudeM: num('altitude', { min: -400, max: 6000, unit: 'm' }, { measured: 'map' }),
  surface: choice('stands on', ['desk', 'soft', 'stand']),
  lid: choice('lid', ['open', 'closed']),
});

/**
 * The record as record-format.md describes it, structure and bounds of each figure; beside each field stands what else is known of
 * it (`field.ts`). Figures are optional here, so that a record still being typed can be kept; what an estimate needs beyond that is
 * the business of `checkRecord`.
 */
export const recordSchema = z.looseObject(
  {
    format: z.literal('zugluft-record', 'must be "zugluft-record"'),
    formatVersion: z.literal(1, 'must be 1'),
    identity: identity.optional(),
    shell: shell.optional(),
    power: power.optional(),
    settings: list(setting, 30).optional(),
    dies: list(die, 8).optional(),
    plates: list(plate, 12).optional(),
    heatPipes: list(heatPipe, 24).optional(),
    finStacks: list(finStack, 16).optional(),
    fans: list(fan, 12).optional(),
    vents: list(vent, 40).optional(),
    pads: list(pad, 40).optional(),
    strips: list(strip, 40).optional(),
    noise: noise.optional(),
    /** Where somebody put parts on the airway map, from the user's left and the rear edge. */
    airway: z
      .looseObject({
        places: known(z.record(id, mapPlace).optional(), {
          title: 'places on the map',
          refersTo: {
            lists: ['dies', 'plates', 'heatPipes', 'finStacks', 'fans', 'vents'],
            as: 'keys',
            free: true,
          },
        }),
      })
      .optional(),
    room: room.optional(),
  },
  'must be a record (an object)',
);

/** A record as far as it has been typed. */
export type CaseRecord = z.infer<typeof recordSchema>;
