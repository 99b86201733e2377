import type { Upkeep } from '../levers/upkeep';
import type { CautionId } from '../service/cautions';

/** Care that is due, in months from now. */
export interface Care {
  what: 'fans' | 'paste' | 'battery' | 'hinges';
  fromMonths: number;
  toMonths: number;
  /** Of this machine, or what is usual for all. */
  from: 'computed' | 'usual';
  caution: CautionId | null;
}

/** Usual spans in months (common practice, no source). */
const USUAL: Readonly<Record<Care['what'], readonly [number, number]>> = {
  fans: [12, 18],
  paste: [24, 36],
  battery: [24, 36],
  hinges: [18, 18],
};
const CAUTION: Readonly<Record<Care['what'], CautionId | null>> = {
  fans: 'compressed-air',
  paste: 'alcohol',
  battery: 'battery',
  hinges: null,
};

/**
 * When care is next due. For fans and paste from the machine's own upkeep where that was computed and ends within what is looked at,
 * else and for all else what is usual, less the years that the machine already has.
 *
 * @param upkeep of the machine, or null
 * @param ageMonths since the last care of each; absent: unknown, taken as new
 */
export function careDue(
  upkeep: Upkeep | null,
  ageMonths: Partial<Record<Care['what'], number>> = {},
): Care[] {
  return (Object.keys(USUAL) as Care['what'][]).map((what) => {
    const caution = CAUTION[what];
    const pays =
      what === 'fans' ? upkeep?.dust?.pays : what === 'paste' ? upkeep?.paste?.pays : undefined;
    if (pays && pays.p05 !== null && pays.p95 !== null) {
      return {
        what,
        fromMonths: Math.round(12 * pays.p05),
        toMonths: Math.round(12 * pays.p95),
        from: 'computed',
        caution,
      };
    }
    const left = (months: number) => Math.max(0, months - Math.round(ageMonths[what] ?? 0));
    return {
      what,
      fromMonths: left(USUAL[what][0]),
      toMonths: left(USUAL[what][1]),
      from: 'usual',
      caution,
    };
  });
}

const span = (months: number): string =>
  months < 24 ? `${months} months` : `${Math.round(months / 12)} years`;

/** “fans now”, “paste in 2 to 3 years”, “battery in 11 to 30 months”. */
export function careWords({ what, fromMonths, toMonths, from }: Care): string {
  const usual = from === 'usual' ? ' (usual)' : '';
  if (toMonths <= 0) return `${what} now${usual}`;
  if (fromMonths <= 0) return `${what} within ${span(toMonths)}${usual}`;
  if (fromMonths === toMonths) return `${what} in ${span(toMonths)}${usual}`;
  const [a, b] = [span(fromMonths), span(toMonths)];
  const [low, unit] = a.split(' ');
  return b.endsWith(unit!)
    ? `${what} in ${low} to ${b}${usual}`
    : `${what} in ${a} to ${b}${usual}`;
}
