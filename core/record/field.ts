import { z } from 'zod';
import { figure, type Bounds } from './figure';
import type { PartListName } from './partLists';

/** How a figure’s deviation goes with it where nobody said a ±. */
export type PlusMinusKind =
  /** A share of the figure. */
  | 'scale'
  /** A length: a share, at least what a calliper can tell. */
  | 'length'
  /** Counted: exact, unless it was estimated. */
  | 'count'
  /** Between 0 and 1, drawn from a normal distribution within them. */
  | 'share'
  /** Without a natural zero, such as °C and dB(A): drawn from a normal distribution. */
  | 'level';

/** By what a figure is found out. */
export type Measured = keyof typeof MEASURED_WORDS;

export const MEASURED_WORDS = {
  calliper: 'with a calliper',
  counted: 'by counting',
  scales: 'on scales',
  'by-eye': 'by eye',
  label: 'from its label',
  package: 'from the package of the material',
  firmware: 'from the firmware set-up',
  log: 'from a log of the machine',
  thermometer: 'with a thermometer',
  'sound-level-meter': 'with a sound level meter',
  map: 'from a map',
  'test-duct': 'from a data sheet or a test duct',
} as const;

/** Parts that a field names. */
export interface RefersTo {
  lists: readonly PartListName[];
  /** One name, a list of names, or an object with names as keys. */
  as: 'name' | 'names' | 'keys';
  /** Other words may stand there too, so that an unknown name is no mistake. */
  free?: true;
  /** The entry of a list that holds it goes where the part goes. */
  withEntry?: true;
}

/** What is known of a field of the record, beside its bounds. */
export interface FieldMeta {
  /** Head of its column, beside others of its part. */
  title: string;
  /** Its name where it stands alone. */
  name: string;
  holds: 'figure' | 'text' | 'choice' | 'switch' | 'names' | 'along';
  /** Unit as it is shown, empty where there is none. */
  unit: string;
  plusMinus?: PlusMinusKind;
  measured?: Measured;
  options?: readonly string[];
  refersTo?: RefersTo;
  /** No estimate without it. */
  needed?: true;
}

/** The table beside the schema: what is known of each field, by its schema. */
export const fields = z.registry<FieldMeta>();

type More = Partial<Omit<FieldMeta, 'title' | 'holds'>>;

const KIND_BY_UNIT: Readonly<Record<string, PlusMinusKind>> = {
  mm: 'length',
  '°C': 'level',
  'dB(A)': 'level',
};
const MEASURED_BY_UNIT: Readonly<Record<string, Measured>> = {
  mm: 'calliper',
  kg: 'scales',
  rpm: 'log',
  W: 'firmware',
  s: 'firmware',
  'dB(A)': 'sound-level-meter',
};

/** A field with what is known of it; it may be absent. */
function field<T extends z.ZodType>(schema: T, meta: FieldMeta): z.ZodOptional<T> {
  const optional = schema.optional();
  fields.add(optional as z.ZodType, meta);
  return optional;
}

const figureMeta = (title: string, bounds: Bounds, more: More): FieldMeta => {
  const unit = bounds.unit ?? '';
  const measured = bounds.whole ? 'counted' : MEASURED_BY_UNIT[unit];
  return {
    title,
    name: title,
    holds: 'figure',
    unit,
    plusMinus: bounds.whole ? 'count' : (KIND_BY_UNIT[unit] ?? 'scale'),
    ...(measured ? { measured } : {}),
    ...more,
  };
};

/**
 * A figure within bounds.
 *
 * @param title head of its column
 * @param more what differs from what its unit says: its name where it stands alone, its kind of ±, how it is found out
 */
export function num(title: string, bounds: Bounds, more: More = {}) {
  return field(figure(bounds), figureMeta(title, bounds, more));
}

/** The same where it may not be absent. */
export function mustNum(title: string, bounds: Bounds, more: More = {}) {
  return figure(bounds).register(fields, figureMeta(title, bounds, more));
}

/** A length above zero, mm. */
export const mm = (title: string, max: number, more: More = {}) =>
  num(title, { above: 0, max, unit: 'mm' }, more);

/** A share between 0 and 1. */
export const share = (title: string, bounds: { min?: number; max: number }, more: More = {}) =>
  num(
    title,
    { min: 0, ...bounds },
    { plusMinus: 'share', measured: 'by-eye', unit: '0–1', ...more },
  );

const plain = (title: string, holds: FieldMeta['holds'], more: More): FieldMeta => ({
  title,
  name: title,
  holds,
  unit: '',
  ...more,
});

export const textSchema = (max = 200) => z.string().max(max, `must be at most ${max} characters`);

/** Free words. */
export const text = (title: string, max = 200, more: More = {}) =>
  field(textSchema(max), plain(title, 'text', more));

export const choiceSchema = <const T extends readonly [string, ...string[]]>(values: T) =>
  z.enum(values, { error: () => `must be one of ${values.join(', ')}` });

/** One of a few words. */
export const choice = <const T extends readonly [string, ...string[]]>(
  title: string,
  values: T,
  more: More = {},
) => field(choiceSchema(values), plain(title, 'choice', { options: values, ...more }));

/** One of a few words that must be there. */
export const mustChoice = <const T extends readonly [string, ...string[]]>(
  title: string,
  values: T,
) => choiceSchema(values).register(fields, plain(title, 'choice', { options: values }));

/** Yes or no. */
export const flag = (title: string, more: More = {}) =>
  field(z.boolean('must be yes or no'), plain(title, 'switch', more));

/** A part's own name. */
export const idSchema = () =>
  z
    .string('needs a name')
    .min(1, 'needs a name')
    .max(60, 'must be at most 60 characters')
    .regex(/^[^.\s]+$/u, 'must be without spaces and dots');

export const list = <T extends z.ZodType>(item: T, max: number) =>
  z.array(item, 'must be a list').max(max, `must have at most ${max} entries`);

/** Names of parts. */
export const names = (
  title: string,
  max: number,
  lists: readonly PartListName[],
  more: More = {},
) =>
  field(
    list(idSchema(), max),
    plain(title, 'names', { refersTo: { lists, as: 'names' }, ...more }),
  );

/** Words that need be no part's names. */
export const wordList = <T extends z.ZodType>(
  title: string,
  item: T,
  max: number,
  more: More = {},
) => field(list(item, max), plain(title, 'names', more));

/** Anything else with what is known of it. */
export function known<T extends z.ZodType>(
  schema: T,
  meta: Partial<FieldMeta> & { title: string },
): T {
  fields.add(schema as z.ZodType, { name: meta.title, holds: 'text', unit: '', ...meta });
  return schema;
}
