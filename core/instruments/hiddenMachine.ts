import { multipliersOf, valuesAt } from '../calibration/multipliers';
import { openCase, type OpenCase } from '../case/openCase';
import type { CaseRecord } from '../record/recordSchema';
import { normalQuantile } from '../uncertainty/normal';
import { randomStream } from '../uncertainty/random';

/** No stranger than seven machines of ten are. */
const USUAL = { from: 0.15, span: 0.7 };

/**
 * A machine as it really is: every figure that its record leaves open is drawn from its prior, and hidden.
 *
 * @param record as recorded, perhaps with a fault
 * @param seed the same seed draws the same machine
 * @param setting its setting; the first by default
 */
export function hiddenMachine(record: CaseRecord, seed: number, setting?: string): OpenCase {
  const next = randomStream(seed);
  const parameters = multipliersOf(openCase({ record }));
  const overrides = valuesAt(
    parameters,
    parameters.map(() => normalQuantile(USUAL.from + USUAL.span * next())),
  );
  return openCase({ record, setting, overrides });
}
