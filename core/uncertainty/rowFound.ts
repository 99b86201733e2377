/** Watts along a ray that a draw settles to within this share. */
export const DRAW_TOLERANCE = 5e-4;
/** A slower state must carry more than this share more, so that the tolerance does not choose. */
export const CLEARLY = 1 + 2 * DRAW_TOLERANCE;

/** The best found so far along one ray. */
export interface Found {
  watts: number;
  held: number;
  fanW: number;
  /** The best state of the whole range of duty, once it was sought. */
  top: { duty: number; watts: number; held: number; fanW: number } | null;
}

/** Keeps what is clearly more than the best so far. */
export function take(found: Found, watts: number, held: number, fanW: number): void {
  if (watts <= found.watts * CLEARLY) return;
  found.watts = watts;
  found.held = held;
  found.fanW = fanW;
}
