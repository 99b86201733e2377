import type { Cap } from '../envelope/fanStates';
import { openCase, type OpenCase } from './openCase';
import { sustainedTogether } from './sustainedTogether';

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
 * @param open the case
 * @param cap the cap
 */
export function stripStates({ record, request }: OpenCase, cap: Cap): StripStates[] {
  const strips = record.strips ?? [];
  const watts = (id: string, state: 'present' | 'removed') => {
    const changed = { ...record, strips: strips.map((s) => (s.id === id ? { ...s, state } : s)) };
    return sustainedTogether(openCase({ ...request, record: changed }), [cap])[0]!;
  };
  return strips.map((s) => ({
    id: s.id,
    presentW: watts(s.id, 'present'),
    removedW: watts(s.id, 'removed'),
  }));
}
