import { workDone, workDoneCells } from '@zugluft/core/runs/workDone';
import type { RunMark } from '../../documents/answer/runMarks';

const HEAD = ['load', 'W', 'done', 'for each W'];

/** Scores and frame rates of the runs beside the watts they were had with. */
export function DoneWithWatts({ marks }: { marks: readonly RunMark[] }) {
  const rows = workDone(
    marks.filter((m) => m.use !== 'leave-out').map((m) => ({ ...m, run: m.name })),
  );
  if (rows.length === 0) return null;
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
              <tr key={`${r.run} ${r.unit}`} className="border-b border-rule">
                {workDoneCells(r).map((text, i) => (
                  <td key={i} className={`px-1.5 py-1 ${i ? 'figure text-right' : 'break-words'}`}>
                    {i === 0 ? <bdi>{text}</bdi> : text}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
