import { useQueryClient } from '@tanstack/react-query';
import { format } from 'date-fns';
import { useState } from 'react';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { ForetoldResult, ResultOf } from '@zugluft/core/runs/foretoldResult';
import { foretellRun, runKeys, type KeptRun, type RunDocument } from '../../api/runs';
import { CapSelect } from '../../documents/answer/CapSelect';
import { wattsText } from '@zugluft/core/case/answerWords';
import { useMachineFile } from '../../documents/record/MachineFile';
import { onWords } from '../../documents/runName';
import { capWords } from './runWords';

/** What was foretold of a run before it, and how it came; before its first log it can be foretold. */
export function Foretold({
  machineId,
  kept,
  run,
  result,
}: {
  machineId: string;
  kept: KeptRun;
  run: RunDocument;
  result: ForetoldResult | null;
}) {
  const { caps, addCap, complete } = useMachineFile();
  const client = useQueryClient();
  const [cap, setCap] = useState<Cap>('full');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const { prediction } = kept;
  const known = (run.logs?.length ?? 0) > 0;
  const foretell = async () => {
    setBusy(true);
    setProblem(null);
    try {
      await foretellRun(machineId, kept.id, cap);
      await client.invalidateQueries({ queryKey: runKeys.of(machineId) });
    } catch (cause) {
      setProblem((cause as Error).message);
    }
    setBusy(false);
  };
  if (known && !prediction) {
    return (
      <p className="text-small text-quiet mt-3">
        Nothing was foretold before this run: what the record foretells now was made with the log in
        sight.
      </p>
    );
  }
  const changed = prediction && (prediction.on ?? 'both') !== (run.load?.on ?? 'both');
  return (
    <section aria-label="foretold" className="mt-3">
      <h3 className="font-semibold">Foretold</h3>
      {prediction && (
        <>
          <p className="text-small text-quiet">
            on {format(new Date(prediction.madeAt), 'yyyy-MM-dd HH:mm')}, before the run:{' '}
            {onWords(prediction.on ?? 'both')}, {capWords(prediction.cap)}
            {prediction.calibration ? `, calibration ${prediction.calibration}` : ''}
          </p>
          <Line name="watts" unit="W" told={prediction.watts} result={result?.watts ?? null} />
          {prediction.levelDbA && (
            <Line
              name="level"
              unit="dB(A)"
              told={prediction.levelDbA}
              result={result?.levelDbA ?? null}
            />
          )}
          {Object.entries(prediction.junctionC ?? {}).map(([die, told]) => (
            <Line
              key={die}
              name={`junction, ${die === 'cpu' || die === 'gpu' ? die.toUpperCase() : die}`}
              unit="°C"
              told={told}
              result={result?.junctionC[die] ?? null}
            />
          ))}
          {result?.logIsOlder && (
            <p className="text-heat text-[0.9rem] mt-1" role="status">
              The log began before this was foretold: it counts for nothing.
            </p>
          )}
        </>
      )}
      {!known && (
        <p className="text-[0.9rem] flex flex-wrap gap-x-2 items-baseline mt-1">
          {(!prediction || changed) && (
            <span className="text-quiet">
              {changed ? 'The load was changed since.' : 'Before its first log:'}
            </span>
          )}
          <CapSelect
            label="fans of the run"
            caps={caps}
            value={cap}
            choose={(c) => {
              addCap(c);
              setCap(c);
            }}
          />
          <button
            type="button"
            className="underline cursor-pointer disabled:opacity-60"
            disabled={busy || !complete}
            onClick={() => void foretell()}
          >
            {busy ? 'foretelling' : prediction ? 'foretell anew' : 'foretell and freeze'}
          </button>
        </p>
      )}
      {problem && (
        <p role="alert" className="text-heat">
          {problem}.
        </p>
      )}
    </section>
  );
}

function Line({
  name,
  unit,
  told,
  result,
}: {
  name: string;
  unit: string;
  told: { p05: number; p50: number; p95: number };
  result: ResultOf | null;
}) {
  const text = (x: number) => (unit === 'W' ? wattsText(x) : x.toFixed(unit === 'dB(A)' ? 1 : 0));
  return (
    <p className="grid grid-cols-[8rem_1fr] text-[0.9rem] border-b border-rule py-0.5">
      <span className="text-quiet">{name}</span>
      <span>
        <span className="figure">{text(told.p50)}</span> <span className="unit">{unit}</span>,{' '}
        {text(told.p05)} to {text(told.p95)}
        {result && (
          <>
            {' · '}
            <span className="figure">{text(result.measured)}</span> measured,{' '}
            <span className={result.inBand ? '' : 'text-heat font-semibold'}>
              {result.inBand ? 'inside' : 'outside'}
            </span>
          </>
        )}
      </span>
    </p>
  );
}
