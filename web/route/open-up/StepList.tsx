import { useState } from 'react';
import { GOALS } from '@zugluft/core/service/goals';
import type { OpenUpLog } from '../../api/openUp';
import { addStep, editStep, removeStep } from './logEdits';

const STATES = { planned: 'planned', done: 'done', skipped: 'skipped', 'went-wrong': 'went wrong' };

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
  change: (make: (log: OpenUpLog) => OpenUpLog) => void;
}) {
  const [name, setName] = useState('');
  const step = log.steps.find((s) => s.id === chosen);
  const others = log.steps.filter((s) => s.id !== chosen);
  const nameOf = (id: string) => log.steps.find((s) => s.id === id)?.name ?? id;
  return (
    <section aria-label="steps">
      <h2 className="font-semibold mb-1">Steps</h2>
      {log.steps.length === 0 && (
        <p className="text-quiet text-[0.9rem] mb-2">
          Shut down, unplug, touch bare metal. Then log each step as it is done: what came off,
          which screws, which plugs.
        </p>
      )}
      <ol className="mb-2">
        {log.steps.map((s, i) => (
          <li key={s.id} className="border-b border-rule">
            <button
              type="button"
              aria-pressed={s.id === chosen}
              className={`w-full text-left py-1 px-1.5 grid grid-cols-[1.6rem_minmax(0,1fr)_auto] gap-1 cursor-pointer ${s.id === chosen ? 'bg-base-200' : ''}`}
              onClick={() => choose(s.id === chosen ? undefined : s.id)}
            >
              <span className="figure text-quiet">{i + 1}</span>
              <span className="break-words">{s.name}</span>
              <span
                className={`text-[0.85rem] ${s.state === 'went-wrong' ? 'text-heat' : 'text-quiet'}`}
              >
                {s.screws.length > 0 && `${s.screws.length} screws · `}
                {STATES[s.state]}
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
        <div className="mt-3 space-y-2 text-[0.95rem]" data-testid="step-details">
          <label className="grid grid-cols-[5rem_minmax(0,1fr)] gap-2 items-center">
            <span className="text-quiet">It was</span>
            <select
              className="select select-sm w-full"
              value={step.state}
              onChange={(e) => {
                const state = e.currentTarget.value as typeof step.state;
                change((l) => editStep(l, step.id, { state }));
              }}
            >
              {Object.entries(STATES).map(([id, words]) => (
                <option key={id} value={id}>
                  {words}
                </option>
              ))}
            </select>
          </label>
          <Chips
            label="Needs"
            ids={others.map((s) => s.id)}
            words={nameOf}
            chosen={step.needs.flat()}
            set={(needs) => change((l) => editStep(l, step.id, { needs }))}
          />
          <Chips
            label="Reaches"
            ids={GOALS.map((g) => g.id)}
            words={(id) => GOALS.find((g) => g.id === id)?.name ?? id}
            chosen={step.reaches}
            set={(reaches) => change((l) => editStep(l, step.id, { reaches }))}
          />
          <button
            type="button"
            className="underline underline-offset-2 cursor-pointer text-[0.9rem] text-quiet hover:text-ink"
            onClick={() => {
              change((l) => removeStep(l, step.id));
              choose(undefined);
            }}
          >
            remove this step
          </button>
        </div>
      )}
    </section>
  );
}

function Chips({
  label,
  ids,
  words,
  chosen,
  set,
}: {
  label: string;
  ids: readonly string[];
  words: (id: string) => string;
  chosen: readonly string[];
  set: (ids: string[]) => void;
}) {
  return (
    <div className="grid grid-cols-[5rem_minmax(0,1fr)] gap-2">
      <span className="text-quiet">{label}</span>
      <div role="group" aria-label={label} className="flex flex-wrap gap-1">
        {ids.map((id) => {
          const on = chosen.includes(id);
          return (
            <button
              key={id}
              type="button"
              aria-pressed={on}
              className={`text-[0.85rem] px-1.5 rounded-sm border cursor-pointer ${on ? 'border-ink bg-base-200' : 'border-dashed border-rule text-quiet'}`}
              onClick={() => set(on ? chosen.filter((x) => x !== id) : [...chosen, id])}
            >
              {words(id)}
            </button>
          );
        })}
        {ids.length === 0 && <span className="text-quiet text-[0.85rem]">nothing yet</span>}
      </div>
    </div>
  );
}
