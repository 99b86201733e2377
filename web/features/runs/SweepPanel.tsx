import { useQuery } from '@tanstack/react-query';
import { takeSweep } from '@zugluft/core/runs/takeSweep';
import { readFanSweep, runKeys } from '../../api/runs';
import { useCommands } from '../../documents/commands';
import { useMachineFile } from '../../documents/record/MachineFile';
import { Kbd } from '../../kit/Kbd';

/** Fan speeds against level as ordinary loads gave them; taken into the record by one key. */
export function SweepPanel() {
  const { machine, draft, change } = useMachineFile();
  const { data, error, isPending } = useQuery({
    queryKey: runKeys.sweep(machine.id),
    queryFn: ({ signal }) => readFanSweep(machine.id, signal),
    retry: false,
  });
  const usable = (data?.points ?? []).filter((p) => !p.upperBound);
  const fans = Object.keys(data?.points[0]?.rpm ?? {});
  const there = (draft['noise'] as { sweep?: unknown[] } | undefined)?.sweep?.length ?? 0;
  const take = () => {
    if (usable.length > 0) change((d) => takeSweep(d, usable), 'fan sweep out of runs');
  };
  useCommands({ 'take-sweep': take });
  return (
    <section aria-label="fan sweep" className="max-w-3xl">
      <h2 className="font-semibold">Fan sweep out of the runs</h2>
      <p className="text-small text-quiet">
        Every speed that the fans held for half a minute, with the level beside it, background taken
        off, at the laboratory’s distance.
      </p>
      {isPending && <p className="text-quiet">Reading the logs.</p>}
      {error && (
        <p role="alert" className="text-heat">
          {error.message}.
        </p>
      )}
      {data?.lacks && <p>None yet: {data.lacks}.</p>}
      {data && data.points.length > 0 && (
        <>
          <table className="text-[0.95rem] my-2">
            <thead>
              <tr className="text-quiet text-small text-left">
                {fans.map((f) => (
                  <th key={f} scope="col" className="font-normal pr-6">
                    {f} <span className="unit">rpm</span>
                  </th>
                ))}
                <th scope="col" className="font-normal pr-6">
                  level <span className="unit">dB(A)</span>
                </th>
                <th scope="col" className="font-normal pr-6">
                  heard
                </th>
                <th scope="col" className="font-normal">
                  runs
                </th>
              </tr>
            </thead>
            <tbody>
              {data.points.map((p) => (
                <tr key={JSON.stringify(p.rpm)} className="border-b border-rule">
                  {fans.map((f) => (
                    <td key={f} className="figure pr-6">
                      {p.rpm[f]}
                    </td>
                  ))}
                  <td className="figure pr-6 whitespace-nowrap">
                    {p.upperBound ? 'at most ' : ''}
                    {p.dbA.toFixed(1)} ± {p.plusMinus.toFixed(1)}
                  </td>
                  <td className="pr-6 whitespace-nowrap">
                    <span className="figure">{Math.round(p.heardS)}</span>{' '}
                    <span className="unit">s</span>
                  </td>
                  <td className="figure">{p.runs.length}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {data.law && (
            <p className="text-[0.9rem]">
              The level rises by <span className="figure">{data.law.dbPerDecade.toFixed(0)}</span>{' '}
              <span className="unit">dB</span> for ten times the speed (fan laws: 50), points lie{' '}
              <span className="figure">{data.law.scatterDb.toFixed(1)}</span>{' '}
              <span className="unit">dB</span> from it.
            </p>
          )}
          <p className="mt-2">
            <button
              type="button"
              className="btn btn-sm"
              disabled={usable.length === 0}
              onClick={take}
            >
              {there > 0 ? 'In place of the one in the record' : 'Into the record'} <Kbd>2</Kbd>
            </button>{' '}
            <span className="text-small text-quiet">
              {there > 0 ? `the record holds ${there} points` : 'the record holds none'}; undo
              brings it back
            </span>
          </p>
        </>
      )}
    </section>
  );
}
