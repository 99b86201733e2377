import type { Bounds } from '../record/figure';

/** A figure of a count: how it is asked for, its unit and bounds. */
export interface CountField {
  /** As it stands before or behind its field. */
  title: string;
  bounds: Bounds;
  /** Makes parts of its own, so that it is a plain number; every other one may have ± and origin. */
  parts?: true;
}

const many = (title: string, max: number, min = 0): CountField => ({
  title,
  bounds: { min, max, whole: true },
  parts: true,
});
const size = (title: string, min: number, max: number): CountField => ({
  title,
  bounds: { min, max, unit: 'mm' },
});

/** The figures of a count in the order of looking, fans first. Names are those of the format and of CSV columns. */
export const COUNT_FIELDS = {
  fans: many('fans', 8, 1),
  fanDiameterMm: size('impeller diameter', 10, 200),
  fanHeightMm: size('blade height', 1, 60),
  fanMaxRpm: { title: 'greatest fan speed', bounds: { min: 200, max: 30000, unit: 'rpm' } },
  stacks: many('fin stacks', 8, 1),
  stackWidthMm: size('width of a stack', 5, 500),
  stackDepthMm: size('depth of a stack', 2, 200),
  stackHeightMm: size('height of a stack', 1, 60),
  finCount: { title: 'fins of a stack', bounds: { min: 2, max: 2000, whole: true } },
  finAreaCm2: {
    title: 'fin area, all stacks, both faces',
    bounds: { min: 5, max: 20000, unit: 'cm²' },
  },
  pipesShared: many('heat pipes through both dies', 12),
  pipesCpu: many('heat pipes of the CPU alone', 12),
  pipesGpu: many('heat pipes of the GPU alone', 12),
  pipeDiameterMm: size('pipe diameter, before pressing', 2, 16),
  pipePressedMm: size('pipe thickness, as pressed', 0.3, 16),
  chamberWidthMm: size('width of the vapor chamber', 10, 500),
  chamberDepthMm: size('depth of the vapor chamber', 10, 500),
  cpuClassW: { title: 'CPU class', bounds: { above: 0, max: 500, unit: 'W' } },
  gpuClassW: { title: 'GPU class', bounds: { min: 0, max: 800, unit: 'W' } },
  widthMm: size('width of the machine', 100, 700),
  depthMm: size('depth of the machine', 80, 600),
  thicknessMm: size('thickness of the machine', 4, 120),
  footMm: size('height of the feet', 0.1, 40),
  ventsOpen: many('open vents below', 24),
  ventsCovered: many('covered vents below', 24),
  ageYears: {
    title: 'years since the interface was renewed',
    bounds: { min: 0, max: 30, unit: 'years' },
  },
} as const satisfies Record<string, CountField>;

export type CountFieldName = keyof typeof COUNT_FIELDS;
export const COUNT_FIELD_NAMES = Object.keys(COUNT_FIELDS) as CountFieldName[];
