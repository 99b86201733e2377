import type { RecordIssue } from '../record/checkRecord';
import { schemaIssues } from '../record/parseRecord';
import type { CaseRecord } from '../record/recordSchema';
import type { LabDefaults } from '../record/resolver';
import { checkCount } from './checkCount';
import { countSchema, type Count } from './countSchema';
import { recordFromCount } from './recordFromCount';

export interface ParsedCount {
  /** The typed count, or null where its structure is wrong. */
  count: Count | null;
  issues: RecordIssue[];
  /** The complete record that follows from it, or null where something is missing or cannot be. */
  record: CaseRecord | null;
}

/**
 * Reads a count from parsed JSON, and makes its record.
 *
 * @param input anything
 * @param lab a laboratory's own defaults, for what was not counted
 * @returns the count with all that is wrong with it; never throws
 */
export function parseCount(input: unknown, lab: LabDefaults = {}): ParsedCount {
  const shape = countSchema.safeParse(input);
  if (!shape.success) return { count: null, issues: schemaIssues(shape.error), record: null };
  const count = shape.data as Count;
  const issues = checkCount(count);
  return { count, issues, record: issues.length ? null : recordFromCount(count, lab) };
}
