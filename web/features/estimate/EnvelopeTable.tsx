import type { CapEstimate } from '@zugluft/core/case/answer';
import { bindingWords, capWord, wattsText } from '@zugluft/core/case/answerWords';

/** The corners of every line as a table, for who cannot see them or wants the figures. */
export function EnvelopeTable({ caps }: { caps: readonly CapEstimate[] }) {
  return (
    <details className="text-[0.9rem] no-print">
      <summary className="cursor-pointer text-quiet hover:text-ink inline-flex items-center">
        as a table
      </summary>
      <div
        className="overflow-x-auto"
        tabIndex={0}
        role="region"
        aria-label="corners of the envelope"
      >
        <table className="text-left">
          <thead>
            <tr className="text-small text-quiet border-b border-ink">
              <th className="font-normal pr-4">cap</th>
              <th className="font-normal pr-4 text-right">CPU, W</th>
              <th className="font-normal pr-4 text-right">GPU, W</th>
              <th className="font-normal">from here on held by</th>
            </tr>
          </thead>
          <tbody>
            {caps.flatMap((c) =>
              c.envelope.map((corner, i) => (
                <tr key={`${c.cap}-${i}`} className="border-b border-rule">
                  <th scope="row" className="font-normal pr-4">
                    {capWord(c.cap)}
                  </th>
                  <td className="figure pr-4 text-right">{wattsText(corner.cpuWatts)}</td>
                  <td className="figure pr-4 text-right">{wattsText(corner.gpuWatts)}</td>
                  <td>{corner.edge ? bindingWords(corner.edge) : '–'}</td>
                </tr>
              )),
            )}
          </tbody>
        </table>
      </div>
    </details>
  );
}
