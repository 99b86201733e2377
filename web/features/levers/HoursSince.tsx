import { useState } from 'react';
import { MAX_HOURS, type LeverPlan } from '@zugluft/core/levers/plansDocument';
import { readFigure } from '@zugluft/core/record/readFigure';

/** Whether a plan cleans fins. */
export const cleansFins = ({ levers }: LeverPlan): boolean =>
  levers.some((l) => l.change.some((c) => /^finStacks\..+\.lintShare$/.test(c.path) && c.to === 0));

/** Hours as typed; null where nothing is, undefined where it cannot be. */
function hoursIn(text: string): number | null | undefined {
  if (text.trim() === '') return null;
  const figure = readFigure(text, 'h');
  if (typeof figure !== 'object' || figure === null) return undefined;
  return figure.value > 0 && figure.value <= MAX_HOURS ? figure.value : undefined;
}

/** Hours of use since the fins were last clean: with both runs they tell how fast dust gathers. */
export function HoursSince({
  plan,
  change,
}: {
  plan: LeverPlan;
  change: (update: (plan: LeverPlan) => LeverPlan, what: string) => void;
}) {
  const kept = plan.hoursSince ?? null;
  const [typed, setTyped] = useState<string | null>(null);
  const isWrong = typed !== null && hoursIn(typed) === undefined;
  const take = (text: string) => {
    setTyped(text);
    const hoursSince = hoursIn(text);
    if (hoursSince !== undefined) change((p) => ({ ...p, hoursSince }), 'hours of use');
  };
  return (
    <p className="flex flex-wrap gap-x-2 items-baseline">
      <label className="inline-flex items-baseline gap-1">
        used since its fins were last clean
        <input
          className={`figure input input-xs w-20 text-right ${isWrong ? 'border-heat text-heat' : ''}`}
          aria-label="hours of use since its fins were last clean"
          aria-invalid={isWrong || undefined}
          inputMode="decimal"
          autoComplete="off"
          maxLength={12}
          placeholder="–"
          value={typed ?? (kept === null ? '' : String(kept))}
          onChange={(e) => take(e.currentTarget.value)}
          onBlur={() => {
            if (!isWrong) setTyped(null);
          }}
        />
        <span className="unit">h</span>
      </label>
      {isWrong ? (
        <span className="text-heat">hours above 0, up to {MAX_HOURS}</span>
      ) : (
        <span className="text-small text-quiet">
          tells, with both runs, how fast dust gathers; from the counter of its disk or battery, or
          from its owner
        </span>
      )}
    </p>
  );
}
