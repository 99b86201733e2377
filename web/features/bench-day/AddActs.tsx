import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { openingAct, openingMinutes, runAct } from '@zugluft/core/benchday/dayActs';
import { actMinutes, MAX_ACTS, type Act } from '@zugluft/core/benchday/dayDocument';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { listMachines, readMachine } from '../../api/machines';
import { readLog } from '../../api/openUp';
import { listRuns, runKeys } from '../../api/runs';
import { estimateWorker } from '../../documents/answer/workers/estimateClient';
import { runName } from '../../documents/runName';
import { useLaboratory } from '../../documents/useLaboratory';
import { PlainInput } from '../../kit/PlainInput';

/** What may be added of a machine: its planned runs, as long as it needs for them, and its opening. */
export function AddActs({ there, add }: { there: readonly Act[]; add: (acts: Act[]) => void }) {
  const lab = useLaboratory();
  const [words, setWords] = useState('');
  const [machineId, setMachineId] = useState<string | null>(null);
  const found = useQuery({
    queryKey: ['machines', 'for-day', words],
    queryFn: ({ signal }) =>
      listMachines(new URLSearchParams({ page: '1', q: words.trim() }).toString(), signal),
    placeholderData: (before) => before,
  });
  const chosen = useQuery({
    queryKey: [...runKeys.of(machineId ?? ''), 'for-day', lab],
    enabled: machineId !== null,
    retry: false,
    queryFn: async ({ signal }): Promise<Act[]> => {
      const id = machineId!;
      const { record: kept } = await readMachine(id);
      const { record, complete } = parseRecord(kept);
      const { maker, model } = record?.identity ?? {};
      const of = (act: string) => ({
        id: act,
        machine: id,
        machineName: [maker, model].filter(Boolean).join(' ') || 'Unnamed machine',
      });
      const log = await readLog(id).catch(() => null);
      const opening = openingAct(
        of(crypto.randomUUID()),
        log && log.revision > 0 ? openingMinutes(log.log) : null,
      );
      const planned = (await listRuns(id, signal)).filter((r) => !(r.run.logs ?? []).length);
      const acts = [opening];
      for (const { id: runId, run, prediction } of planned) {
        if (!record || !complete) break;
        const setting = record.settings?.some((s) => s.id === run.setting)
          ? run.setting
          : undefined;
        const on = run.load?.on ?? 'both';
        const cap: Cap = prediction?.cap ?? 'full';
        const times = await estimateWorker().runMinutes({ record, lab, setting }, on, cap);
        acts.push(
          runAct(of(crypto.randomUUID()), { id: runId, load: run.load }, times, runName(run)),
        );
      }
      return acts;
    },
  });
  const full = there.length >= MAX_ACTS;
  const has = (act: Act) =>
    there.some((t) => t.machine === act.machine && t.kind === act.kind && t.run === act.run);
  return (
    <section aria-label="add to the day" className="mt-4">
      <h2 className="font-semibold">Add</h2>
      <PlainInput
        label="machine to add"
        hint="machine"
        value={words}
        onChange={setWords}
        max={100}
      />
      {found.error && <p className="text-heat">{found.error.message}.</p>}
      <ul>
        {(found.data?.items ?? []).slice(0, 8).map((m) => {
          const name = [m.maker, m.model, m.variant].filter(Boolean).join(' ') || 'Unnamed machine';
          const isOpen = m.id === machineId;
          return (
            <li key={m.id} className="border-b border-rule py-0.5">
              <button
                type="button"
                aria-expanded={isOpen}
                className={`cursor-pointer text-left hover:text-ink ${isOpen ? 'font-semibold' : 'text-quiet'}`}
                onClick={() => setMachineId(isOpen ? null : m.id)}
              >
                {name}
              </button>
              {isOpen && (
                <div className="pl-3">
                  {chosen.isPending && <p className="text-quiet text-small">Timing its runs.</p>}
                  {chosen.error && (
                    <p role="alert" className="text-heat">
                      {chosen.error.message}.
                    </p>
                  )}
                  {(chosen.data ?? []).map((act) => (
                    <p key={`${act.kind} ${act.run ?? ''}`} className="text-[0.95rem]">
                      {has(act) ? (
                        <span className="text-quiet">{act.name}: in the day</span>
                      ) : (
                        <button
                          type="button"
                          className="underline cursor-pointer text-left"
                          disabled={full}
                          onClick={() => add([{ ...act, id: crypto.randomUUID() }])}
                        >
                          {act.name}, {actMinutes(act)} min
                        </button>
                      )}
                    </p>
                  ))}
                  {chosen.data?.length === 1 && (
                    <p className="text-small text-quiet">
                      No run of it is planned: plan one in its step Runs.
                    </p>
                  )}
                </div>
              )}
            </li>
          );
        })}
      </ul>
      {full && <p className="text-heat text-small">A day holds at most {MAX_ACTS} acts.</p>}
    </section>
  );
}
