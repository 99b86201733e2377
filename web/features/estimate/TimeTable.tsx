import type { Simulation } from '@zugluft/core/transient/simulateFirmware';
import { shownUnit, toShown } from '@zugluft/core/record/units';
import { useUnits } from '../../kit/units';
import { wattsText } from '@zugluft/core/case/answerWords';

/** Lines of the table, spread evenly over the run. */
const ROWS = 12;

/** A run as figures, for who cannot see its lines or wants the numbers. */
export function TimeTable({ run }: { run: Simulation }) {
  const { units } = useUnits();
  const last = run.cpuW.length - 1;
  const at = Array.from({ length: ROWS + 1 }, (_, i) => Math.round((i * last) / ROWS));
  const degrees = (c: number | undefined) =>
    c === undefined || Number.isNaN(c) ? '–' : toShown(c, '°C', units).toFixed(0);
  const level = (dbA: number | undefined) =>
    dbA === undefined || !Number.isFinite(dbA) ? '–' : dbA.toFixed(1);
  return (
    <details className="text-[0.9rem] no-print">
      <summary className="cursor-pointer text-quiet hover:text-ink inline-flex items-center">
        as a table
      </summary>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="the run in figures">
        <table className="text-right">
          <thead>
            <tr className="text-small text-quiet border-b border-ink">
              <th className="font-normal pr-4">min</th>
              <th className="font-normal pr-4">CPU, W</th>
              <th className="font-normal pr-4">GPU, W</th>
              {run.junctionC.map((j) => (
                <th key={j.id} className="font-normal pr-4">
                  {j.id}, {shownUnit('°C', units)}
                </th>
              ))}
              <th className="font-normal">dB(A)</th>
            </tr>
          </thead>
          <tbody className="figure">
            {[...new Set(at)].map((k) => (
              <tr key={k} className="border-b border-rule">
                <td className="pr-4">{((k * run.stepS) / 60).toFixed(1)}</td>
                <td className="pr-4">{wattsText(run.cpuW[k]!)}</td>
                <td className="pr-4">{wattsText(run.gpuW[k]!)}</td>
                {run.junctionC.map((j) => (
                  <td key={j.id} className="pr-4">
                    {degrees(j.temperatureC[k])}
                  </td>
                ))}
                <td>{level(run.levelDbA[k])}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}
