import type { MachineModel } from '../network/networkModel';
import { better, type Carried } from './carried';
import { goldenSection } from '../numerics/goldenSection';
import { fanNoise, fillNoise, leastStart, noiseSum } from './fanNoise';
import { controlGroups, fanState, type FanState } from './fanStates';

const ROUNDS = 2;
const STEPS = 8;

/**
 * The best split of one level between fans that are controlled apart: each group in turn is made faster or slower, or
 * stopped, and the others take what level is left, until a round brings nothing.
 *
 * @param model a machine with two or more groups
 * @param loudest the common state whose level is not passed; at full speed there is nothing to trade
 * @param start the best common state
 * @param solve what a state carries
 * @returns the best found, never worse than the start
 */
export function bestSplit(
  model: MachineModel,
  loudest: FanState,
  start: Carried,
  solve: (state: FanState) => Carried,
): Carried {
  const { data } = model;
  const groups = controlGroups(data);
  const noise = fanNoise(data, groups);
  const most = noiseSum(noise, loudest.duties);
  const floors = groups.map((_, g) => leastStart(noise, g));
  const withOthers = (duties: readonly number[], group: number, duty: number): number[] | null => {
    const wanted = duties.map((d, g) => (g === group ? duty : d));
    const out: number[] = [];
    // none of the others is stopped, unless the level is too low for all of them
    if (fillNoise(noise, wanted, most, out, group, floors)) return out;
    return fillNoise(noise, wanted, most, out, group) ? out : null;
  };
  let best = start;
  // a level at which the common duty lets some stand still may be enough for all of them
  if (loudest.rpms.some((rpm) => rpm === 0)) {
    const all = withOthers(loudest.duties, -1, 0);
    if (all) best = better(best, solve(fanState(data, all)));
  }
  for (let round = 0; round < ROUNDS; round++) {
    const before = best.point.watts;
    for (let g = 0; g < groups.length; g++) {
      const duties = best.state.duties.map((d) => Math.max(d, 0.05));
      const tryDuty = (duty: number): number => {
        const split = withOthers(duties, g, duty);
        if (!split) return -Infinity;
        const found = solve(fanState(data, split));
        if (found.point.watts > best.point.watts * (1 + 1e-6)) best = found;
        return found.point.watts;
      };
      tryDuty(0);
      goldenSection(tryDuty, floors[g]!, 1, STEPS);
    }
    if (best.point.watts <= before * (1 + 1e-5)) break;
  }
  return best;
}
