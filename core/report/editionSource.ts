import { z } from 'zod';
import { parseRecord } from '../record/parseRecord';
import { articleSchema } from './article';
import type { EditionSource } from './edition';
import { UNIT_SYSTEMS } from './quantity';

const words = (most: number) => z.string().max(most);
const figure = z.object({
  figure: words(200),
  cap: words(40),
  unit: words(40),
  p05: z.number().nullable(),
  value: z.number(),
  p95: z.number().nullable(),
  from: z.enum(['computed', 'calibrated', 'measured', 'log', 'usual']),
});
const sourceSchema = z.object({
  headline: words(5000),
  figures: z.array(figure).max(5000),
  conditions: z.array(z.object({ name: words(200), value: words(5000) })).max(500),
  record: z.unknown(),
  article: articleSchema,
  program: words(100),
  cap: words(40),
  setting: words(200).nullable(),
  ratio: words(40).nullish(),
  units: z.enum(UNIT_SYSTEMS),
});

/**
 * Reads what an edition said, as another library wrote it.
 *
 * @param input a value from outside
 * @returns the source, marked as brought in, or what is wrong with it in one line
 */
export function readEditionSource(input: unknown): { source: EditionSource } | { problem: string } {
  const read = sourceSchema.safeParse(input);
  if (!read.success) {
    const { path, message } = read.error.issues[0]!;
    return { problem: `${path.join('.') || 'it'}: ${message}` };
  }
  const { record, issues, keepable } = parseRecord(read.data.record);
  if (!record || !keepable) {
    return { problem: `record.${issues[0]?.path ?? ''}: ${issues[0]?.message ?? 'is no record'}` };
  }
  return { source: { ...read.data, record, imported: true } };
}
