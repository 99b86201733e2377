import { z } from 'zod';

export const ORIGINS = ['measured', 'label', 'photo', 'estimated', 'assumed'] as const;
export type Origin = (typeof ORIGINS)[number];

/** A recorded number with what is known of its making. */
export interface FigureDetail {
  value: number;
  plusMinus?: number | undefined;
  origin?: Origin | undefined;
  note?: string | undefined;
  [more: string]: unknown;
}

/** Any measured number of a record: plain, or with ±, origin and note. */
export type Figure = number | FigureDetail;

/** Note of every figure that follows from a quick count, until it is measured. */
export const COUNT_NOTE = 'quick count';

export interface Bounds {
  /** Smallest allowed value. */
  min?: number;
  /** Value that must be exceeded. */
  above?: number;
  max: number;
  unit?: string;
  whole?: boolean;
}

/** The number in a figure, or undefined where there is none. */
export function figureValue(figure: Figure | undefined): number | undefined {
  return figure === undefined || typeof figure === 'number' ? figure : figure.value;
}

/** Says in words what is wrong with a value for these bounds, or nothing where it is fine. */
export function explainNumber(value: unknown, bounds: Bounds): string | undefined {
  const unit = bounds.unit ? ` ${bounds.unit}` : '';
  if (value === undefined || value === null || value === '') return 'needs a number';
  if (typeof value === 'string') return `“${shorten(value)}” is not a number`;
  if (typeof value !== 'number') return 'needs a number';
  if (!Number.isFinite(value)) return 'must be a finite number';
  if (bounds.above !== undefined && value <= bounds.above) {
    return `must be more than ${bounds.above}${unit}`;
  }
  if (bounds.min !== undefined && value < bounds.min)
    return `must be at least ${bounds.min}${unit}`;
  if (value > bounds.max) return `must be at most ${bounds.max}${unit}`;
  if (bounds.whole && !Number.isInteger(value)) return 'must be a whole number';
  return undefined;
}

function shorten(text: string): string {
  return text.length > 24 ? `${text.slice(0, 24)}…` : text;
}

/** Every check of a number with its message in words; `prefix` names which number of a figure is meant. */
function boundedNumber(bounds: Bounds, prefix = '') {
  const message = (value: unknown) =>
    `${prefix}${explainNumber(value, bounds) ?? 'needs a number'}`;
  const error = (issue: { input?: unknown }) => message(issue.input);
  let n = z.number({ error });
  if (bounds.min !== undefined) n = n.min(bounds.min, { error });
  if (bounds.above !== undefined) n = n.gt(bounds.above, { error });
  n = n.max(bounds.max, { error });
  return bounds.whole ? n.int({ error }) : n;
}

function explainDetail(input: unknown, bounds: Bounds): string {
  const detail = input as Record<string, unknown>;
  const plusMinus = detail['plusMinus'];
  if (plusMinus !== undefined) {
    const bad = explainNumber(plusMinus, { min: 0, max: bounds.max });
    if (bad) return `± ${bad}`;
  }
  if (detail['origin'] !== undefined && !ORIGINS.includes(detail['origin'] as Origin)) {
    return `origin must be one of ${ORIGINS.join(', ')}`;
  }
  return 'is not a well-formed figure';
}

/** Schema of a figure within bounds, with messages in words. */
export function figure(bounds: Bounds) {
  return z.union(
    [
      boundedNumber(bounds),
      z.looseObject({
        value: boundedNumber(bounds),
        plusMinus: boundedNumber({ min: 0, max: bounds.max }, '± ').optional(),
        origin: z
          .enum(ORIGINS, { error: () => `origin must be one of ${ORIGINS.join(', ')}` })
          .optional(),
        note: z.string().max(2000, 'note must be at most 2000 characters').optional(),
      }),
    ],
    {
      error: (issue) => {
        const input = issue.input;
        const value =
          typeof input === 'object' && input !== null && 'value' in input ? input.value : input;
        return explainNumber(value, bounds) ?? explainDetail(input, bounds);
      },
    },
  );
}

const INSIDE_FIGURE = /\.(value|plusMinus|origin|note)$/;

/** The path of a field, also for an issue inside its figure. */
export function fieldPath(path: string): string {
  return path.replace(INSIDE_FIGURE, '');
}
