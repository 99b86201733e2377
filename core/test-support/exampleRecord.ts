import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { CaseRecord } from '../record/recordSchema';
import { parseRecord } from '../record/parseRecord';

/** An example record by file name, checked to be complete. */
export function exampleRecord(
  name: 'two-fan-shared-pipes' | 'four-fan-eight-pipes' | 'one-die',
): CaseRecord {
  const file = join(__dirname, '../../examples', `${name}.json`);
  return completeRecord(JSON.parse(readFileSync(file, 'utf8')));
}

/** Reads a record and throws with its first issue where it is not complete. */
export function completeRecord(input: unknown): CaseRecord {
  const { record, issues, complete } = parseRecord(input);
  if (!record || !complete) {
    throw new Error(issues.map((i) => `${i.path}: ${i.message}`).join('; '));
  }
  return record;
}
