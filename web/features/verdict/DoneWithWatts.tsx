import { useQuery } from '@tanstack/react-query';
import type { UsualOfRuns } from '@zugluft/core/library/runAnswers';
import { plural } from '@zugluft/core/record/plural';
import { againstUsual } from '@zugluft/core/runs/againstUsual';
import { inDigits, workDone, workDoneCells, type WorkDone } from '@zugluft/core/runs/workDone';
import { readUsual, runKeys } from '../../api/runs';
import type { RunMark } from '../../documents/answer/runMarks';

const HEAD = ['load', 'W', 'done', 'for each W', 'usual at such watts'];

/** Scores and frame rates of the runs beside the watts they were had with, and what other machines did under the same loads. */
export function DoneWithWatts({
  machineId,
  marks,
}: {
  machineId: string;
  marks: readonly RunMark[];
}) {
  const rows = workDone(
    marks.filter((m) => m.use !== 'leave-out').map((m) => ({ ...m, run: m.key })),
  );
  const { data: usual } = useQuery({
    queryKey: runKeys.usual(machineId),
    queryFn: ({ signal }) => readUsual(machineId, signal),
    enabled: rows.length > 0,
    retry: false,
  });
  if (rows.length === 0) return null;
  const nameOf = (key: string) => marks.find((m) => m.key === key)?.name ?? '';
  return (
    <section aria-label="done with the watts" className="mt-6">
      <h2 className="font-semibold mb-1">Done with the watts</h2>
      <div className="overflow-x-auto">
        <table className="w-full text-left border-collapse text-[0.95rem]">
          <thead>
            <tr className="border-b border-ink text-small">
              {HEAD.map((h, i) => (
                <th
                  key={h}
                  scope="col"
                  className={`font-normal px-1.5 py-1 ${i ? 'text-right' : ''}`}
                >
                  {h}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr key={`${r.run} ${r.unit}`} className="border-b border-rule align-baseline">
                {workDoneCells({ ...r, run: nameOf(r.run) }).map((text, i) => (
                  <td key={i} className={`px-1.5 py-1 ${i ? 'figure text-right' : 'break-words'}`}>
                    {i === 0 ? <bdi>{text}</bdi> : text}
                  </td>
                ))}
                <td className="px-1.5 py-1 text-right">
                  <Usual row={r} usual={usual} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

/** “8,900 to 10,100, as usual; 7 machines”, or what it would take. */
function Usual({ row, usual }: { row: WorkDone; usual: UsualOfRuns | undefined }) {
  if (!usual) return null;
  if (row.load === '') return <span className="text-quiet">the load has no name</span>;
  const found = usual.items.find((u) => u.run === row.run && u.unit === row.unit)?.usual;
  if (!found) return null;
  if (found.refused) {
    return (
      <span className="text-quiet">
        {plural(found.machines, 'machine')} at such watts, needs {found.needs}
      </span>
    );
  }
  const digits = row.unit === 'points' ? 0 : 1;
  return (
    <>
      <span className="figure">
        {inDigits(found.p05, digits)} to {inDigits(found.p95, digits)}
      </span>
      , <span className="font-semibold">{againstUsual(row.done, found)}</span>
      <span className="text-quiet">; {plural(found.machines, 'machine')}</span>
    </>
  );
}
