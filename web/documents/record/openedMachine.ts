import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import type { BandedMachine } from '../../api/machines';
import type { Keeper } from '../keeper';

/** A machine as its page holds it: what was read of it, and the keeper of its record. */
export interface OpenedMachine {
  machine: BandedMachine;
  keeper: Keeper<CaseRecord>;
}
