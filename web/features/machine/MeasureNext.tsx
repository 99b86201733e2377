import { MEASURED_WORDS } from '@zugluft/core/record/field';
import { fieldAt } from '@zugluft/core/record/fieldTable';
import { Link } from 'react-router';
import { useMachineFile } from '../../documents/record/MachineFile';
import { middleCap } from '../../documents/answer/caps';
import { figureWords, stepOfFigure } from '../../documents/record/figureWords';

const SHOWN = 3;

const MEANS = {
  'noise-sweep': 'Level over fan speed',
  'fan-curve': 'Fan curve or datasheet',
  'run-under-load': 'A steady run under load',
} as const;

/** Half a band now and then, in the decimals of watts; one more only where the gain would not be seen. */
function halves(nowW: number, thenW: number): [string, string] {
  const digits = nowW < 10 || nowW - thenW < 1 ? 1 : 0;
  return [nowW.toFixed(digits), thenW.toFixed(digits)];
}

/** By what a figure is found out. */
function howMeasured(path: string) {
  const measured = fieldAt(path)?.measured;
  return measured && <span className="text-quiet text-small">, {MEASURED_WORDS[measured]}</span>;
}

/** What to measure next because it narrows the band most. */
export function MeasureNext() {
  const { summary, machine, caps } = useMachineFile();
  const cap = middleCap(caps);
  if (!summary) return null;
  const here = (x: { readout: string; cap: unknown }) => x.readout === 'together' && x.cap === cap;
  const pick = summary.next.some(here)
    ? here
    : (x: { readout: string; cap: unknown }) => x.readout === 'cpuAlone' && x.cap === cap;
  const items = summary.next.find(pick)?.items.slice(0, SHOWN) ?? [];
  return (
    <section
      aria-label="measure next"
      className="hidden lg:block border-t border-rule mt-4 pt-3 px-2"
    >
      <h2 className="text-small font-semibold text-quiet mb-1.5">Measure next</h2>
      {items.length === 0 && (
        <p className="text-small text-quiet">No single measurement narrows the band much.</p>
      )}
      <ul className="space-y-2.5">
        {items.map((i) => (
          <li key={i.inputs[0]} className="text-[0.9rem] leading-snug">
            <Link
              to={
                i.means === 'figure'
                  ? `/machines/${machine.id}/${stepOfFigure(i.inputs[0]!)}`
                  : `/method?find=${encodeURIComponent(i.inputs[0]!)}`
              }
              title={i.inputs.map(figureWords).join(', ')}
              className="hover:underline underline-offset-2"
            >
              {i.means === 'figure' ? figureWords(i.inputs[0]!) : MEANS[i.means]}
            </Link>
            {i.means === 'figure' && howMeasured(i.inputs[0]!)}
            <div className="figure text-small text-quiet">
              ± {halves(i.nowW, i.thenW).join(' → ')} <span className="unit">W</span>
            </div>
          </li>
        ))}
      </ul>
      <Link
        to={`/machines/${machine.id}/bench-sheet`}
        className="inline-block mt-2 text-small text-quiet hover:text-ink underline underline-offset-2"
      >
        bench sheet to print
      </Link>
    </section>
  );
}
