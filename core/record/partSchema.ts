import { z } from 'zod';
import {
  choice,
  flag,
  idSchema,
  known,
  list,
  mm,
  mustChoice,
  mustNum,
  names,
  num,
  share,
  text,
  textSchema,
  wordList,
} from './field';

export const INTERFACE_KINDS = [
  'paste',
  'phase-change',
  'graphite',
  'liquid-metal',
  'pad',
] as const;
export const PLATE_KINDS = ['copper-plate', 'aluminium-plate', 'vapor-chamber', 'none'] as const;
export const WICKS = ['sintered', 'grooved', 'mesh'] as const;
export const VENT_SIDES = ['base', 'deck', 'rear', 'left', 'right'] as const;
export const VENT_FLOWS = ['intake', 'exhaust', 'passive'] as const;

const id = idSchema();

const interfaceMaterial = z.looseObject({
  /** Paste where it is not recorded. */
  kind: choice('interface', INTERFACE_KINDS, { name: 'interface material' }),
  conductivityWmK: num(
    'conductivity',
    { above: 0, max: 500, unit: 'W/mK' },
    { measured: 'package' },
  ),
  bondLineUm: num('bond line', { above: 0, max: 5000, unit: 'µm' }, { measured: 'package' }),
  ageYears: num(
    'age',
    { min: 0, max: 30, unit: 'years' },
    { name: 'years since renewal', measured: 'label' },
  ),
});

export const die = z.looseObject({
  id,
  role: mustChoice('role', ['cpu', 'gpu']),
  widthMm: mm('width', 80, { needed: true }),
  lengthMm: mm('length', 80, { needed: true }),
  maxJunctionC: num(
    'limit',
    { min: 40, max: 130, unit: '°C' },
    { name: 'junction limit', measured: 'log' },
  ),
  sensor: choice('sensor', ['hotspot', 'average']),
  powerMeaning: choice('reported watts mean', ['package', 'board', 'die']),
  interface: interfaceMaterial.optional(),
});

export const plate = z.looseObject({
  id,
  kind: mustChoice('kind', PLATE_KINDS),
  dies: names('on dies', 8, ['dies'], { name: 'dies under it' }),
  widthMm: mm('width', 500),
  lengthMm: mm('length', 500),
  thicknessMm: mm('thickness', 10),
  covers: wordList('covers besides', textSchema(60), 20, { name: 'covers besides the dies' }),
  places: list(
    z.looseObject({
      die: known(idSchema(), {
        title: 'die',
        refersTo: { lists: ['dies'], as: 'name', free: true, withEntry: true },
      }),
      xMm: mustNum('across', { min: 0, max: 500, unit: 'mm' }),
      yMm: mustNum('along', { min: 0, max: 500, unit: 'mm' }),
    }),
    8,
  ).optional(),
});

const alongPart = z.looseObject({
  part: known(z.string('needs a part').min(1, 'needs a part').max(60), {
    title: 'part',
    refersTo: { lists: ['plates', 'finStacks'], as: 'name', withEntry: true },
  }),
  fromMm: num('begin', { min: 0, max: 1000, unit: 'mm' }),
  toMm: num('end', { above: 0, max: 1000, unit: 'mm' }),
});

export const heatPipe = z.looseObject({
  id,
  count: num('count', { min: 1, max: 12, whole: true }, { name: 'number of pipes' }),
  diameterMm: num('diameter', { min: 2, max: 16, unit: 'mm' }, { needed: true }),
  flattenedMm: num(
    'flattened to',
    { min: 0.3, max: 16, unit: 'mm' },
    { name: 'flattened thickness' },
  ),
  flattenedWidthMm: num('flattened width', { min: 1, max: 30, unit: 'mm' }),
  lengthMm: num('length', { min: 20, max: 1000, unit: 'mm' }),
  wick: choice('wick', WICKS),
  tiltDeg: num('tilt', { min: -90, max: 90, unit: '°' }, { measured: 'by-eye' }),
  bends: num('bends', { min: 0, max: 12, whole: true }),
  along: known(list(alongPart, 16).optional(), { title: 'passes', holds: 'along' }),
});

export const finStack = z.looseObject({
  id,
  widthMm: mm('width', 500, { needed: true }),
  heightMm: mm('height', 60, { needed: true }),
  depthMm: mm('depth', 200, { needed: true }),
  finCount: num('fins', { min: 2, max: 2000, whole: true }, { name: 'fin count', needed: true }),
  finThicknessMm: num('fin', { min: 0.02, max: 3, unit: 'mm' }, { name: 'fin thickness' }),
  material: choice('material', ['copper', 'aluminium'], { name: 'fin material' }),
  joined: choice('joined', ['one-side', 'both-sides'], { name: 'joined to pipes' }),
  fans: names('fans', 12, ['fans']),
  plates: names('sits on', 8, ['plates'], { name: 'plates it sits on' }),
  blockedShare: share('blocked', { max: 0.95 }, { name: 'blocked share' }),
  lintShare: share('lint', { max: 0.95 }),
  pipesFromFan: names('pipes from the fan on', 24, ['heatPipes'], {
    name: 'pipes in the order of the air',
  }),
});

const curvePoint = z.looseObject({
  rpm: mustNum('speed', { min: 200, max: 30000, unit: 'rpm' }, { measured: 'test-duct' }),
  flowLps: mustNum('flow', { min: 0, max: 200, unit: 'L/s' }, { measured: 'test-duct' }),
  pressurePa: mustNum('pressure', { min: 0, max: 5000, unit: 'Pa' }, { measured: 'test-duct' }),
});

const SPEED = { min: 200, max: 30000, unit: 'rpm' };

export const fan = z.looseObject({
  id,
  impellerDiameterMm: num(
    'impeller',
    { min: 10, max: 200, unit: 'mm' },
    { name: 'impeller', needed: true },
  ),
  bladeHeightMm: num('blade height', { min: 1, max: 60, unit: 'mm' }),
  minRpm: num('minimum', SPEED, { name: 'minimum speed' }),
  maxRpm: num('maximum', SPEED, { name: 'maximum speed' }),
  control: choice('control', ['shared', 'own']),
  curve: list(curvePoint, 200).optional(),
});

export const vent = z.looseObject({
  id,
  flow: mustChoice('flow', VENT_FLOWS),
  side: choice('side', VENT_SIDES),
  widthMm: mm('width', 600, { needed: true }),
  lengthMm: mm('length', 600, { needed: true }),
  rimMm: mm('to the rear rim', 500, { name: 'to the rear rim of the base' }),
  openShare: share('open share', { min: 0.02, max: 1 }),
  mesh: flag('mesh'),
  coveredBy: text('covered by'),
  blockedShare: share('blocked', { max: 0.98 }, { name: 'blocked share' }),
  lintShare: share('lint', { max: 0.95 }),
  fans: names('feeds fans', 12, ['fans'], { name: 'fans it feeds' }),
  finStacks: names('lets out', 16, ['finStacks'], { name: 'fin stacks it lets out' }),
});

export const pad = z.looseObject({
  id,
  from: text('from', 60, { refersTo: { lists: ['plates', 'finStacks'], as: 'name', free: true } }),
  to: text('to', 60, { refersTo: { lists: ['plates', 'finStacks'], as: 'name', free: true } }),
  thicknessMm: mm('thickness', 20),
  widthMm: mm('width', 300),
  lengthMm: mm('length', 300),
  conductivityWmK: num(
    'conductivity',
    { above: 0, max: 50, unit: 'W/mK' },
    { measured: 'package' },
  ),
  sourceW: num(
    'heat',
    { min: 0, max: 50, unit: 'W' },
    { name: 'heat of its source', measured: 'log' },
  ),
  state: text('state', 60),
});

export const strip = z.looseObject({
  id,
  kind: text('kind', 60),
  at: text('at', 60, {
    refersTo: {
      lists: ['plates', 'heatPipes', 'finStacks', 'fans', 'vents'],
      as: 'name',
      free: true,
    },
  }),
  coversShare: share('covers', { max: 1 }, { name: 'covered share' }),
  purpose: choice('purpose', ['duct-seal', 'shielding', 'cable', 'unknown']),
  state: choice('state', ['present', 'removed']),
});

const WATTS = { min: 0, max: 1000, unit: 'W' };
const TEMPERATURE = { min: 0, max: 120, unit: '°C' };

export const setting = z.looseObject({
  id,
  preset: text('preset'),
  fanMode: text('fan mode'),
  cpuSustainedW: num('CPU sustained', WATTS),
  cpuShortW: num('short', WATTS, { name: 'CPU short' }),
  cpuShortWindowS: num('window', { min: 0, max: 3600, unit: 's' }, { name: 'CPU short window' }),
  gpuSustainedW: num('GPU sustained', WATTS),
  /** Whether the firmware cuts watts so that the skin stays at its limit. */
  skinHeld: flag('holds the skin'),
  /** How the fans follow the hottest junction. */
  fanRamp: z
    .looseObject({
      startC: num('fans start at', TEMPERATURE, { measured: 'log' }),
      fullC: num('fans full at', TEMPERATURE, { measured: 'log' }),
      hysteresisK: num(
        'hysteresis',
        { min: 0, max: 40, unit: 'K' },
        { name: 'hysteresis of the fans', measured: 'log' },
      ),
    })
    .optional(),
  later: z
    .looseObject({
      afterS: num(
        'after',
        { min: 0, max: 86400, unit: 's' },
        { name: 'begin of later limits', measured: 'log' },
      ),
      cpuSustainedW: num('later, CPU', WATTS, { name: 'CPU sustained, later', measured: 'log' }),
      gpuSustainedW: num('later, GPU', WATTS, { name: 'GPU sustained, later', measured: 'log' }),
    })
    .optional(),
});

export type DieRecord = z.infer<typeof die>;
export type PlateRecord = z.infer<typeof plate>;
export type HeatPipeRecord = z.infer<typeof heatPipe>;
export type FinStackRecord = z.infer<typeof finStack>;
export type FanRecord = z.infer<typeof fan>;
export type VentRecord = z.infer<typeof vent>;
export type PadRecord = z.infer<typeof pad>;
export type StripRecord = z.infer<typeof strip>;
export type SettingRecord = z.infer<typeof setting>;
