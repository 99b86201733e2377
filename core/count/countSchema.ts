import { z } from 'zod';
import { explainNumber, figure, type Figure } from '../record/figure';
import { INTERFACE_KINDS } from '../record/partSchema';
import { SHELL_MATERIALS } from '../record/recordSchema';
import {
  COUNT_FIELDS,
  COUNT_FIELD_NAMES,
  type CountField,
  type CountFieldName,
} from './countFields';

const word = () => z.string().max(200, 'must be at most 200 characters').nullish();

function schemaOf({ bounds, parts }: CountField): z.ZodType<Figure | null | undefined> {
  if (!parts) return figure(bounds).nullish();
  const error = (issue: { input?: unknown }) =>
    explainNumber(issue.input, bounds) ?? 'must be a whole number';
  return z.int({ error }).min(bounds.min!, { error }).max(bounds.max, { error }).nullish();
}

const figures = Object.fromEntries(
  COUNT_FIELD_NAMES.map((name) => [name, schemaOf(COUNT_FIELDS[name])]),
) as Record<CountFieldName, z.ZodType<Figure | null | undefined>>;

/**
 * What can be counted on an opened machine, all optional but the fans, their diameter and the fins; `null` is absent. Fields
 * that are not known survive.
 */
export const countSchema = z.looseObject({
  format: z.literal('zugluft-count', { error: 'must be “zugluft-count”' }),
  formatVersion: z.literal(1, { error: 'must be 1' }),
  maker: word(),
  model: word(),
  variant: word(),
  year: figure({ min: 1980, max: 2100 }).nullish(),
  ...figures,
  /** Of the shell. */
  material: z
    .enum(SHELL_MATERIALS, { error: `must be one of ${SHELL_MATERIALS.join(', ')}` })
    .nullish(),
  chamber: z.boolean({ error: 'must be true or false' }).nullish(),
  interface: z
    .enum(INTERFACE_KINDS, { error: `must be one of ${INTERFACE_KINDS.join(', ')}` })
    .nullish(),
});

export type Count = z.infer<typeof countSchema>;

/** A count before anything is counted. */
export const blankCount = (): Count => ({ format: 'zugluft-count', formatVersion: 1 }) as Count;

/** Whether something read from JSON says that it is a count. */
export function isCount(input: unknown): boolean {
  return (
    typeof input === 'object' &&
    input !== null &&
    (input as { format?: unknown }).format === 'zugluft-count'
  );
}
