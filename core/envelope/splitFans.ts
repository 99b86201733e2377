import type { MachineModel } from '../network/networkModel';
import type { Carried } from './carried';
import { goldenSection } from '../numerics/goldenSection';
import { controlGroups, fanState, type FanState } from './fanStates';
import { fillLevel } from './fillLevel';

const ROUNDS = 2;
const STEPS = 8;
const BISECTIONS = 30;

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
  const cap = loudest.levelDbA ?? -Infinity;
  const withOthers = (duties: readonly number[], group: number, duty: number) =>
    fillLevel(
      data,
      groups,
      duties.map((d, g) => (g === group ? duty : d)),
      group,
      cap,
      BISECTIONS,
    );
  let best = start;
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
      const least = Math.min(...groups[g]!.map((i) => data.fans[i]!.minRpm / data.fans[i]!.maxRpm));
      goldenSection(tryDuty, least, 1, STEPS);
    }
    if (best.point.watts <= before * (1 + 1e-5)) break;
  }
  return best;
}
