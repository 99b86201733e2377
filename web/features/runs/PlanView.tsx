import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Cap } from '@zugluft/core/envelope/fanStates';
import type { PlannedRun } from '@zugluft/core/runs/planRuns';
import type { KeptRun } from '../../api/runs';
import { estimateWorker } from '../../documents/answer/workers/estimateClient';
import { useMachineFile } from '../../documents/record/MachineFile';
import { onWords, runName } from '../../documents/runName';
import { capWords } from './runWords';
import { COMPUTED_HERE } from '../../documents/answer/computedHere';

type Begin = (on: PlannedRun['on'], cap: Cap) => Promise<void>;

/** Which runs would teach most of this machine, in that order; planning one freezes what the estimate foretells of it. */
export function PlanView({ runs, begin }: { runs: readonly KeptRun[]; begin: Begin }) {
  const { live, complete, machine } = useMachineFile();
  const [canSet, setCanSet] = useState(true);
  const [busy, setBusy] = useState(false);
  const { request } = live;
  const { data, error } = useQuery({
    queryKey: ['runs', 'plan', machine.id, request],
    queryFn: () => estimateWorker().planRuns(request!),
    enabled: request !== null && complete,
    ...COMPUTED_HERE,
  });
  const planned = runs.filter((r) => (r.run.logs?.length ?? 0) === 0);
  if (!complete) {
    return (
      <p className="text-quiet">
        The plan needs a complete record: the cooling step says what is missing.
      </p>
    );
  }
  if (error) {
    return (
      <p role="alert" className="text-heat">
        The plan failed: {error.message}.
      </p>
    );
  }
  if (!data) return <p className="text-quiet">Computing what each run would tell.</p>;
  const plan = async (r: PlannedRun) => {
    setBusy(true);
    await begin(r.on, r.cap);
    setBusy(false);
  };
  return (
    <section aria-label="plan of runs">
      <p className="text-[0.9rem] text-quiet flex flex-wrap gap-x-4 items-baseline">
        <span>
          The watts at the cap in the middle are known to{' '}
          <span className="figure text-ink">± {half(data[0]!.nowW)}</span>{' '}
          <span className="unit">W</span>; what each run leaves of that, alone and beside the first.
        </span>
        <label className="flex gap-1 items-center">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={canSet}
            onChange={(e) => setCanSet(e.currentTarget.checked)}
          />
          the fans can be set
        </label>
      </p>
      <table className="w-full text-[0.95rem] mt-2">
        <thead>
          <tr className="text-left text-small text-quiet">
            <th className="font-normal">load</th>
            <th className="font-normal">{canSet ? 'fans' : 'how the fans come there'}</th>
            <th className="font-normal text-right">about</th>
            <th className="font-normal text-right">settles, lasts</th>
            <th className="font-normal text-right">alone</th>
            <th className="font-normal text-right max-sm:hidden">beside the first</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {data.map((r) => (
            <tr key={`${r.on} ${r.cap}`} className="border-t border-rule">
              <td className="py-1">{onWords(r.on)}</td>
              <td>{canSet ? capWords(r.cap) : byLoad(r)}</td>
              <td className="text-right">
                <span className="figure">{Math.round(r.cpuW + r.gpuW)}</span>{' '}
                <span className="unit">W</span>
              </td>
              <td className="text-right">
                <span className="figure">
                  {minutes(r.settleS)}, {minutes(r.lastsS)}
                </span>{' '}
                <span className="unit">min</span>
              </td>
              <td className="text-right figure whitespace-nowrap">± {half(r.thenW)}</td>
              <td className="text-right figure whitespace-nowrap max-sm:hidden">
                ± {half(r.besideFirstW)}
              </td>
              <td className="text-right whitespace-nowrap">
                {planned.some(
                  ({ prediction: p }) => p?.on === r.on && String(p.cap) === String(r.cap),
                ) && <span className="text-small text-quiet">planned </span>}
                <button
                  type="button"
                  className="underline cursor-pointer px-2"
                  disabled={busy}
                  onClick={() => void plan(r)}
                  aria-label={`plan ${onWords(r.on)}, ${capWords(r.cap)}`}
                >
                  plan it
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-small text-quiet mt-3 max-w-prose">
        Mains, lid open, the room’s temperature and the level with the machine off written down;
        microphone where the operator’s head is, on axis, at the laboratory’s distance. Load until
        nothing moves for five minutes. A surface over the touch limits can burn; fins stay hot
        after a load.
      </p>
      {planned.length > 0 && (
        <p className="text-[0.95rem] mt-2">
          Planned: {planned.map((r) => runName(r.run)).join('; ')}.{' '}
          <Link className="underline" to={`/machines/${machine.id}/run-sheet`}>
            run sheet to print
          </Link>
        </p>
      )}
    </section>
  );
}

const minutes = (s: number) => String(Math.max(1, Math.round(s / 60)));
const half = (w: number) => w.toFixed(w < 10 ? 1 : 0);

/** Where the owner cannot set the fans an ordinary load brings them about there. */
function byLoad({ on, cap, cpuW, gpuW }: PlannedRun): string {
  if (on === 'none') return 'as they turn when idle';
  if (cap === 'full') return 'as they turn under the full load';
  const held = [
    ...(cpuW > 6 ? [`CPU held at ${Math.round(cpuW)} W`] : []),
    ...(gpuW > 6 ? [`GPU at ${Math.round(gpuW)} W`] : []),
  ].join(', ');
  return `load of ${Math.round(cpuW + gpuW)} W${held ? ` (${held})` : ''}`;
}
