import { plural } from '../record/plural';
import type { UsualDone } from './usualDone';
import { inDigits, type WorkDone } from './workDone';

/** Whether something done is more or less than is usual: only what lies outside the band is either. */
export function againstUsual(done: number, usual: { p05: number; p95: number }): string {
  if (done > usual.p95) return 'more than usual';
  if (done < usual.p05) return 'less than usual';
  return 'as usual';
}

/** “8,900 to 10,100, as usual; 7 machines”. */
export const usualText = (
  { done, unit }: Pick<WorkDone, 'done' | 'unit'>,
  usual: UsualDone & { refused: false },
): string => {
  const digits = unit === 'points' ? 0 : 1;
  return `${inDigits(usual.p05, digits)} to ${inDigits(usual.p95, digits)}, ${againstUsual(done, usual)}; ${plural(usual.machines, 'machine')}`;
};
