import type { CaseRecord } from '../record/recordSchema';
import { applyChanges, ImpossibleChange } from './applyChanges';
import type { Lever } from './lever';
import { leversOf } from './leversOf';

/**
 * Every lever of a machine with a change that can be computed, or none: one whose change comes to no complete record has it taken
 * away, and says why.
 *
 * @param record complete
 * @param setting that applies; the first by default
 */
export function possibleLevers(record: CaseRecord, setting?: string): Lever[] {
  return leversOf(record, setting).map((lever) => {
    try {
      applyChanges(record, lever.change, setting);
      return lever;
    } catch (cause) {
      if (!(cause instanceof ImpossibleChange)) throw cause;
      return { ...lever, change: [], possible: false, whyNot: lever.whyNot ?? cause.message };
    }
  });
}
