import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import type { CaseRecord } from '@zugluft/core/record/recordSchema';
import { readLogFile } from '@zugluft/core/service/logFile';
import { standardLayers, standardSteps } from '@zugluft/core/service/standardSteps';
import { templateFrom } from '@zugluft/core/service/templateFrom';
import { listSiblings, openUpKeys, readLog } from '../../api/openUp';
import { useMachineFile } from '../../documents/record/MachineFile';
import { useOpenUp } from './OpenUpLog';

/** An empty log: begin with the usual steps, or with what a sibling of the same model was opened by. */
export function BeginPanel() {
  const { machine, draft } = useMachineFile();
  const { change, rules, rulesKnown, outline } = useOpenUp();
  const { data } = useQuery({
    queryKey: openUpKeys.siblings(machine.id),
    queryFn: () => listSiblings(machine.id),
  });
  const [wrong, setWrong] = useState('');
  const open = async (file: File) => {
    try {
      const log = readLogFile(await file.text());
      setWrong('');
      change(() => log);
    } catch (cause) {
      setWrong((cause as Error).message);
    }
  };
  const begin = async (id: string, name: string) => {
    try {
      const { log } = await readLog(id);
      change(() => templateFrom(log, name));
    } catch (cause) {
      toast.error(`Not taken over: ${(cause as Error).message}.`);
    }
  };
  return (
    <section aria-label="begin" className="text-[0.95rem] border-l-2 border-air pl-3">
      <h2 className="font-semibold mb-1">Begin with</h2>
      <ul className="space-y-1">
        <li>
          <button
            type="button"
            className="underline underline-offset-2 cursor-pointer"
            disabled={!rulesKnown}
            onClick={() =>
              change((l) => ({
                ...l,
                layers: l.screws.length ? l.layers : standardLayers(outline),
                steps: standardSteps(draft as Partial<CaseRecord>, rules),
              }))
            }
          >
            the usual steps
          </button>
          <span className="text-quiet">
            , after the{' '}
            <Link to="/house-rules" className="underline underline-offset-2">
              house rules
            </Link>
          </span>
        </li>
        {data?.items.map((s) => (
          <li key={s.id}>
            <button
              type="button"
              className="underline underline-offset-2 cursor-pointer text-left"
              onClick={() => void begin(s.id, `${s.variant}, ${s.stateName}`)}
            >
              the log of {s.variant || 'a sibling'}
              {s.stateName !== 'as found' && `, ${s.stateName}`}
            </button>
            <span className="text-quiet">
              {' '}
              {s.steps} steps, {s.screws} screws
            </span>
          </li>
        ))}
        <li>
          <label className="underline underline-offset-2 cursor-pointer focus-within:outline-2 outline-air">
            a log from a file
            <input
              type="file"
              accept="application/json,.json"
              className="sr-only"
              aria-label="a log from a file"
              onChange={(e) => {
                const file = e.currentTarget.files?.[0];
                e.currentTarget.value = '';
                if (file) void open(file);
              }}
            />
          </label>
          {wrong && (
            <p className="text-heat text-[0.9rem]" role="alert">
              Not taken: {wrong}.
            </p>
          )}
        </li>
        <li className="text-quiet">
          nothing: write each step as it is done, here or at the bench. Shut down, unplug, touch
          bare metal first.
        </li>
      </ul>
    </section>
  );
}
