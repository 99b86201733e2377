import { isObject, setAt, type Json } from '../record/plainJson';
import type { SweepPoint } from './fanSweep';

const rounded = (x: number) => Number(x.toFixed(1));

/**
 * Puts a sweep into the record, as measured, in place of the one there. Its levels are of the machine alone already, so that the
 * background of an older sweep must not be taken off once more; upper bounds are left out.
 *
 * @param draft the record, perhaps half typed
 * @param points of `fanSweep`
 */
export function takeSweep<T>(
  draft: T,
  points: readonly Pick<SweepPoint, 'rpm' | 'dbA' | 'plusMinus' | 'upperBound'>[],
): T {
  const sweep = points
    .filter((p) => !p.upperBound)
    .map(({ rpm, dbA, plusMinus }) => ({
      rpm,
      dbA: {
        value: rounded(dbA),
        plusMinus: rounded(Math.max(0.1, plusMinus)),
        origin: 'measured',
      },
    }));
  const noise = (draft as Json)['noise'];
  const { backgroundDbA: _, ...rest } = isObject(noise) ? noise : {};
  return setAt(draft, ['noise'], { ...rest, sweep });
}
