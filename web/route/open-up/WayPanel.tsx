import { useMemo, useState } from 'react';
import { GOALS, SYMPTOMS } from '@zugluft/core/service/goals';
import { leastSteps, wayFaults } from '@zugluft/core/service/leastSteps';
import type { OpenUpLog } from '../../api/openUp';

/** The least that must come off for a goal, chosen by itself or by what a reader complains of. */
export function WayPanel({ log }: { log: OpenUpLog }) {
  const [asked, setAsked] = useState('goal:clean-fans');
  const symptom = SYMPTOMS.find((s) => `symptom:${s.symptom}` === asked);
  const goal = symptom?.goal ?? asked.replace('goal:', '');
  const way = useMemo(() => leastSteps(log.steps, goal), [log.steps, goal]);
  const faults = useMemo(() => wayFaults(log.steps), [log.steps]);
  const nameOf = (id: string) => log.steps.find((s) => s.id === id)?.name ?? id;
  return (
    <section aria-label="way to a goal" className="text-[0.95rem]">
      <h2 className="font-semibold mb-1">What must come off</h2>
      <select
        className="select select-sm w-full mb-2"
        aria-label="goal or symptom"
        value={asked}
        onChange={(e) => setAsked(e.currentTarget.value)}
      >
        <optgroup label="to">
          {GOALS.map((g) => (
            <option key={g.id} value={`goal:${g.id}`}>
              {g.name}
            </option>
          ))}
        </optgroup>
        <optgroup label="because">
          {SYMPTOMS.map((s) => (
            <option key={s.symptom} value={`symptom:${s.symptom}`}>
              {s.symptom}
            </option>
          ))}
        </optgroup>
      </select>
      {symptom?.stop && (
        <p className="border-l-2 border-heat pl-2 mb-2" role="alert">
          {symptom.stop}
        </p>
      )}
      {way ? (
        <>
          <ol data-testid="way" className="list-decimal pl-6">
            {way.steps.map((id) => (
              <li key={id}>{nameOf(id)}</li>
            ))}
          </ol>
          <p className="text-[0.9rem] text-quiet">
            {way.steps.length} {way.steps.length === 1 ? 'step' : 'steps'}, {way.screws.length}{' '}
            {way.screws.length === 1 ? 'screw' : 'screws'}
            {way.seconds !== null && `, ${Math.ceil(way.seconds / 60)} min`}
          </p>
        </>
      ) : (
        <p className="text-quiet text-[0.9rem]">
          {log.steps.some((s) => s.reaches.includes(goal))
            ? 'The steps that reach it wait for each other.'
            : 'No step reaches it yet: choose a step and say what it reaches.'}
        </p>
      )}
      {faults.length > 0 && (
        <ul className="border-l-2 border-heat pl-2 mt-2 text-[0.9rem]" aria-label="faults">
          {faults.slice(0, 6).map((f) => (
            <li key={JSON.stringify(f)}>
              {f.kind === 'cycle' && `${f.steps.map(nameOf).join(' → ')} wait for each other`}
              {f.kind === 'unreachable' && `${nameOf(f.step)} waits for one of these`}
              {f.kind === 'unknown-step' && `${nameOf(f.step)} needs a step that is gone`}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
