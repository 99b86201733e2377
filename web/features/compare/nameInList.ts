import type { Machine } from '../../api/machines';
import type { Draft } from '../../documents/record/draft';
import { machineName } from '../../documents/record/machineName';

/** Maker, model, variant and state, as far as they tell machines apart. */
export function nameInList(m: Pick<Machine, 'record' | 'stateName'>): string {
  const { name, variant } = machineName(m.record as Draft);
  return [name, variant, m.stateName === 'as found' ? '' : m.stateName].filter(Boolean).join(', ');
}
