import type { Cap } from '../envelope/fanStates';
import type { LabDefaults } from '../record/resolver';

/** What a laboratory has decided that a computation follows. */
export interface Laboratory {
  /** Its own defaults in place of the built-in ones. */
  defaults?: LabDefaults | undefined;
  /** The noise caps it works with, dB(A). */
  caps?: readonly number[] | undefined;
}

/** The caps of a laboratory that has set none, dB(A). */
export const USUAL_CAPS_DBA: readonly number[] = [28, 32, 36, 40, 45];
export const MIN_CAP_DBA = 15;
export const MAX_CAP_DBA = 70;
export const MAX_CAPS = 12;

/**
 * Every cap that a laboratory is answered for: fans off, its own from the quietest up, full speed.
 *
 * @example capsOf({ caps: [40, 30] }) // ['off', 30, 40, 'full']
 */
export function capsOf(lab: Laboratory = {}): Cap[] {
  const levels = lab.caps?.length ? lab.caps : USUAL_CAPS_DBA;
  return ['off', ...[...new Set(levels)].sort((a, b) => a - b), 'full'];
}
