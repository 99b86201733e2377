import { useQuery, useQueryClient } from '@tanstack/react-query';
import { format } from 'date-fns';
import { useEffect, useRef, useState } from 'react';
import {
  calibrationKeys,
  listCalibrations,
  makeCalibration,
  putVersionInUse,
  type KeptCalibration,
} from '../../api/calibrations';
import type { KeptRun } from '../../api/runs';
import { useCommands } from '../../documents/commands';
import { useMachineFile } from '../../documents/record/MachineFile';
import { Kbd } from '../../kit/Kbd';
import { CalibrationAnswerView } from './CalibrationAnswerView';
import { RunUses } from './RunUses';

/** What the runs taught: which are used, the fit, its versions, and the one that the estimate stands on. */
export function CalibrationView({ runs }: { runs: readonly KeptRun[] }) {
  const { machine, complete, calibration } = useMachineFile();
  const client = useQueryClient();
  const [fitting, setFitting] = useState<AbortController | null>(null);
  const [seconds, setSeconds] = useState(0);
  const [problem, setProblem] = useState<string | null>(null);
  const [looked, setLooked] = useState<number | null>(null);
  const { data, error } = useQuery({
    queryKey: calibrationKeys.of(machine.id),
    queryFn: ({ signal }) => listCalibrations(machine.id, signal),
  });
  useEffect(() => {
    if (!fitting) return;
    const began = Date.now();
    const timer = setInterval(() => setSeconds(Math.round((Date.now() - began) / 1000)), 500);
    return () => clearInterval(timer);
  }, [fitting]);
  const running = useRef<AbortController | null>(null);
  useEffect(() => () => running.current?.abort(), []);
  const versions = data?.items ?? [];
  const shown = versions.find((v) => v.version === looked) ?? versions[0] ?? null;
  const withLogs = runs.filter((r) => (r.run.logs?.length ?? 0) > 0);
  const toFit = withLogs.filter((r) => (r.run.use ?? 'fit') === 'fit').length;

  const fit = async () => {
    if (fitting) {
      fitting.abort();
      return;
    }
    const gone = new AbortController();
    running.current = gone;
    setSeconds(0);
    setFitting(gone);
    setProblem(null);
    try {
      const made = await makeCalibration(machine.id, gone.signal);
      setLooked(made.version);
      await client.invalidateQueries({ queryKey: calibrationKeys.of(machine.id) });
    } catch (cause) {
      if (!gone.signal.aborted) setProblem((cause as Error).message);
    }
    running.current = null;
    setFitting(null);
  };
  const put = async (version: number | null) => {
    setProblem(null);
    try {
      const figures = await putVersionInUse(machine.id, version);
      client.setQueryData(calibrationKeys.inUse(machine.id), figures);
      await client.invalidateQueries({ queryKey: calibrationKeys.of(machine.id) });
      await client.invalidateQueries({ queryKey: ['machines', 'list'] });
    } catch (cause) {
      setProblem((cause as Error).message);
    }
  };
  const toggle = () => {
    if (shown) void put(calibration?.version === shown.version ? null : shown.version);
  };
  useCommands({ 'fit-now': () => void fit(), 'use-fit': toggle });
  const inUse = shown !== null && calibration?.version === shown.version;
  return (
    <section aria-label="calibration">
      <div className="grid lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-6 gap-y-3">
        <RunUses runs={runs} shown={shown} />
        <div>
          <h2 className="font-semibold">Fit</h2>
          <p className="text-[0.95rem] mt-1 flex flex-wrap gap-x-4 items-baseline">
            <button
              type="button"
              className="btn btn-sm btn-primary"
              disabled={!complete || (toFit === 0 && !fitting)}
              onClick={() => void fit()}
            >
              {fitting ? 'cancel' : `fit to ${toFit} ${toFit === 1 ? 'run' : 'runs'}`} <Kbd>f</Kbd>
            </button>
            {fitting && (
              <span role="status" className="text-quiet">
                fitting, <span className="figure">{seconds}</span> s
              </span>
            )}
            {shown && (
              <button type="button" className="underline cursor-pointer" onClick={toggle}>
                {inUse
                  ? `the estimate stands on version ${shown.version}: take it off`
                  : `let the estimate stand on version ${shown.version}`}{' '}
                <Kbd>w</Kbd>
              </button>
            )}
          </p>
          {(problem ?? error) && (
            <p role="alert" className="text-heat mt-1">
              {problem ?? error?.message}.
            </p>
          )}
          {calibration?.lapsed && (
            <p className="text-heat text-[0.9rem] mt-1">
              The record has changed since version {calibration.version}: the estimate stands on the
              record alone until it is fitted again.
            </p>
          )}
          <Versions
            versions={versions}
            shown={shown?.version ?? null}
            inUse={calibration?.version ?? null}
            look={setLooked}
          />
          {versions.length === 0 && !fitting && (
            <p className="text-quiet text-[0.9rem] mt-2 max-w-prose">
              {toFit === 0 && (
                <>
                  No run can be fitted yet: plan one with <Kbd>r</Kbd>, load the machine, and drop
                  its logs into it.{' '}
                </>
              )}
              One run that settled is enough to begin. What it does not tell stays as wide as it
              was; nothing is fitted beyond what was read.
            </p>
          )}
        </div>
      </div>
      {shown && <CalibrationAnswerView kept={shown} runs={runs} />}
    </section>
  );
}

function Versions({
  versions,
  shown,
  inUse,
  look,
}: {
  versions: readonly KeptCalibration[];
  shown: number | null;
  inUse: number | null;
  look: (version: number) => void;
}) {
  if (versions.length === 0) return null;
  return (
    <ol aria-label="versions" className="text-[0.9rem] mt-2">
      {versions.slice(0, 6).map((v) => (
        <li key={v.id} className="border-b border-rule">
          <button
            type="button"
            aria-pressed={v.version === shown}
            className={`cursor-pointer w-full text-left py-0.5 hover:text-ink ${
              v.version === shown ? 'text-ink font-semibold' : 'text-quiet'
            }`}
            onClick={() => look(v.version)}
          >
            version <span className="figure">{v.version}</span>,{' '}
            {format(new Date(v.createdAt), 'yyyy-MM-dd HH:mm')},{' '}
            {v.runs.filter((r) => r.use === 'fit' && r.states > 0).length} fitted,{' '}
            {v.runs.filter((r) => r.use === 'hold-out' && r.states > 0).length} held out
            {v.version === inUse ? ', in use' : ''}
          </button>
        </li>
      ))}
    </ol>
  );
}
