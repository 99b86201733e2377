import { sustainedTogether } from '../estimate';
import type { CaseRecord } from '../record/recordSchema';
import type { LabDefaults } from '../record/resolver';
import type { Cap } from './fanStates';

/** A strip's two states at a cap: one school takes strips off for more air, the other leaves them to seal the duct. */
export interface StripStates {
  id: string;
  presentW: number;
  removedW: number;
}

/**
 * Watts together with each strip present and removed, the others as recorded. A strip whose purpose is to seal the duct opens
 * what it covers but lets air out before the fins.
 *
 * @param record a record that `parseRecord` found complete
 * @param cap the cap
 * @param lab a lab's own defaults
 */
export function stripStates(record: CaseRecord, cap: Cap, lab?: LabDefaults): StripStates[] {
  const strips = record.strips ?? [];
  const watts = (id: string, state: 'present' | 'removed') =>
    sustainedTogether(
      { ...record, strips: strips.map((s) => (s.id === id ? { ...s, state } : s)) },
      [cap],
      lab,
    )[0]!;
  return strips.map((s) => ({
    id: s.id,
    presentW: watts(s.id, 'present'),
    removedW: watts(s.id, 'removed'),
  }));
}
