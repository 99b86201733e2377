import { fillNoise, leastStart, type FanNoise } from '../envelope/fanNoise';

/** Looks at a split for some rays; what each carries in it, W. */
export type TrySplit = (duties: readonly number[], of: readonly boolean[]) => Float64Array;

/** What is tried of a group: shares of its duty; −1 for its least speed. */
const TURNING = [0, -1, 0.8, 1.25, 4] as const;
const ROUNDS = 2;

/**
 * Seeks which groups of fans should turn, where that may not be as at the central values: some of them stopped, one at a time;
 * then along each ray for which that is better than what is known every group stopped, at its least speed, slower, faster and at
 * full speed, the others as loud as they may be, and the best kept, until a round brings nothing. What was tried is told by `look`
 * alone.
 *
 * @param rays how many
 */
export function createTurningSearch(rays: number) {
  const duties: number[] = [];
  const asked: number[] = [];
  const floors: number[] = [];
  const one: boolean[] = new Array<boolean>(rays).fill(false);
  const best = new Float64Array(rays);
  const kept: number[][] = Array.from({ length: rays }, () => []);

  /**
   * @param most sum of noise allowed, see `noiseSum`
   * @param shares duty of each group in the split to begin with, over a common duty
   * @param of the rays
   * @param stops groups stopped to begin with; −1: none
   * @param known what each ray carries without that, W
   */
  return (
    noise: FanNoise,
    most: number,
    shares: readonly number[],
    of: readonly boolean[],
    stops: readonly number[],
    known: Float64Array,
    look: TrySplit,
  ): void => {
    const groups = shares.length;
    // others that are asked to turn are not stopped, unless there is no other way
    const fill = (group: number): boolean => {
      let any = 0;
      for (let g = 0; g < groups; g++) any += asked[g]!;
      if (!(any > 0)) return false;
      for (let g = 0; g < groups; g++) {
        floors[g] = g !== group && asked[g]! > 0 ? leastStart(noise, g) : 0;
      }
      return (
        fillNoise(noise, asked, most, duties, group, floors) ||
        fillNoise(noise, asked, most, duties, group)
      );
    };
    const tryFor = (some: readonly boolean[]): boolean => {
      const watts = look(duties, some);
      let better = false;
      for (let r = 0; r < rays; r++) {
        if (!some[r] || !(watts[r]! > best[r]!)) continue;
        best[r] = watts[r]!;
        for (let g = 0; g < groups; g++) kept[r]![g] = duties[g]!;
        better = true;
      }
      return better;
    };
    for (let r = 0; r < rays; r++) {
      best[r] = known[r]!;
      kept[r]!.length = 0;
    }
    for (const stopped of stops) {
      for (let g = 0; g < groups; g++) asked[g] = g === stopped ? 0 : shares[g]!;
      if (fill(-1)) tryFor(of);
    }
    for (let r = 0; r < rays; r++) {
      if (kept[r]!.length === 0) continue;
      for (let k = 0; k < rays; k++) one[k] = k === r;
      for (let round = 0, better = true; round < ROUNDS && better; round++) {
        better = false;
        for (let g = 0; g < groups; g++) {
          for (const ratio of TURNING) {
            for (let k = 0; k < groups; k++) asked[k] = kept[r]![k]!;
            asked[g] = Math.min(1, ratio < 0 ? leastStart(noise, g) : asked[g]! * ratio);
            if (fill(g) && tryFor(one)) better = true;
          }
        }
      }
    }
  };
}
