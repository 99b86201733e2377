import { leastSteps, type Way } from '../service/leastSteps';
import type { OpenUpLog } from '../service/openUpLog';
import type { Lever } from './lever';

/** Stands for reaching everything at once; no step of a log is called so. */
const ALL = ' all';

/**
 * The least way of one opening that reaches what all of some levers need.
 *
 * @param levers those that are pulled
 * @param log of an opening; null: none is there
 * @returns null where no log tells the way to one of them
 * @example planWay([clean, renew], log)?.steps
 */
export function planWay(levers: readonly Pick<Lever, 'goal'>[], log: OpenUpLog | null): Way | null {
  const goals = [...new Set(levers.flatMap((l) => (l.goal === null ? [] : [l.goal])))];
  if (goals.length === 0) return NO_WAY;
  if (!log) return null;
  const { steps } = log;
  const ends = goals.map((goal) => steps.filter((s) => s.reaches.includes(goal)).map((s) => s.id));
  if (ends.some((e) => e.length === 0)) return null;
  const all = { id: ALL, needs: ends, reaches: [ALL], screws: [] };
  const way = leastSteps([...steps, all], ALL);
  return way && { ...way, steps: way.steps.filter((id) => id !== ALL) };
}

const NO_WAY: Way = {
  steps: [],
  screws: [],
  tools: [],
  consumables: [],
  cautions: [],
  seconds: 0,
  timed: 0,
  proven: true,
};
