import { useQuery } from '@tanstack/react-query';
import type { LeverPlan } from '@zugluft/core/levers/plansDocument';
import type { PromiseKept } from '@zugluft/core/levers/promiseKept';
import { openCase } from '@zugluft/core/case/openCase';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { steadyRunOf } from '@zugluft/core/runs/steadyRunOf';
import type { SteadyState } from '@zugluft/core/runs/analyseLog';
import { readRevision } from '../../api/documents';
import { withCalibration } from '@zugluft/core/calibration/caseKey';
import { readCalibrationInUse } from '../../api/calibrations';
import { listRuns, readSteady, runKeys } from '../../api/runs';
import { cleansFins, HoursSince } from './HoursSince';
import { signed } from './leverWords';
import { planWorker } from '../../documents/answer/workers/planClient';
import { useMachineFile } from '../../documents/record/MachineFile';
import { keyedCalibration } from '../../documents/record/useCalibration';
import { runName } from '../../documents/runName';

/** What came of a plan: a run before and one after, held against what was promised of just these two. */
export function PlanResult({
  plan,
  change,
}: {
  plan: LeverPlan;
  change: (update: (plan: LeverPlan) => LeverPlan, what: string) => void;
}) {
  const { machine, live } = useMachineFile();
  const { data: runs } = useQuery({
    queryKey: runKeys.of(machine.id),
    queryFn: ({ signal }) => listRuns(machine.id, signal),
    retry: false,
  });
  const { data: steady } = useQuery({
    queryKey: runKeys.steady(machine.id),
    queryFn: ({ signal }) => readSteady(machine.id, signal),
    retry: false,
  });
  const settled = (runs ?? []).filter((r) =>
    steady?.items.some((s) => s.id === r.id && s.states.length > 0),
  );
  const has = (id: string | null | undefined) => settled.some((r) => r.id === id);
  const { runBefore, runAfter, recordRevision, setting, levers, calibration } = plan;
  const both = has(runBefore) && has(runAfter) && runBefore !== runAfter;
  const { data, error, isFetching } = useQuery({
    queryKey: [
      'levers',
      'kept',
      plan.id,
      runBefore,
      runAfter,
      recordRevision,
      steady,
      live.request?.lab,
    ],
    queryFn: async (): Promise<PromiseKept | string> => {
      const old = await readRevision('record', machine.id, recordRevision);
      const { record } = parseRecord(old.value);
      if (!record) return 'the record as it was then can no longer be read';
      const plain = { record, lab: live.request?.lab, setting: setting ?? undefined };
      // held against what it was promised on
      const inUse = calibration ? await readCalibrationInUse(machine.id) : null;
      const { request } = withCalibration(
        plain,
        inUse && inUse.version === calibration ? keyedCalibration(inUse) : null,
      );
      const open = openCase(request);
      const told = [runBefore!, runAfter!].map((id) => {
        const states = steady!.items.find((s) => s.id === id)!.states;
        const run = settled.find((r) => r.id === id)!.run;
        return steadyRunOf(run, states[states.length - 1] as unknown as SteadyState, open);
      });
      const [before, after] = told as [(typeof told)[0], (typeof told)[0]];
      if ('message' in before) return `run before: ${before.message}`;
      if ('message' in after) return `run after: ${after.message}`;
      const changes = levers.flatMap((l) => l.change).map(({ path, to }) => ({ path, to }));
      const found = await planWorker().promiseKept(request, changes, before, after);
      return found ?? 'no junction was read in both runs';
    },
    enabled: both && steady !== undefined,
    retry: false,
    gcTime: 0,
  });
  const select = (label: string, key: 'runBefore' | 'runAfter') => (
    <label className="flex items-baseline gap-1.5">
      {label}
      <select
        className="select select-sm w-auto pr-8"
        value={has(plan[key]) ? plan[key]! : ''}
        onChange={(e) => {
          const id = e.currentTarget.value || null;
          change((p) => ({ ...p, [key]: id }), label);
        }}
      >
        <option value="">not made yet</option>
        {settled.map((r) => (
          <option key={r.id} value={r.id}>
            {(runs ?? []).indexOf(r) + 1} {runName(r.run)}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <section aria-label="what came of it">
      <h3 className="font-semibold">What came of it</h3>
      {settled.length < 2 && (
        <p className="text-quiet text-[0.95rem]">
          It takes two settled runs in the step Runs, one from before and one from after, both with
          the junctions read.
        </p>
      )}
      <p className="flex flex-wrap gap-x-6 gap-y-1">
        {select('run before', 'runBefore')}
        {select('run after', 'runAfter')}
      </p>
      {cleansFins(plan) && <HoursSince key={plan.id} plan={plan} change={change} />}
      {runBefore && runBefore === runAfter && (
        <p className="text-heat text-small">Before and after have to be two runs.</p>
      )}
      {error && (
        <p role="alert" className="text-heat">
          They could not be compared: {error.message}.
        </p>
      )}
      {both && isFetching && !data && <p className="text-quiet">Comparing.</p>}
      {both && data && (
        <div data-testid="promise-kept" className="mt-1">
          {typeof data === 'string' ? <p className="text-heat">{data}.</p> : <Kept kept={data} />}
        </div>
      )}
    </section>
  );
}

const VERDICTS: Record<PromiseKept['verdict'], string> = {
  kept: 'The promise was kept.',
  unclear: 'These two runs cannot tell it from nothing.',
  broken: 'That is not what was promised.',
};

function Kept({ kept }: { kept: PromiseKept }) {
  const { promisedK: p, readK: r, die, watts, levelDbA } = kept;
  const k = (x: number) => x.toFixed(1);
  return (
    <>
      <p>
        {die.toUpperCase()} {r.p50 < 0 ? 'hotter' : 'cooler'} by{' '}
        <span className="figure">{k(Math.abs(r.p50))}</span> <span className="unit">K</span> (
        {signed(r.p05)} to {signed(r.p95)}) at the watts, fans and room of the run after; promised{' '}
        <span className="figure">{signed(p.p50)}</span> ({signed(p.p05)} to {signed(p.p95)}).{' '}
        <strong>{VERDICTS[kept.verdict]}</strong>
      </p>
      <p className="text-small text-quiet">
        Runs are never just alike: what the machine of before would have read in the run after is
        told by the model, moved by the share that it was off in the run before.{' '}
        {Math.round(watts.before)} W before, {Math.round(watts.after)} W after
        {levelDbA &&
          `; ${levelDbA.before.toFixed(1)} dB(A) before, ${levelDbA.after.toFixed(1)} after`}
        .
      </p>
    </>
  );
}
