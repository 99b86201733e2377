import { useMemo, useState } from 'react';
import {
  rubricEntry,
  type Judged,
  type Rubric,
  type RubricEntry,
} from '@zugluft/core/service/serviceScore';
import type { OpenUpLog } from '../../api/openUp';
import { useLabSettings } from '../../documents/useLaboratory';
import { wayWorker } from '../../documents/answer/workers/wayClient';
import { NumberCell, TextCell } from './cells';
import { useOpenUp } from './OpenUpLog';
import { useComputed } from './useComputed';

/** The service score: computed from the log and the ledger by the lab's rubric, never typed. */
export function ScorePage() {
  const { log, rubric } = useOpenUp();
  const { save, error } = useLabSettings();
  const input = useMemo(() => ({ log, rubric }), [log, rubric]);
  const { value: score } = useComputed(input, ({ log, rubric }) =>
    wayWorker().serviceScore(log, rubric),
  );
  if (!score) return <p className="text-quiet">Computing the score.</p>;
  const unjudged = score.criteria.filter((c) => c.share === null && c.weight > 0);
  const one = (x: number) => x.toFixed(1);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[minmax(0,1fr)_17rem] gap-x-8 gap-y-5">
      <section aria-label="service score">
        <div className="flex flex-wrap items-baseline gap-x-4 mb-3">
          <p className="text-4xl figure" data-testid="score">
            {score.agreed === null ? '–' : one(score.agreed)}
            <span className="unit text-base"> of 10</span>
          </p>
          <p className="text-quiet">
            {score.computed === null
              ? 'Nothing could be judged yet.'
              : `between ${one(score.low)} and ${one(score.high)} with what is not judged yet; ${Math.round(100 * score.judged)} % of the weight is judged`}
            {log.deviation && score.computed !== null && (
              <>
                {' '}
                Computed {one(score.computed)}, agreed {log.deviation.points > 0 ? '+' : ''}
                {log.deviation.points}.
              </>
            )}
          </p>
        </div>
        <RubricTable
          criteria={score.criteria}
          rubric={rubric}
          save={(next) => save('rubric', next)}
        />
        {error && (
          <p className="text-heat" role="alert">
            The rubric was not saved: {error.message}.
          </p>
        )}
        {Object.keys(rubric).length > 0 && (
          <button
            type="button"
            className="underline underline-offset-2 text-[0.9rem] text-quiet hover:text-ink cursor-pointer mt-2"
            onClick={() => save('rubric', {})}
          >
            back to the built-in rubric
          </button>
        )}
      </section>
      <div className="space-y-5 text-[0.95rem]">
        {unjudged.length > 0 && (
          <section aria-label="not judged yet">
            <h2 className="font-semibold mb-1">Not judged yet</h2>
            <ul className="text-quiet space-y-0.5">
              {unjudged.map((c) => (
                <li key={c.id}>
                  {c.name}: {c.from}
                </li>
              ))}
            </ul>
          </section>
        )}
        <DeviationForm />
      </div>
    </div>
  );
}

function RubricTable({
  criteria,
  rubric,
  save,
}: {
  criteria: readonly Judged[];
  rubric: Rubric;
  save: (next: Rubric) => void;
}) {
  const set = (id: string, to: Partial<RubricEntry>) => {
    const next = { ...rubricEntry(rubric, id), ...to };
    // best and worst must differ; the other of the two is typed next
    if (next.best === next.worst) return;
    save({ ...rubric, [id]: next });
  };
  return (
    <div className="overflow-x-auto relative">
      <table className="w-full text-left border-collapse text-[0.95rem]">
        <thead>
          <tr className="text-small text-quiet border-b border-ink">
            {['criterion', 'here', 'points', 'full at', 'none at', 'weight'].map((x, i) => (
              <th key={x} className={`font-normal px-1.5 py-1 ${i > 0 ? 'text-right' : ''}`}>
                {x}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {criteria.map((c) => {
            const entry = rubricEntry(rubric, c.id);
            const own = rubric[c.id] !== undefined;
            return (
              <tr key={c.id} className="border-b border-rule">
                <td className="px-1.5 py-0.5">
                  {c.name}
                  <span className="block text-small text-quiet">
                    {c.from}
                    {own && ', own figures'}
                  </span>
                </td>
                <td className="px-1.5 figure text-right whitespace-nowrap">
                  {c.value === null ? '–' : Math.round(10 * c.value) / 10}
                  <span className="unit"> {c.unit}</span>
                </td>
                <td className="px-1.5 figure text-right">
                  {c.share === null ? '–' : (10 * c.share).toFixed(1)}
                </td>
                {(['best', 'worst', 'weight'] as const).map((field) => (
                  <td key={field} className="text-right">
                    <NumberCell
                      label={`${field} of ${c.name}`}
                      value={entry[field]}
                      min={0}
                      max={field === 'weight' ? 10 : 1000}
                      set={(v) => v !== undefined && set(c.id, { [field]: v })}
                    />
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="text-small text-quiet mt-2">
        Points go straight from “full at” to “none at”; the score is their mean by weight, over what
        could be judged. Figures and weights are the lab’s, for all its machines.
      </p>
    </div>
  );
}

/** What a team agreed to give or take, with its reason. */
function DeviationForm() {
  const { log, change } = useOpenUp();
  const now = log.deviation;
  const [points, setPoints] = useState(now?.points);
  const [reason, setReason] = useState(now?.reason ?? '');
  const [by, setBy] = useState(now?.agreedBy ?? '');
  const [wrong, setWrong] = useState('');
  const put = (deviation: OpenUpLog['deviation']) => change((l) => ({ ...l, deviation }));
  return (
    <section aria-label="agreed deviation">
      <h2 className="font-semibold mb-1">Agreed deviation</h2>
      <p className="text-quiet text-[0.9rem] mb-1">
        The team may give or take points for what the rubric does not see, with a reason.
      </p>
      <form
        className="space-y-1"
        onSubmit={(e) => {
          e.preventDefault();
          if (points === undefined || points === 0) return setWrong('how many points, up or down?');
          if (!reason.trim()) return setWrong('needs a reason');
          setWrong('');
          put({ points, reason: reason.trim(), agreedBy: by.trim() });
        }}
      >
        <p className="flex items-baseline gap-2">
          <span className="text-quiet w-20 shrink-0">Points</span>
          <NumberCell label="points" value={points} min={-5} max={5} hint="-1" set={setPoints} />
        </p>
        <p className="flex items-baseline gap-2">
          <span className="text-quiet w-20 shrink-0">Reason</span>
          <TextCell
            label="reason"
            value={reason}
            max={1000}
            hint="hooks break when opened twice"
            set={(t) => setReason(t ?? '')}
          />
        </p>
        <p className="flex items-baseline gap-2">
          <span className="text-quiet w-20 shrink-0">Agreed by</span>
          <TextCell label="agreed by" value={by} max={200} set={(t) => setBy(t ?? '')} />
        </p>
        {wrong && (
          <p className="text-heat" role="alert">
            {wrong}
          </p>
        )}
        <div className="flex gap-2 pt-1">
          <button type="submit" className="btn btn-sm">
            Record
          </button>
          {now && (
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => {
                put(undefined);
                setPoints(undefined);
                setReason('');
                setBy('');
              }}
            >
              Withdraw
            </button>
          )}
        </div>
      </form>
    </section>
  );
}
