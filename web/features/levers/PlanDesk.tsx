import { useState } from 'react';
import { toast } from 'sonner';
import { applyChanges, ImpossibleChange } from '@zugluft/core/levers/applyChanges';
import { lastPlanStep, nextPlanStep, withStep } from '@zugluft/core/levers/planSteps';
import type { LeverPlan, LeverPlans } from '@zugluft/core/levers/plansDocument';
import { CAUTIONS, isCaution } from '@zugluft/core/service/cautions';
import { atCap } from '../../documents/answer/caps';
import { useCommands } from '../../documents/commands';
import type { Keeper, KeepView } from '../../documents/keeper';
import type { Draft } from '../../documents/record/draft';
import { useMachineFile } from '../../documents/record/MachineFile';
import { SavedWords } from '../../documents/SavedWords';
import { StepChecklist } from '../../kit/StepChecklist';
import { feltWords, gainWords } from './leverWords';
import { PlanResult } from './PlanResult';

/** One plan: what was promised, its steps worked by two keys, what came of it. */
export function PlanDesk({
  plan,
  keeper,
  view,
  leave,
}: {
  plan: LeverPlan;
  keeper: Keeper<LeverPlans>;
  view: KeepView<LeverPlans>;
  leave: () => void;
}) {
  const { change: changeRecord, chooseSetting, kept } = useMachineFile();
  const [problem, setProblem] = useState<string | null>(null);
  const change = (update: (plan: LeverPlan) => LeverPlan, what: string) =>
    keeper.change(
      (all) => ({ ...all, plans: all.plans.map((p) => (p.id === plan.id ? update(p) : p)) }),
      what,
    );
  const felt = feltWords(plan.promised);
  const next = nextPlanStep(plan);
  const last = lastPlanStep(plan);
  const done = () => {
    // Enter on a button does what the button says
    if (document.activeElement instanceof HTMLButtonElement) return document.activeElement.click();
    if (!next) return;
    const at = new Date().toISOString();
    change((p) => withStep(p, next.id, at), next.words);
  };
  const back = () => {
    if (last) change((p) => withStep(p, last.id, null), `not yet: ${last.words}`);
  };
  useCommands({ 'plan-next': done, 'plan-back': back }, true);
  const take = () => {
    setProblem(null);
    const changes = plan.levers.flatMap((l) => l.change).map(({ path, to }) => ({ path, to }));
    try {
      const record = kept.keeper.view().value;
      const after = applyChanges(record, changes, plan.setting ?? undefined);
      if (after.record !== record) changeRecord(() => after.record as unknown as Draft);
      if (after.setting) chooseSetting(after.setting);
      const at = new Date().toISOString();
      change((p) => ({ ...p, takenAt: at }), 'taken into the record');
    } catch (cause) {
      if (!(cause instanceof ImpossibleChange)) throw cause;
      setProblem(cause.message);
    }
  };
  return (
    <section aria-label="plan" className="bench">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="text-lg font-semibold grow">{plan.levers.map((l) => l.name).join(', ')}</h2>
        <span role="status" className="text-small text-quiet">
          <SavedWords view={view} />
        </span>
      </div>
      <p className="text-[0.95rem]" data-testid="promised">
        Promised {atCap(plan.cap)} on <time>{dayOf(plan.madeAt)}</time>: {gainWords(plan.promised)}.{' '}
        Noticed in {Math.round(100 * plan.promised.chanceNoticeable)} % of the draws
        {felt && `, ${felt}`}.
      </p>
      <StepChecklist
        steps={plan.steps}
        next={next}
        last={last}
        allDone="All done."
        doneAt={(s) => plan.checked?.[s.id]}
        mark={(s, at) => change((p) => withStep(p, s.id, at), s.words)}
        done={done}
        back={back}
        name="plan-now"
        about={
          next?.cautions &&
          next.cautions.length > 0 && (
            <ul className="border-l-2 border-heat pl-2 text-[0.95rem] mb-2">
              {next.cautions.filter(isCaution).map((c) => (
                <li key={c}>{CAUTIONS[c]}</li>
              ))}
            </ul>
          )
        }
        beside={(s) => {
          const at = plan.checked?.[s.id];
          return at && <span className="figure text-small text-quiet">{clockOf(at)}</span>;
        }}
      />
      <PlanResult plan={plan} change={change} />
      {problem && (
        <p role="alert" className="text-heat">
          It cannot be taken into the record: {problem}.
        </p>
      )}
      <p className="flex flex-wrap gap-x-4 gap-y-2 mt-4 no-print">
        <button type="button" className="btn btn-sm" onClick={take}>
          Take the changes into the record
        </button>
        <button type="button" className="btn btn-sm" onClick={() => window.print()}>
          Print
        </button>
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => {
            keeper.change(
              (all) => ({ ...all, plans: all.plans.filter((p) => p.id !== plan.id) }),
              'a plan removed',
            );
            toast('The plan is removed; undo brings it back', { id: 'undo' });
            leave();
          }}
        >
          Remove this plan
        </button>
      </p>
      {plan.takenAt && (
        <p className="text-small text-quiet mt-1">
          Taken into the record on {dayOf(plan.takenAt)}; undo in the step Cooling takes it back.
        </p>
      )}
    </section>
  );
}

const dayOf = (at: string) => new Date(at).toLocaleDateString('en-CA');
const clockOf = (at: string) =>
  new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
