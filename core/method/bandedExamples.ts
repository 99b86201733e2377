import { parseCount } from '../count/parseCount';
import { recordFromCount } from '../count/recordFromCount';
import { parseRecord } from '../record/parseRecord';
import type { CaseRecord } from '../record/recordSchema';

const RECORDS = ['two-fan-shared-pipes', 'four-fan-eight-pipes', 'one-die'];
const COUNT = 'count-two-fans';

/**
 * The examples whose bands stand in `docs/bands.md`.
 *
 * @param read JSON of an example by the name of its file
 */
export function bandedExamples(
  read: (file: string) => unknown,
): { name: string; record: CaseRecord }[] {
  return [
    ...RECORDS.map((name) => ({ name, record: parseRecord(read(`${name}.json`)).record! })),
    { name: COUNT, record: recordFromCount(parseCount(read(`${COUNT}.json`)).count!) },
  ];
}
