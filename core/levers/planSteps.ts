import { plural } from '../record/plural';
import { cautionsOf, type CautionId } from '../service/cautions';
import type { OpenUpLog } from '../service/openUpLog';
import type { Lever } from './lever';
import { planWay } from './planWay';
import type { LeverPlan } from './plansDocument';

type PlanStep = LeverPlan['steps'][number];

/**
 * What is done at the bench for some levers, in order: the run before, the least way in, each lever where it is reached, the way back,
 * the run after.
 *
 * @param levers those of the plan
 * @param log of an opening; null: its way in is not known and stands as one step
 */
export function planSteps(levers: readonly Lever[], log: OpenUpLog | null): PlanStep[] {
  const inside = levers.filter((l) => l.goal !== null);
  const way = planWay(levers, log);
  const step = (id: string, words: string, cautions: readonly CautionId[] = []): PlanStep => ({
    id,
    words,
    ...(cautions.length > 0 ? { cautions: [...cautions] } : {}),
  });
  const pull = (l: Lever) => step(`lever.${l.id}`, l.name, l.cautions);
  const opening = inside.length > 0;
  const byId = new Map(log?.steps.map((s) => [s.id, s]));
  const wayIn: PlanStep[] = !opening
    ? []
    : way
      ? way.steps.flatMap((id) => {
          const s = byId.get(id);
          if (!s) return [];
          const screws = s.screws.length > 0 ? ` (${plural(s.screws.length, 'screw')})` : '';
          const own = cautionsOf(s);
          return [
            {
              ...step(`way.${id}`, `${s.name || id}${screws}`, own),
              step: id,
            },
          ];
        })
      : [
          step('open', 'Shut down, adapter out, open the machine, battery off', [
            'battery',
            'static',
          ]),
        ];
  return [
    step('run-before', 'Make the run before: both dies loaded until nothing moves'),
    ...(opening ? [step('cool', 'Let the heat sink cool after the load', ['hot'])] : []),
    ...wayIn,
    ...inside.map(pull),
    ...(opening
      ? [
          step(
            'back',
            way && way.steps.length > 0
              ? `Back together in the reverse order, ${plural(way.screws.length, 'screw')}`
              : 'Back together in the reverse order',
            ['battery'],
          ),
        ]
      : []),
    ...levers.filter((l) => l.goal === null).map(pull),
    step('run-after', 'Make the run after: the same load, room and fans'),
  ];
}

/** The next step that is not done, or null. */
export const nextPlanStep = ({ steps, checked = {} }: LeverPlan): PlanStep | null =>
  steps.find((s) => checked[s.id] === undefined) ?? null;

/** The step that was done last in the order of the plan, or null. */
export const lastPlanStep = ({ steps, checked = {} }: LeverPlan): PlanStep | null =>
  [...steps].reverse().find((s) => checked[s.id] !== undefined) ?? null;

/** A plan with a step done at a time, or not done. */
export function withStep(plan: LeverPlan, step: string, at: string | null): LeverPlan {
  const { [step]: _, ...others } = plan.checked ?? {};
  return { ...plan, checked: at === null ? others : { ...others, [step]: at } };
}
