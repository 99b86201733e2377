import type { CaseRequest } from '@zugluft/core/case/openCase';
import type { Lever } from '@zugluft/core/levers/lever';
import {
  drawMachine,
  gainsOfChange,
  type DrawnMachine,
  type GainOptions,
  type LeverGain,
} from '@zugluft/core/levers/leverGains';

export interface LeverJob {
  request: CaseRequest;
  options: Omit<GainOptions, 'draws'>;
  /** Passes over all levers, each with so many draws: the first few are there at once. */
  passes: readonly number[];
  levers: readonly Pick<Lever, 'id' | 'change' | 'moves'>[];
}

/** What one lever brings by so many draws. */
export interface LeverPart {
  id: string;
  draws: number;
  at: LeverGain[];
}

/** Prepares a job of which an item is one lever in one of the passes, pass by pass. */
export function leverPart(job: LeverJob): (item: number) => LeverPart {
  let before: { draws: number; machine: DrawnMachine } | null = null;
  return (item) => {
    const draws = job.passes[Math.floor(item / job.levers.length)]!;
    const lever = job.levers[item % job.levers.length]!;
    const options = { ...job.options, draws };
    if (before?.draws !== draws) before = { draws, machine: drawMachine(job.request, options) };
    return { id: lever.id, draws, at: gainsOfChange(before.machine, lever, options) };
  };
}

/**
 * Those of some gains that are made of more draws than any told before for their lever.
 *
 * @param most draws told so far, by lever; overwritten
 */
export function betterOf(all: readonly LeverPart[], most: Map<string, number>): LeverPart[] {
  return all.filter(({ id, draws }) => {
    if (draws <= (most.get(id) ?? 0)) return false;
    most.set(id, draws);
    return true;
  });
}
