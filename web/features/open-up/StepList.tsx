import { useState } from 'react';
import { addStep } from '@zugluft/core/service/logEdits';
import type { OpenUpLog } from '../../api/openUp';
import type { ChangeLog } from './OpenUpLog';
import { StepDetails } from './StepDetails';

export const STEP_STATE_WORDS = {
  planned: 'planned',
  done: 'done',
  skipped: 'skipped',
  'went-wrong': 'went wrong',
};

/** Steps of the opening in order; the chosen one with what it needs and what it reaches. */
export function StepList({
  log,
  chosen,
  choose,
  change,
}: {
  log: OpenUpLog;
  chosen: string | undefined;
  choose: (id: string | undefined) => void;
  change: ChangeLog;
}) {
  const [name, setName] = useState('');
  const step = log.steps.find((s) => s.id === chosen);
  return (
    <section aria-label="steps">
      <h2 className="font-semibold mb-1">Steps</h2>
      {log.templateOf && (
        <p className="text-quiet text-[0.9rem] mb-1">
          Begun from {log.templateOf}: confirm or change each step.
        </p>
      )}
      <ol className="mb-2 max-h-[26rem] overflow-y-auto">
        {log.steps.map((s, i) => (
          <li key={s.id} className="border-b border-rule">
            <button
              type="button"
              aria-pressed={s.id === chosen}
              className={`w-full text-left py-1 px-1.5 grid grid-cols-[1.8rem_minmax(0,1fr)_auto] gap-1 cursor-pointer ${s.id === chosen ? 'bg-base-200' : ''}`}
              onClick={() => choose(s.id === chosen ? undefined : s.id)}
            >
              <span className="figure text-quiet">{i + 1}</span>
              <span className="break-words">{s.name}</span>
              <span
                className={`text-small ${s.state === 'went-wrong' ? 'text-heat' : 'text-quiet'}`}
              >
                {s.screws.length > 0 &&
                  `${s.screws.length} ${s.screws.length === 1 ? 'screw' : 'screws'} · `}
                {STEP_STATE_WORDS[s.state]}
              </span>
            </button>
          </li>
        ))}
      </ol>
      <form
        className="flex gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          const text = name.trim();
          if (!text) return;
          change((l) => addStep(l, text.slice(0, 120), chosen));
          setName('');
        }}
      >
        <input
          className="input input-sm grow"
          aria-label="next step"
          placeholder={step ? `after “${step.name.slice(0, 24)}”` : 'next step'}
          maxLength={120}
          value={name}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        <button type="submit" className="btn btn-sm">
          Add
        </button>
      </form>
      {step && (
        <StepDetails
          key={step.id}
          log={log}
          step={step}
          change={change}
          close={() => choose(undefined)}
        />
      )}
    </section>
  );
}
