import type { Cap } from '@zugluft/core/envelope/fanStates';

/** The cap in the middle of those a laboratory works with: what stands where one has to be chosen. */
export function middleCap(caps: readonly Cap[]): Cap {
  const levels = caps.filter((c) => typeof c === 'number');
  return levels[Math.floor(levels.length / 2)] ?? 'full';
}

/** A cap in a sentence: “at 36 dB(A)”. */
export function atCap(cap: Cap): string {
  return typeof cap === 'number' ? `at ${cap} dB(A)` : cap === 'off' ? 'fans off' : 'at full speed';
}

/** Watts of both dies together at a cap, at the head of a column. */
export function togetherAt(cap: Cap): string {
  return `together ${atCap(cap)}`;
}
