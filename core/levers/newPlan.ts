import type { Cap } from '../envelope/fanStates';
import type { OpenUpLog } from '../service/openUpLog';
import type { Lever } from './lever';
import type { LeverGain } from './leverGains';
import { planSteps } from './planSteps';
import type { LeverPlan } from './plansDocument';

/** What a new plan is made of. */
export interface PlanMade {
  id: string;
  madeAt: string;
  levers: readonly Lever[];
  /** What they bring together at the cap. */
  gain: LeverGain;
  cap: Cap;
  recordRevision: number;
  setting: string | null;
  calibration: number | null;
  log: OpenUpLog | null;
}

/** A plan of some levers: its promise as it is told now, its steps in the least order. */
export function newPlan({ levers, gain, log, ...made }: PlanMade): LeverPlan {
  const { wattsGained, dbSaved, kelvinSaved, chanceNoticeable, tooSmallToFeel } = gain;
  return {
    ...made,
    levers: levers.map(({ id, name, change, moves }) => ({
      id,
      name,
      change: change.map(({ path, to }) => ({ path, to })),
      moves,
    })),
    promised: {
      wattsGained: { ...wattsGained },
      dbSaved: { ...dbSaved },
      kelvinSaved: { ...kelvinSaved },
      chanceNoticeable,
      tooSmallToFeel,
    },
    steps: planSteps(levers, log),
  };
}
