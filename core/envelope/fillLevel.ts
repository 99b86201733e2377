import type { CaseData } from '../record/caseData';
import { machineLevelDbA } from '../sound/machineLevel';
import { speeds } from './fanStates';

/** How far the others may be made faster. */
const MOST = 4;

/**
 * Duties of fans that are controlled apart, the others scaled alike so that a level is used up while one group's duty stays.
 *
 * @param data the case
 * @param groups of fans that are set together
 * @param duties of the groups
 * @param kept the group that stays; −1: none, all are scaled
 * @param levelDbA what must not be passed
 * @param bisections how finely it is used up
 * @returns null where the group that stays is too loud alone
 */
export function fillLevel(
  data: CaseData,
  groups: readonly number[][],
  duties: readonly number[],
  kept: number,
  levelDbA: number,
  bisections: number,
): number[] | null {
  const scaled = (scale: number) => duties.map((d, g) => (g === kept ? d : Math.min(1, d * scale)));
  const fits = (of: readonly number[]) =>
    (machineLevelDbA(data, speeds(data, groups, of)) ?? -Infinity) <= levelDbA;
  if (!fits(scaled(0))) return null;
  if (fits(scaled(MOST))) return scaled(MOST);
  let lo = 0;
  let hi = MOST;
  for (let i = 0; i < bisections; i++) {
    const mid = 0.5 * (lo + hi);
    if (fits(scaled(mid))) lo = mid;
    else hi = mid;
  }
  return scaled(lo);
}
