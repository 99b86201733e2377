import type { LeverPlan } from '@zugluft/core/levers/plansDocument';
import { Kbd } from '../../kit/Kbd';

/** The way between the list of levers and each plan; nothing while there is none. */
export function PlanTabs({
  plans,
  open,
  choose,
}: {
  plans: readonly LeverPlan[];
  open: string | null;
  /** Null: the list of levers. */
  choose: (plan: string | null) => void;
}) {
  if (plans.length === 0) return null;
  const tab = (id: string | null, words: React.ReactNode) => (
    <button
      key={id}
      type="button"
      aria-pressed={id === open}
      className={`cursor-pointer hover:text-ink ${id === open ? 'text-ink font-semibold' : 'text-quiet'}`}
      onClick={(e) => {
        // Enter goes on in the plan
        e.currentTarget.blur();
        choose(id);
      }}
    >
      {words}
    </button>
  );
  return (
    <nav
      aria-label="plans"
      className="flex flex-wrap gap-x-4 gap-y-1 items-center pb-2 text-[0.95rem] no-print"
    >
      {tab(null, 'what would help')}
      {plans.map((p, i) =>
        tab(
          p.id,
          <>
            plan <span className="figure">{i + 1}</span>
          </>,
        ),
      )}
      <span>
        <Kbd>d</Kbd>
      </span>
    </nav>
  );
}
