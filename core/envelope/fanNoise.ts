import type { CaseData } from '../record/caseData';
import { relativeSound } from '../sound/fanLevel';

/**
 * What the fans of a machine add to its sound, for looking at many duties. The level, measured or computed, rises with
 * `Σ wᵢ dᵢ⁵` and with nothing else, so that two states are as loud as each other where these sums are alike.
 */
export interface FanNoise {
  /** Sound of each fan at full speed; what all have in common does not count. */
  weights: Float64Array;
  /** The duty below which a fan stands still. */
  leastDuty: Float64Array;
  /** Fans that are set together. */
  groups: readonly (readonly number[])[];
}

/** The sum may be passed by this share: what rounding leaves. */
const ROUNDING = 1e-10;
/** How far the others may be made faster. */
const MOST = 4;
const BISECTIONS = 36;

/** @param groups from `controlGroups` */
export function fanNoise(data: CaseData, groups: readonly (readonly number[])[]): FanNoise {
  const weights = Float64Array.from(data.fans, (f) =>
    relativeSound(f.diameterM, f.bladeHeightM, f.maxRpm),
  );
  const leastDuty = Float64Array.from(data.fans, (f) => (f.minRpm / f.maxRpm) * (1 - 1e-12));
  return { weights, leastDuty, groups };
}

/** The duty at which the first fan of a group starts, a hair above, so that rounding does not stop it. */
export function leastStart({ groups, leastDuty }: FanNoise, group: number): number {
  let least = 1;
  for (const i of groups[group]!) least = Math.min(least, leastDuty[i]!);
  return least * (1 + 1e-9);
}

/** `Σ wᵢ dᵢ⁵` of one group of fans at a duty. */
function groupSum({ weights, leastDuty, groups }: FanNoise, group: number, duty: number): number {
  const fans = groups[group]!;
  const fifth = duty * duty * duty * duty * duty;
  let sum = 0;
  for (let k = 0; k < fans.length; k++) {
    const i = fans[k]!;
    if (duty >= leastDuty[i]!) sum += weights[i]! * fifth;
  }
  return sum;
}

/** `Σ wᵢ dᵢ⁵` with every group at a duty of its own, or all at one. */
export function noiseSum(noise: FanNoise, duties: readonly number[] | number): number {
  let sum = 0;
  for (let g = 0; g < noise.groups.length; g++) {
    sum += groupSum(noise, g, typeof duties === 'number' ? duties : duties[g]!);
  }
  return sum;
}

/**
 * Duties of fans that are controlled apart, scaled alike so that a level is used up.
 *
 * @param noise from {@link fanNoise}
 * @param duties of the groups
 * @param most what must not be passed, as `Σ wᵢ dᵢ⁵`
 * @param out overwritten with the scaled duties
 * @param kept a group that stays as it is; −1: none
 * @param floors least duty of each group; none: 0
 * @returns false where what stays is too loud alone
 * @example two equal fans at 1 and 0.5, as loud as both at 0.8: 1 is scaled to 0.9133, 0.5 to 0.4567
 */
export function fillNoise(
  noise: FanNoise,
  duties: readonly number[],
  most: number,
  out: number[],
  kept = -1,
  floors?: readonly number[],
): boolean {
  const limit = most * (1 + ROUNDING);
  let lo = 0;
  let hi = MOST;
  // where no fan starts, stops or comes to full speed on the way the sum follows the fifth power
  if (kept < 0) {
    const straight = (most / noiseSum(noise, duties)) ** 0.2;
    if (straight < MOST && fits(noise, duties, limit, out, kept, floors, straight)) {
      if (noiseSum(noise, out) >= most * (1 - ROUNDING)) return true;
    }
  }
  if (!fits(noise, duties, limit, out, kept, floors, lo)) return false;
  if (fits(noise, duties, limit, out, kept, floors, hi)) return true;
  for (let i = 0; i < BISECTIONS; i++) {
    const mid = 0.5 * (lo + hi);
    if (fits(noise, duties, limit, out, kept, floors, mid)) lo = mid;
    else hi = mid;
  }
  return fits(noise, duties, limit, out, kept, floors, lo);
}

function fits(
  noise: FanNoise,
  duties: readonly number[],
  limit: number,
  out: number[],
  kept: number,
  floors: readonly number[] | undefined,
  scale: number,
): boolean {
  let sum = 0;
  for (let g = 0; g < duties.length; g++) {
    let duty = duties[g]!;
    if (g !== kept) duty = Math.min(1, Math.max(duty * scale, floors ? floors[g]! : 0));
    out[g] = duty;
    sum += groupSum(noise, g, duty);
  }
  return sum <= limit;
}
