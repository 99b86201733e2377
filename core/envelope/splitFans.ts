import type { MachineModel } from '../network/networkModel';
import { machineLevelDbA } from '../sound/machineLevel';
import type { Carried } from './carried';
import { controlGroups, fanState, speeds, type FanState } from './fanStates';

const ROUNDS = 2;
const STEPS = 8;
const BISECTIONS = 30;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

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
  const level = (duties: readonly number[]) =>
    machineLevelDbA(data, speeds(data, groups, duties)) ?? -Infinity;
  /** The others scaled alike so that the level is used up, given one group's duty. */
  const withOthers = (duties: readonly number[], group: number, duty: number): number[] | null => {
    const at = (scale: number) =>
      duties.map((d, g) => (g === group ? duty : Math.min(1, d * scale)));
    if (level(at(0)) > cap) return null;
    let lo = 0;
    let hi = 4;
    if (level(at(hi)) <= cap) return at(hi);
    for (let i = 0; i < BISECTIONS; i++) {
      const mid = 0.5 * (lo + hi);
      if (level(at(mid)) <= cap) lo = mid;
      else hi = mid;
    }
    return at(lo);
  };
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
      let lo = Math.min(...groups[g]!.map((i) => data.fans[i]!.minRpm / data.fans[i]!.maxRpm));
      let hi = 1;
      let a = hi - GOLDEN * (hi - lo);
      let b = lo + GOLDEN * (hi - lo);
      let wa = tryDuty(a);
      let wb = tryDuty(b);
      for (let i = 0; i < STEPS; i++) {
        if (wa >= wb) {
          hi = b;
          b = a;
          wb = wa;
          a = hi - GOLDEN * (hi - lo);
          wa = tryDuty(a);
        } else {
          lo = a;
          a = b;
          wa = wb;
          b = lo + GOLDEN * (hi - lo);
          wb = tryDuty(b);
        }
      }
    }
    if (best.point.watts <= before * (1 + 1e-5)) break;
  }
  return best;
}
