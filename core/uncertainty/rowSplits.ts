import { speeds } from '../envelope/fanStates';
import { fillLevel } from '../envelope/fillLevel';
import { fanPower } from '../network/steadyState';
import type { MachineModel } from '../network/networkModel';
import { goldenSection } from '../numerics/goldenSection';
import { machineLevelDbA } from '../sound/machineLevel';
import { take, type Found } from './rowFound';

/** How far a group's duty is moved to see how a split may be bettered. */
const SPLIT_STEP = 0.15;
/** How far a split may move from the start, as a logarithm of duty, and the steps of the search. */
const WIDEST = 0.7;
const SPLIT_STEPS = 6;
const BISECTIONS = 24;

/**
 * Fans controlled apart: the split that is best at the central values at this row's level, then each group a step slower and
 * faster with the others taking what level is left, then further the way that helps or to the vertex of the parabola through
 * the three.
 */
export function trySplits(
  model: MachineModel,
  groups: number[][],
  duty: number,
  shares: readonly number[],
  solve: (rpms: readonly number[]) => number,
  held: () => number,
  found: Found,
): void {
  const { data } = model;
  const together = speeds(
    data,
    groups,
    groups.map(() => duty),
  );
  const capDbA = machineLevelDbA(data, together) ?? -Infinity;
  const at = (duties: readonly number[]): number => {
    const rpms = speeds(data, groups, duties);
    const watts = solve(rpms);
    take(found, watts, held(), fanPower(model, rpms));
    return watts;
  };
  const filled = (duties: readonly number[], kept: number) =>
    fillLevel(data, groups, duties, kept, capDbA + 1e-9, BISECTIONS);
  let best = shares.map((s) => Math.min(1, s * duty));
  if (best.every((d) => d === 0)) return;
  // as loud as the cap allows in this row
  best = filled(best, -1) ?? best;
  let most = at(best);
  for (let g = 0; g < groups.length; g++) {
    if (!(best[g]! > 0)) continue;
    const from = best;
    const tryAt = (factor: number): { duties: number[]; watts: number } | null => {
      const duties = filled(
        from.map((d, k) => (k === g ? Math.min(1, d * factor) : d)),
        g,
      );
      if (!duties) return null;
      const watts = at(duties);
      if (watts > most) {
        most = watts;
        best = duties;
      }
      return { duties, watts };
    };
    const start = most;
    const down = tryAt(1 - SPLIT_STEP);
    const up = from[g]! < 1 ? tryAt(1 + SPLIT_STEP) : null;
    const way = down && down.watts > start ? -1 : up && up.watts > start ? 1 : 0;
    if (way !== 0) {
      // the best lies further on, often at a kink where another limit takes over
      goldenSection((x) => tryAt(Math.exp(way * x))?.watts ?? -1, 0, WIDEST, SPLIT_STEPS);
    } else if (down && up) {
      const bend = down.watts - 2 * start + up.watts;
      const shift = bend < 0 ? (0.5 * (down.watts - up.watts)) / bend : 0;
      if (Math.abs(shift) > 0.05) tryAt(1 + SPLIT_STEP * Math.min(2, shift));
    }
    // what one of two groups does not take is the other's, unless that turns at full speed already
    if (groups.length === 2 && duty < 1) return;
  }
}
