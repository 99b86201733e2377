import { fieldAt, RECORD_FIELDS, type Field } from '../record/fieldTable';
import type { FigureDetail } from '../record/figure';
import type { MarkKind } from './marksFile';
import type { Measured } from './measureMarks';

/** A figure of the record that a mark tells: parts by their names. */
export interface FigureOfMark {
  path: string;
  value: number;
  plusMinus: number;
}

/** What a mark of a kind is most often of, first. */
const USUAL: Record<MarkKind, readonly string[]> = {
  length: [
    'finStacks.*.widthMm',
    'finStacks.*.depthMm',
    'plates.*.widthMm',
    'plates.*.lengthMm',
    'dies.*.widthMm',
    'dies.*.lengthMm',
    'vents.*.widthMm',
    'vents.*.lengthMm',
  ],
  strip: ['heatPipes.*.flattenedWidthMm', 'finStacks.*.depthMm', 'plates.*.widthMm'],
  circle: ['fans.*.impellerDiameterMm'],
  path: ['heatPipes.*.lengthMm'],
  fins: ['finStacks.*.finCount'],
  openShare: ['vents.*.openShare'],
  area: [
    'finStacks.*.widthMm',
    'plates.*.widthMm',
    'dies.*.widthMm',
    'vents.*.widthMm',
    'pads.*.widthMm',
    'shell.widthMm',
  ],
  angle: [],
};
const LENGTHS: ReadonlySet<MarkKind> = new Set(['length', 'strip', 'circle', 'path']);

/** What the other side of four corners is called where the first is a width. */
const OTHER_SIDE: Readonly<Record<string, string>> = {
  'finStacks.*.widthMm': 'depthMm',
  'plates.*.widthMm': 'lengthMm',
  'dies.*.widthMm': 'lengthMm',
  'vents.*.widthMm': 'lengthMm',
  'pads.*.widthMm': 'lengthMm',
  'shell.widthMm': 'depthMm',
};

/** Fields of the record that a mark of a kind can be of, the usual ones first. */
export function fieldsOfMark(kind: MarkKind): Field[] {
  const usual = USUAL[kind].flatMap((at) => RECORD_FIELDS.find((f) => f.at === at) ?? []);
  if (!LENGTHS.has(kind)) return usual;
  const others = RECORD_FIELDS.filter(
    (f) => f.holds === 'figure' && f.unit === 'mm' && !usual.includes(f),
  );
  return [...usual, ...others];
}

/**
 * The figures that a mark tells of what it is of: that which it was made for, and what it tells besides (fins their thickness, a path
 * its bends, four corners their other side). None where it has no value, or cannot be of such a figure.
 */
export function figuresOfMark(
  path: string,
  kind: MarkKind,
  measured: Measured | undefined,
): FigureOfMark[] {
  const field = fieldAt(path);
  if (!measured || measured.value === null || !field) return [];
  if (!fieldsOfMark(kind).some((f) => f.at === field.at)) return [];
  const figure = (at: string, value: number, plusMinus: number): FigureOfMark => ({
    path: at,
    ...rounded(value, plusMinus),
  });
  const part = path.slice(0, path.lastIndexOf('.'));
  if (kind === 'area') {
    const [width, length] = measured.sidesMm ?? [];
    if (!width || !length) return [];
    return [
      figure(path, width.value, width.plusMinus),
      figure(`${part}.${OTHER_SIDE[field.at]!}`, length.value, length.plusMinus),
    ];
  }
  const out = [figure(path, measured.value, measured.plusMinus ?? 0)];
  if (kind === 'fins' && typeof measured.thicknessMm === 'number') {
    // half of what the light spreads over
    out.push(figure(`${part}.finThicknessMm`, measured.thicknessMm, 0.15 * measured.thicknessMm));
  }
  if (field.at === 'heatPipes.*.lengthMm' && measured.bends !== undefined) {
    out.push(figure(`${part}.bends`, measured.bends, 0));
  }
  return out;
}

/** Digits as far as the ± has two of them. */
function rounded(value: number, plusMinus: number): { value: number; plusMinus: number } {
  if (!(plusMinus > 0)) return { value: Number(value.toPrecision(6)), plusMinus: 0 };
  const digits = Math.min(6, Math.max(0, 1 - Math.floor(Math.log10(plusMinus))));
  return { value: Number(value.toFixed(digits)), plusMinus: Number(plusMinus.toFixed(digits)) };
}

/** From which mark of which photo a figure was read, and the share of its ± that all lengths of that photo have in common. */
export interface FromPhoto {
  photo: string;
  mark: string;
  scaleShare?: number;
}

/** A figure as the record keeps it; what else stood there, such as a note, stays. */
export function figureFromPhoto(
  before: unknown,
  { value, plusMinus, path }: FigureOfMark,
  from: FromPhoto,
): FigureDetail {
  const kept = typeof before === 'object' && before !== null ? (before as FigureDetail) : {};
  const isLength = fieldAt(path)?.unit === 'mm';
  const { scaleShare, ...rest } = from;
  return {
    ...kept,
    value,
    plusMinus,
    origin: 'photo',
    ...rest,
    ...(isLength && scaleShare !== undefined
      ? { scaleShare: Number(scaleShare.toPrecision(3)) }
      : {}),
  };
}

/** From which mark a figure of a record was read; null where it was not. */
export function photoOfFigure(figure: unknown): FromPhoto | null {
  if (typeof figure !== 'object' || figure === null) return null;
  const { origin, photo, mark, scaleShare } = figure as FigureDetail;
  if (origin !== 'photo' || typeof photo !== 'string' || typeof mark !== 'string') return null;
  return { photo, mark, ...(typeof scaleShare === 'number' ? { scaleShare } : {}) };
}
