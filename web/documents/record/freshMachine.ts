import type { NavigateFunction } from 'react-router';
import type { BandedMachine } from '../../api/machines';
import { expectField } from '../../kit/expectField';
import { emptyRecord } from './draft';

/** Machines that were begun in this page and that nobody typed into yet. */
const begun = new Set<string>();

/**
 * Goes to a new machine's file. Nothing is written until something is typed.
 *
 * @param step the page it begins with: its identity, or a quick count
 */
export function beginMachine(
  navigate: NavigateFunction,
  step: 'identify' | 'count' = 'identify',
): void {
  const id = crypto.randomUUID();
  begun.add(id);
  expectField();
  void navigate(`/machines/${id}/${step}`, { state: { fresh: true } });
}

/** Whether this page begun it and knows without asking that the server has none. */
export const isBegun = (id: string): boolean => begun.has(id);
export const nowMade = (id: string): void => void begun.delete(id);

/** A machine before its first revision. */
export function freshMachine(id: string): BandedMachine {
  const now = new Date(0).toISOString();
  return {
    id,
    revision: 0,
    record: emptyRecord() as BandedMachine['record'],
    complete: false,
    variantId: '',
    unit: { id: '', revision: 0, facts: {} },
    stateName: 'as found',
    createdAt: now,
    updatedAt: now,
    putAsideAt: null,
    bands: [],
  };
}
