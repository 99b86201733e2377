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

/** The two-fan example with a loop for each die: neither pipe passes the other's plate. */
export function twoLoopRecord(): CaseRecord {
  const record = structuredClone(exampleRecord('two-fan-shared-pipes'));
  const pipe = { diameterMm: 8, flattenedMm: 3, lengthMm: 180 };
  record.heatPipes = [
    { id: 'pipe-l', ...pipe, along: [{ part: 'fins-left' }, { part: 'plate-cpu' }] },
    { id: 'pipe-r', ...pipe, along: [{ part: 'plate-gpu' }, { part: 'fins-right' }] },
  ];
  return record;
}
