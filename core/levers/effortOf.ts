import { leastSteps } from '../service/leastSteps';
import type { OpenUpLog } from '../service/openUpLog';
import type { Effort, Lever } from './lever';

const NOTHING: Effort = { steps: 0, screws: 0, minutes: 0, cost: null };
const UNKNOWN: Effort = { steps: null, screws: null, minutes: null, cost: null };

/**
 * What pulling a lever takes by the log of an opening: the least steps to what has to be reached, their screws and their time.
 *
 * @param lever the lever
 * @param log of an opening; null: none is there
 */
export function effortOf({ goal }: Pick<Lever, 'goal'>, log: OpenUpLog | null): Effort {
  if (goal === null) return NOTHING;
  if (!log) return UNKNOWN;
  const way = leastSteps(log.steps, goal);
  if (!way) return UNKNOWN;
  // there and back takes about twice; only what was timed is told
  const minutes = way.seconds === null ? null : Math.round((2 * way.seconds) / 60);
  return { steps: way.steps.length, screws: way.screws.length, minutes, cost: null };
}
