import type { Cap } from '@zugluft/core/envelope/fanStates';

/** The cap in the middle of those a laboratory works with: what stands where one has to be chosen. */
export function middleCap(caps: readonly Cap[]): Cap {
  const levels = caps.filter((c) => typeof c === 'number');
  return levels[Math.floor(levels.length / 2)] ?? 'full';
}

/** A cap at the head of a column: “at 36 dB(A)”. */
export function capHeading(cap: Cap): string {
  return typeof cap === 'number' ? `at ${cap} dB(A)` : cap === 'off' ? 'fans off' : 'full speed';
}
