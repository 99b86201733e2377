import type { Effort, Lever } from './lever';
import type { LeverGain } from './leverGains';

/** By what levers are put in order. */
export const RANKINGS = ['per-minute', 'gain', 'effort'] as const;
export type Ranking = (typeof RANKINGS)[number];

/** A lever with what it takes and, once that is computed, what it brings at a cap. */
export interface WeighedLever {
  lever: Lever;
  effort: Effort;
  gain: LeverGain | null;
}

/** Minutes that reaching a goal and closing again usually takes, where no log tells it (common practice, no source). */
const USUAL_MIN: Readonly<Record<string, number>> = {
  'clean-fans': 30,
  'renew-interface': 50,
};
const OTHER_MIN = 45;
/** What is opened by nothing takes as long as doing it. */
const LEAST_MIN = 1;

/** Minutes of a lever: those of the log, or what is usual. */
export function minutesOf({ lever, effort }: Pick<WeighedLever, 'lever' | 'effort'>): {
  minutes: number;
  usual: boolean;
} {
  if (lever.goal === null) return { minutes: LEAST_MIN, usual: false };
  if (effort.minutes !== null)
    return { minutes: Math.max(LEAST_MIN, effort.minutes), usual: false };
  return { minutes: USUAL_MIN[lever.goal] ?? OTHER_MIN, usual: true };
}

/**
 * Levers in order: those that can be pulled first, by the median watts per minute of work, by the median watts, or by the least
 * work; those with the same in the order they came. Where the watts are the same what is quieter counts, then what is cooler.
 *
 * @param levers as they come
 * @param by what they are put in order
 */
export function rankLevers(levers: readonly WeighedLever[], by: Ranking): WeighedLever[] {
  const keyed = levers.map((x, i) => ({ x, i, key: keysOf(x, by) }));
  keyed.sort((a, b) => {
    for (let k = 0; k < a.key.length; k++) {
      const d = b.key[k]! - a.key[k]!;
      if (d !== 0 && !Number.isNaN(d)) return d;
    }
    return a.i - b.i;
  });
  return keyed.map(({ x }) => x);
}

function keysOf(weighed: WeighedLever, by: Ranking): number[] {
  const { lever, gain } = weighed;
  const { minutes } = minutesOf(weighed);
  const watts = gain ? gain.wattsGained.p50 : -Number.MAX_VALUE;
  const first = by === 'gain' ? watts : by === 'effort' ? -minutes : perMinute(watts, minutes);
  return [
    lever.possible ? 1 : 0,
    gain ? 1 : 0,
    first,
    watts,
    gain?.dbSaved.p50 ?? 0,
    gain?.kelvinSaved.p50 ?? 0,
  ];
}

/** A loss is no less of one for taking long. */
const perMinute = (watts: number, minutes: number) =>
  watts > 0 ? watts / minutes : watts * minutes;
