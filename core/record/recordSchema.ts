import { z } from 'zod';
import { figure } from './figure';

const text = (max = 200) => z.string().max(max, `must be at most ${max} characters`);
const id = z
  .string('needs a name')
  .min(1, 'needs a name')
  .max(60, 'must be at most 60 characters')
  .regex(/^[^.\s]+$/u, 'must be without spaces and dots');
const choice = <const T extends readonly [string, ...string[]]>(values: T) =>
  z.enum(values, { error: () => `must be one of ${values.join(', ')}` });
const list = <T extends z.ZodType>(item: T, max: number) =>
  z.array(item, 'must be a list').max(max, `must have at most ${max} entries`);
const share = (max: number) => figure({ min: 0, max });
const mm = (max: number) => figure({ above: 0, max, unit: 'mm' });

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
export const SHELL_MATERIALS = ['aluminium', 'magnesium', 'plastic', 'mixed'] as const;

const interfaceMaterial = z.looseObject({
  /** Paste where it is not recorded. */
  kind: choice(INTERFACE_KINDS).optional(),
  conductivityWmK: figure({ above: 0, max: 500, unit: 'W/mK' }).optional(),
  bondLineUm: figure({ above: 0, max: 5000, unit: 'µm' }).optional(),
  ageYears: figure({ min: 0, max: 30, unit: 'years' }).optional(),
});

const die = z.looseObject({
  id,
  role: choice(['cpu', 'gpu']),
  widthMm: mm(80).optional(),
  lengthMm: mm(80).optional(),
  maxJunctionC: figure({ min: 40, max: 130, unit: '°C' }).optional(),
  sensor: choice(['hotspot', 'average']).optional(),
  powerMeaning: choice(['package', 'board', 'die']).optional(),
  interface: interfaceMaterial.optional(),
});

const plate = z.looseObject({
  id,
  kind: choice(PLATE_KINDS),
  dies: list(id, 8).optional(),
  widthMm: mm(500).optional(),
  lengthMm: mm(500).optional(),
  thicknessMm: mm(10).optional(),
  covers: list(text(60), 20).optional(),
  places: list(
    z.looseObject({
      die: id,
      xMm: figure({ min: 0, max: 500, unit: 'mm' }),
      yMm: figure({ min: 0, max: 500, unit: 'mm' }),
    }),
    8,
  ).optional(),
});

const alongPart = z.looseObject({
  part: z.string('needs a part').min(1, 'needs a part').max(60),
  fromMm: figure({ min: 0, max: 1000, unit: 'mm' }).optional(),
  toMm: figure({ above: 0, max: 1000, unit: 'mm' }).optional(),
});

const heatPipe = z.looseObject({
  id,
  count: figure({ min: 1, max: 12, whole: true }).optional(),
  diameterMm: figure({ min: 2, max: 16, unit: 'mm' }).optional(),
  flattenedMm: figure({ min: 0.3, max: 16, unit: 'mm' }).optional(),
  flattenedWidthMm: figure({ min: 1, max: 30, unit: 'mm' }).optional(),
  lengthMm: figure({ min: 20, max: 1000, unit: 'mm' }).optional(),
  wick: choice(WICKS).optional(),
  tiltDeg: figure({ min: -90, max: 90, unit: '°' }).optional(),
  bends: figure({ min: 0, max: 12, whole: true }).optional(),
  along: list(alongPart, 16).optional(),
});

const finStack = z.looseObject({
  id,
  widthMm: mm(500).optional(),
  heightMm: mm(60).optional(),
  depthMm: mm(200).optional(),
  finCount: figure({ min: 2, max: 2000, whole: true }).optional(),
  finThicknessMm: figure({ min: 0.02, max: 3, unit: 'mm' }).optional(),
  material: choice(['copper', 'aluminium']).optional(),
  joined: choice(['one-side', 'both-sides']).optional(),
  fans: list(id, 12).optional(),
  plates: list(id, 8).optional(),
  blockedShare: share(0.95).optional(),
  lintShare: share(0.95).optional(),
  pipesFromFan: list(id, 24).optional(),
});

const curvePoint = z.looseObject({
  rpm: figure({ min: 200, max: 30000, unit: 'rpm' }),
  flowLps: figure({ min: 0, max: 200, unit: 'L/s' }),
  pressurePa: figure({ min: 0, max: 5000, unit: 'Pa' }),
});

const fan = z.looseObject({
  id,
  impellerDiameterMm: figure({ min: 10, max: 200, unit: 'mm' }).optional(),
  bladeHeightMm: figure({ min: 1, max: 60, unit: 'mm' }).optional(),
  minRpm: figure({ min: 200, max: 30000, unit: 'rpm' }).optional(),
  maxRpm: figure({ min: 200, max: 30000, unit: 'rpm' }).optional(),
  control: choice(['shared', 'own']).optional(),
  curve: list(curvePoint, 200).optional(),
});

const vent = z.looseObject({
  id,
  flow: choice(VENT_FLOWS),
  side: choice(VENT_SIDES).optional(),
  widthMm: mm(600).optional(),
  lengthMm: mm(600).optional(),
  openShare: figure({ min: 0.02, max: 1 }).optional(),
  mesh: z.boolean('must be yes or no').optional(),
  /** What lies over it: filter, tape, drive bay … */
  coveredBy: text().optional(),
  blockedShare: share(0.98).optional(),
  lintShare: share(0.95).optional(),
  fans: list(id, 12).optional(),
  finStacks: list(id, 16).optional(),
});

const pad = z.looseObject({
  id,
  from: text(60).optional(),
  to: text(60).optional(),
  thicknessMm: mm(20).optional(),
  widthMm: mm(300).optional(),
  lengthMm: mm(300).optional(),
  conductivityWmK: figure({ above: 0, max: 50, unit: 'W/mK' }).optional(),
  sourceW: figure({ min: 0, max: 50, unit: 'W' }).optional(),
  state: text(60).optional(),
});

const strip = z.looseObject({
  id,
  kind: text(60).optional(),
  at: text(60).optional(),
  coversShare: share(1).optional(),
  purpose: choice(['duct-seal', 'shielding', 'cable', 'unknown']).optional(),
  state: choice(['present', 'removed']).optional(),
});

const watts = figure({ min: 0, max: 1000, unit: 'W' });

const setting = z.looseObject({
  id,
  preset: text().optional(),
  fanMode: text().optional(),
  cpuSustainedW: watts.optional(),
  cpuShortW: watts.optional(),
  cpuShortWindowS: figure({ min: 0, max: 3600, unit: 's' }).optional(),
  gpuSustainedW: watts.optional(),
  /** How the fans follow the hottest junction. */
  fanRamp: z
    .looseObject({
      startC: figure({ min: 0, max: 120, unit: '°C' }).optional(),
      fullC: figure({ min: 0, max: 120, unit: '°C' }).optional(),
      hysteresisK: figure({ min: 0, max: 40, unit: 'K' }).optional(),
    })
    .optional(),
  later: z
    .looseObject({
      afterS: figure({ min: 0, max: 86400, unit: 's' }).optional(),
      cpuSustainedW: watts.optional(),
      gpuSustainedW: watts.optional(),
    })
    .optional(),
});

/**
 * The record as record-format.md describes it, structure and bounds of each figure. Figures are optional here, so that a
 * record still being typed can be kept; what an estimate needs beyond that is the business of `checkRecord`.
 */
export const recordSchema = z.looseObject(
  {
    format: z.literal('zugluft-record', 'must be "zugluft-record"'),
    formatVersion: z.literal(1, 'must be 1'),
    identity: z
      .looseObject({
        maker: text().optional(),
        model: text().optional(),
        modelCode: text().optional(),
        /** Label, firmware, box … */
        modelCodeFrom: text().optional(),
        variant: text().optional(),
        firmware: text().optional(),
        year: z
          .int('must be a year')
          .min(1980, 'must be 1980 or later')
          .max(2100, 'must be 2100 or earlier')
          .optional(),
      })
      .optional(),
    shell: z
      .looseObject({
        widthMm: figure({ min: 100, max: 800, unit: 'mm' }).optional(),
        depthMm: figure({ min: 80, max: 600, unit: 'mm' }).optional(),
        thicknessMm: figure({ min: 4, max: 100, unit: 'mm' }).optional(),
        massKg: figure({ min: 0.1, max: 15, unit: 'kg' }).optional(),
        material: choice(SHELL_MATERIALS).optional(),
        finish: choice(['painted', 'bare', 'coated']).optional(),
        footHeightMm: figure({ min: 0, max: 60, unit: 'mm' }).optional(),
        skinLimitC: figure({ min: 25, max: 90, unit: '°C' }).optional(),
        exhaustLimitC: figure({ min: 30, max: 120, unit: '°C' }).optional(),
      })
      .optional(),
    power: z
      .looseObject({
        source: choice(['mains', 'battery']).optional(),
        adapterW: figure({ min: 5, max: 1000, unit: 'W' }).optional(),
        restW: figure({ min: 0, max: 200, unit: 'W' }).optional(),
        adjustable: list(choice(['preset', 'power-limits', 'fan-speed', 'voltage']), 10).optional(),
      })
      .optional(),
    settings: list(setting, 30).optional(),
    dies: list(die, 8).optional(),
    plates: list(plate, 12).optional(),
    heatPipes: list(heatPipe, 24).optional(),
    finStacks: list(finStack, 16).optional(),
    fans: list(fan, 12).optional(),
    vents: list(vent, 40).optional(),
    pads: list(pad, 40).optional(),
    strips: list(strip, 40).optional(),
    noise: z
      .looseObject({
        sweep: list(
          z.looseObject({
            rpm: z.record(id, figure({ min: 0, max: 30000, unit: 'rpm' })),
            dbA: figure({ min: 0, max: 120, unit: 'dB(A)' }),
          }),
          200,
        ).optional(),
        backgroundDbA: figure({ min: 0, max: 100, unit: 'dB(A)' }).optional(),
        distanceM: figure({ min: 0.05, max: 10, unit: 'm' }).optional(),
      })
      .optional(),
    /** Where somebody put parts on the airway map, from the user's left and the rear edge. */
    airway: z
      .looseObject({
        places: z
          .record(
            id,
            z.looseObject({
              xMm: figure({ min: 0, max: 800, unit: 'mm' }),
              yMm: figure({ min: 0, max: 600, unit: 'mm' }),
            }),
          )
          .optional(),
      })
      .optional(),
    room: z
      .looseObject({
        temperatureC: figure({ min: -10, max: 50, unit: '°C' }).optional(),
        altitudeM: figure({ min: -400, max: 6000, unit: 'm' }).optional(),
        surface: choice(['desk', 'soft', 'stand']).optional(),
        lid: choice(['open', 'closed']).optional(),
      })
      .optional(),
  },
  'must be a record (an object)',
);

/** A record as far as it has been typed. */
export type CaseRecord = z.infer<typeof recordSchema>;
export type DieRecord = z.infer<typeof die>;
export type PlateRecord = z.infer<typeof plate>;
export type HeatPipeRecord = z.infer<typeof heatPipe>;
export type FinStackRecord = z.infer<typeof finStack>;
export type FanRecord = z.infer<typeof fan>;
export type VentRecord = z.infer<typeof vent>;
export type PadRecord = z.infer<typeof pad>;
export type StripRecord = z.infer<typeof strip>;
export type SettingRecord = z.infer<typeof setting>;
