import { useMemo, useState } from 'react';
import { GOALS, SYMPTOMS } from '@zugluft/core/service/goals';
import { stepKindOf } from '@zugluft/core/service/stepKinds';
import { CAUTIONS, isCaution } from '@zugluft/core/service/cautions';
import type { OpenUpLog } from '../../api/openUp';
import { rulesAt, type HouseRules } from '@zugluft/core/service/houseRules';
import { wayWorker } from '../../documents/answer/workers/wayClient';
import { useComputed } from './useComputed';

/** The least that must come off for a goal, chosen by itself or by what a reader complains of. */
export function WayPanel({ log, rules }: { log: OpenUpLog; rules: HouseRules }) {
  const [asked, setAsked] = useState('goal:clean-fans');
  const symptom = SYMPTOMS.find((s) => `symptom:${s.symptom}` === asked);
  const goal = symptom?.goal ?? asked.replace('goal:', '');
  const input = useMemo(() => ({ steps: log.steps, goal }), [log.steps, goal]);
  const { value, fresh } = useComputed(input, async ({ steps, goal }) => ({
    way: await wayWorker().leastSteps(steps, goal),
    faults: await wayWorker().wayFaults(steps),
  }));
  const way = value?.way;
  const house = (way?.steps ?? []).flatMap((id) => {
    const step = log.steps.find((s) => s.id === id);
    return step ? [rulesAt(stepKindOf(step), rules)] : [];
  });
  const tools = [...new Set([...(way?.tools ?? []), ...house.flatMap((h) => h.tools)])];
  const cautions = [
    ...new Set([...(way?.cautions ?? []), ...house.flatMap((h) => h.cautions)]),
  ].filter(isCaution);
  const faults = value?.faults ?? [];
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
      {!value ? (
        <p className="text-quiet text-[0.9rem]">Seeking the least way.</p>
      ) : way ? (
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
            {way.seconds !== null && way.timed < way.steps.length && ` for ${way.timed} of them`}
            {!way.proven && '. Not every alternative was looked at.'}
            {!fresh && ' …'}
          </p>
          {tools.length > 0 && (
            <p className="text-[0.9rem]">
              <span className="text-quiet">Tools</span> {tools.join(', ')}
            </p>
          )}
          {way.consumables.length > 0 && (
            <p className="text-[0.9rem]">
              <span className="text-quiet">Uses up</span> {way.consumables.join(', ')}
            </p>
          )}
          {cautions.length > 0 && (
            <details className="text-[0.9rem]">
              <summary className="cursor-pointer">
                {cautions.length} {cautions.length === 1 ? 'caution' : 'cautions'}
              </summary>
              <ul className="border-l-2 border-heat pl-2 space-y-1">
                {cautions.map((c) => (
                  <li key={c}>{CAUTIONS[c]}</li>
                ))}
              </ul>
            </details>
          )}
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
