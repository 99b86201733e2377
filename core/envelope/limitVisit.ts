/** Limits as numbers while they are looked through: their place in `LIMITS`. */
export const JUNCTION = 0;
export const PIPE = 1;
export const CHAMBER = 2;
export const SKIN = 3;
export const EXHAUST = 4;
export const FIRMWARE = 5;
export const ADAPTER = 6;
export const NO_FAILURE = -1;

/** Takes one half-plane; limit, part and failure as numbers, so that looking costs nothing. */
export type Visit = (
  cpu: number,
  gpu: number,
  headroom: number,
  limit: number,
  part: number,
  kind: number,
) => void;
