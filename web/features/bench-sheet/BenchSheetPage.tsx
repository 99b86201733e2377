import { useMemo } from 'react';
import { benchSheet } from '@zugluft/core/record/benchSheet';
import { shownUnit } from '@zugluft/core/record/units';
import { figureWords } from '../../documents/record/figureWords';
import { useMachineFile } from '../../documents/record/MachineFile';
import { machineName } from '../../documents/record/machineName';
import { RangeWords } from '../../documents/record/measure/MeasureWords';
import { useUnits } from '../../kit/units';

/** A sheet to be printed and taken along: what is still open, in the order of opening, with room to write. */
export function BenchSheetPage() {
  const { draft, readable, live } = useMachineFile();
  const { units } = useUnits();
  const assumed = useMemo(
    () => new Set(live.estimate?.assumed.map((a) => a.path) ?? []),
    [live.estimate],
  );
  const sections = useMemo(() => benchSheet(readable ?? {}, assumed), [readable, assumed]);
  const { name, variant } = machineName(draft);
  const count = sections.reduce((n, s) => n + s.rows.length, 0);
  return (
    <article aria-label="bench sheet" data-testid="bench-sheet">
      <div className="flex flex-wrap items-baseline gap-x-4 mb-2">
        <h2 className="text-lg font-semibold">Bench sheet</h2>
        <span className="text-quiet grow">{[name, variant].filter(Boolean).join(', ')}</span>
        <button type="button" className="btn btn-sm no-print" onClick={() => window.print()}>
          Print
        </button>
      </div>
      <p className="text-quiet mb-3">
        {count === 0
          ? 'Nothing is open: every figure that is asked for stands in the record.'
          : `${count} ${count === 1 ? 'figure' : 'figures'} still open, in the order of opening. Write the figure, its ± and by what it was taken. Battery off before anything else is touched.`}
      </p>
      {sections.map((s) => (
        <section key={s.title} aria-label={s.title} className="mb-4 break-inside-avoid-page">
          <h3 className="font-semibold border-b border-ink pb-0.5">{s.title}</h3>
          <div
            className="overflow-x-auto"
            tabIndex={0}
            role="region"
            aria-label={`${s.title}, figures`}
          >
            <table className="w-full text-left border-collapse text-[0.92rem] min-w-[38rem]">
              <thead>
                <tr className="text-small text-quiet">
                  <th className="font-normal py-0.5 w-[24%]">figure</th>
                  <th className="font-normal w-[38%]">where, and what is often misread</th>
                  <th className="font-normal w-[15%]">usual</th>
                  <th className="font-normal">found, ±</th>
                </tr>
              </thead>
              <tbody>
                {s.rows.map(({ path, how, needed }) => (
                  <tr key={path} className="border-b border-rule align-top break-inside-avoid">
                    <td className="py-1 pr-2">
                      {figureWords(path)}
                      {needed && <span className="text-heat"> needed</span>}
                      <span className="block text-small text-quiet">{how.tool}</span>
                    </td>
                    <td className="py-1 pr-3 text-small">
                      {how.where} <span className="text-quiet">{how.misread}</span>
                    </td>
                    <td className="py-1 pr-2 text-small">
                      {how.usual && (
                        <RangeWords low={how.usual[0]} high={how.usual[1]} unit={how.unit} />
                      )}
                    </td>
                    <td className="py-1 h-10">
                      <span className="block border-b border-dotted border-ink h-6 text-right unit">
                        {how.unit && how.unit !== '0–1' ? shownUnit(how.unit, units) : ''}
                      </span>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </section>
      ))}
    </article>
  );
}
