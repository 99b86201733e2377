import type { z } from 'zod';
import { checkRecord, type RecordIssue } from './checkRecord';
import { fieldPath } from './figure';
import { recordSchema, type CaseRecord } from './recordSchema';

export interface ParsedRecord {
  /** The typed record, or null where its structure is wrong. */
  record: CaseRecord | null;
  issues: RecordIssue[];
  /** May be kept: nothing in it is malformed or impossible. */
  keepable: boolean;
  /** Can be estimated: keepable, complete and connected. */
  complete: boolean;
}

/** Turns Zod's issues into paths and words. */
export function schemaIssues(error: z.ZodError): RecordIssue[] {
  return error.issues.map((issue) => ({
    kind: 'impossible',
    path: fieldPath(issue.path.map(String).join('.')),
    message: issue.message,
  }));
}

/**
 * Reads a record from parsed JSON: structure and bounds, then contradictions, gaps and loose parts.
 *
 * @param input anything
 * @returns the record with all that is wrong with it; never throws
 */
export function parseRecord(input: unknown): ParsedRecord {
  const shape = recordSchema.safeParse(input);
  if (!shape.success) {
    return { record: null, issues: schemaIssues(shape.error), keepable: false, complete: false };
  }
  const issues = checkRecord(shape.data);
  return {
    record: shape.data,
    issues,
    keepable: !issues.some((i) => i.kind === 'impossible'),
    complete: issues.length === 0,
  };
}
