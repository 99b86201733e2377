import { foretellByOthers } from '../numerics/foretellByOthers';
import type { WorkDone } from './workDone';

/** What another machine did under a load of the same name. */
export interface DoneElsewhere {
  machineId: string;
  watts: number;
  done: number;
  unit: WorkDone['unit'];
}

/** What is usual at some watts; refused where too few machines ran the same load. */
export type UsualDone =
  | { refused: true; machines: number; needs: number }
  | { refused: false; machines: number; p05: number; p50: number; p95: number };

/** Of the same class are watts within this factor (common practice, no source). */
export const SAME_CLASS = 1.15;
/** Machines for each coefficient, so that the errors mean something (common practice, no source). */
const PER_COEFFICIENT = 3;

/**
 * What is usual under a load for a class of watts: of each other machine the run nearest in watts counts. From six machines on whose
 * watts lie about these, `ln done = b₀ + b₁ ln W` over all of them; with fewer the mean of the three or more of the same class. The band
 * is that of one more machine.
 *
 * @param own watts, > 0, and the unit of what was done
 * @param elsewhere runs of other machines under a load of the same name
 */
export function usualDone(
  { watts, unit }: Pick<WorkDone, 'watts' | 'unit'>,
  elsewhere: readonly DoneElsewhere[],
): UsualDone {
  const nearest = new Map<string, DoneElsewhere>();
  const away = (d: DoneElsewhere) => Math.abs(Math.log(d.watts / watts));
  for (const d of elsewhere) {
    if (d.unit !== unit || !(d.watts > 0) || !(d.done > 0)) continue;
    const before = nearest.get(d.machineId);
    if (!before || away(d) < away(before)) nearest.set(d.machineId, d);
  }
  const all = [...nearest.values()];
  const same = all.filter((d) => away(d) <= Math.log(SAME_CLASS));
  const lowest = Math.min(...all.map((d) => d.watts));
  const highest = Math.max(...all.map((d) => d.watts));
  const isAmong = watts * SAME_CLASS >= lowest && watts <= highest * SAME_CLASS;
  const isSpread = highest > lowest * SAME_CLASS;
  const byWatts = isAmong && isSpread && all.length >= 2 * PER_COEFFICIENT;
  const used = byWatts ? all : same;
  if (used.length < PER_COEFFICIENT)
    return { refused: true, machines: same.length, needs: PER_COEFFICIENT };
  const row = (w: number) => (byWatts ? [1, Math.log(w)] : [1]);
  const { p05, p50, p95 } = foretellByOthers(
    used.map((d) => row(d.watts)),
    used.map((d) => d.done),
    row(watts),
  );
  return { refused: false, machines: used.length, p05, p50, p95 };
}
