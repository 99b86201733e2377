import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import { listRuns, runKeys, type KeptRun } from '../../api/runs';
import { wattsText } from '@zugluft/core/case/answerWords';
import { useMachineFile } from '../../documents/record/MachineFile';
import { machineName } from '../../documents/record/machineName';
import { onWords, runName } from '../../documents/runName';
import { RunChecklist } from './RunChecklist';
import { capWords } from './runWords';

/** A sheet to be printed for the bench: each planned run with its conditions, what to write down, and what was foretold of it. */
export function RunSheetPage() {
  const { draft, machine } = useMachineFile();
  const { name, variant } = machineName(draft);
  const { data, error } = useQuery({
    queryKey: runKeys.of(machine.id),
    queryFn: ({ signal }) => listRuns(machine.id, signal),
  });
  const [params, setParams] = useSearchParams();
  const planned = (data ?? []).filter((r) => (r.run.logs?.length ?? 0) === 0);
  const atBench = (data ?? []).find((r) => r.id === params.get('run'));
  if (atBench) {
    return (
      <RunChecklist
        key={atBench.id}
        kept={atBench}
        leave={() => setParams({}, { replace: true })}
      />
    );
  }
  return (
    <article aria-label="run sheet">
      <div className="flex flex-wrap items-baseline gap-x-4 mb-2">
        <h2 className="text-lg font-semibold">Run sheet</h2>
        <span className="text-quiet grow">{[name, variant].filter(Boolean).join(', ')}</span>
        <button type="button" className="btn btn-sm no-print" onClick={() => window.print()}>
          Print
        </button>
      </div>
      {error && (
        <p role="alert" className="text-heat">
          {error.message}.
        </p>
      )}
      <p className="max-w-prose text-[0.95rem]">
        Before each run: mains, battery as the house has it, updates done, nothing else running,
        clocks of all instruments set alike. Microphone at the operator’s place, on axis, checked
        with the calibrator before and after. Level with the machine off, and the room’s
        temperature, at the beginning and at the end. Fins and base stay hot after a load; a base
        over the touch limits can burn. Speeds and power limits only as far as the maker lets them
        be set.
      </p>
      {data && planned.length === 0 && (
        <p className="text-quiet mt-3">
          Nothing is planned: the plan in the step Runs says what would teach most.
        </p>
      )}
      {planned.map((r, i) => (
        <PlannedSheet
          key={r.id}
          kept={r}
          number={i + 1}
          atBench={() => setParams({ run: r.id }, { replace: true })}
        />
      ))}
    </article>
  );
}

const BLANKS = [
  'room at the start, °C',
  'room at the end, °C',
  'level with the machine off, dB(A)',
  'calibrator before, after, dB',
  'log began, by which clock',
  'nothing moved any more from, min',
  'level then, dB(A)',
  'wall power then, W',
];

function PlannedSheet({
  kept,
  number,
  atBench,
}: {
  kept: KeptRun;
  number: number;
  atBench: () => void;
}) {
  const { run, prediction } = kept;
  return (
    <section className="mt-4 break-inside-avoid-page" aria-label={`run ${number}`}>
      <h3 className="font-semibold border-b border-ink pb-0.5">
        {number} {runName(run)}{' '}
        <button
          type="button"
          className="no-print underline font-normal text-small cursor-pointer"
          onClick={atBench}
        >
          at the bench, step by step
        </button>
      </h3>
      <p className="text-[0.95rem] py-1">
        {run.load ? onWords(run.load.on) : 'load'}, setting {run.setting ?? 'as it stands'}, fans{' '}
        {prediction ? capWords(prediction.cap) : (run.fanMode ?? 'as they turn')}, lid{' '}
        {run.lid ?? 'open'}, from {run.source ?? 'mains'}
        {prediction &&
          `. Foretold: ${wattsText(prediction.watts.p05)} to ${wattsText(prediction.watts.p95)} W`}
      </p>
      <ul className="grid sm:grid-cols-2 gap-x-6">
        {BLANKS.map((what) => (
          <li
            key={what}
            className="border-b border-rule py-1.5 grid grid-cols-[1.2rem_1fr_6rem] items-end"
          >
            <span className="inline-block w-3 h-3 border border-ink" aria-hidden />
            <span>{what}</span>
            <span className="border-b border-ink" aria-hidden>
              &nbsp;
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
